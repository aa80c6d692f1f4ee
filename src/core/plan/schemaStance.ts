import { known } from '../schema/known';
import { byKind, closed, flag, id, kindIs, listOf, name, oneOf, optionalList, SPAN_M } from '../schema/tools';
import { WATERS } from '../reference/waters';

/** What the vehicle stands on, or the hull that floats it, and what was on it when it was weighed. */

/** Without the tanks; with them dry; with them filled to their limits. */
export const WEIGHED = ['without', 'dry', 'full'] as const;

const load_kg = (label: string) => known(-20e3, 100e3, label, 'load');
const rating_kg = (label: string) => known(1, 100e3, label, 'load');
const along_m = (label: string) => known(-SPAN_M, SPAN_M, label, 'tape');

export const axle = closed({
  id: id(),
  name: name(),
  x_m: along_m('distance from aft'),
  track_m: known(0.1, 5, 'middle to middle of its wheels', 'tape'),
  load_kg: load_kg('weighed on it'),
  /** Half of it where left out. */ portLoad_kg: load_kg('of that on its port side').optional(),
  /** As its maker has it. */ rating_kg: rating_kg('most that it may bear').optional(),
  /** Of each of its wheels, at the wheel; all alike where left out. */
  rate_NPerM: known(1e3, 1e7, 'spring rate at each wheel', 'stiffness').optional(),
  /** A beam between them gives it and the axle before it in the list the same load. */
  sharesWithLast: flag().optional(),
});

/** How steady a hull is: known, tried by a weight that is moved across, or by how long it rolls. */
const steady = byKind({
  given: closed({ kind: kindIs('given'), gm_m: known(0.01, 20, 'metacentric height', 'tape') }),
  moved: closed({
    kind: kindIs('moved'),
    moved_kg: known(0.1, 50e3, 'weight moved across', 'load'),
    moved_m: known(0.05, 20, 'moved across by', 'tape'),
    heeled_deg: known(0.05, 15, 'it heeled by', 'slope'),
  }),
  rolled: closed({ kind: kindIs('rolled'), period_s: known(0.5, 60, 'once to and fro it rolls in', 'period') }),
});

export const hull = closed({
  water: oneOf(WATERS),
  displacement_kg: known(5, 1e6, 'displacement when weighed', 'load'),
  waterline_m: along_m('height of its waterline'),
  steady,
  /** Its breadth along the waterline, from one end to the other. */
  stations: listOf(
    closed({ x_m: along_m('distance from aft'), beam_m: known(0, 15, 'breadth at the waterline', 'tape') }),
    21,
    2,
  ),
});

export const stance = closed({
  weighed: oneOf(WEIGHED),
  middle_m: along_m('middle of the vehicle, from starboard'),
  /** With everything on it, as its maker has it. */
  rating_kg: rating_kg('most that it may weigh').optional(),
  axles: optionalList(axle, 8),
  hitch: closed({
    x_m: along_m('distance from aft'),
    load_kg: load_kg('weighed on the coupling'),
    rating_kg: rating_kg('most that the coupling may bear').optional(),
  })
    .optional()
    .default(undefined),
  /** How high its weight lies. */
  height: closed({
    ground_m: along_m('height of the ground'),
    centre_m: along_m('height of its centre of gravity as weighed'),
  })
    .optional()
    .default(undefined),
  hull: hull.optional().default(undefined),
})
  .optional()
  .default(undefined);
