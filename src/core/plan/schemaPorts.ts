import { boolean } from 'yup';
import { SEALING_KEYS } from '../reference/compatibility';
import { PORT_PARTS } from '../reference/portParts';
import { bounded, known } from '../schema/known';
import { closed, id, name, oneOf, text } from '../schema/tools';
import { SPAN_M, TANK_M } from '../schema/tools';

/** Holes in a tank, what stands on them, and what hangs from them to draw. */
export const FACES = ['lid', 'floor', 'fore', 'aft', 'port', 'starboard'] as const;
export const PORT_ROLES = ['filler', 'vent', 'feed', 'return', 'sender', 'drain', 'spare'] as const;

/** Where a hose end on a port goes on to: straight out, or to one side in the tank's axes. */
export const TURNS = ['straight', 'fore', 'aft', 'port', 'starboard', 'up', 'down'] as const;

/** Caps of fillers, by what they do while they are on. */
export const CAP_KINDS = ['plain', 'drilled', 'screw', 'barb', 'in-only', 'both-ways'] as const;

/** Of caps, rings and tapes at fillers. */
export const MARK_COLOURS = ['black', 'white', 'red', 'yellow', 'green', 'blue', 'brown', 'bare'] as const;

export const port = closed({
  id: id(),
  name: name(),
  role: oneOf(PORT_ROLES),
  face: oneOf(FACES),
  /** Centre of the hole; the coordinate across the face follows from the shape. */
  x_m: known(-TANK_M, TANK_M, 'distance from aft', 'tape').optional(),
  y_m: known(-TANK_M, TANK_M, 'distance from starboard', 'tape').optional(),
  z_m: known(-TANK_M, TANK_M, 'height', 'tape').optional(),
  bore_m: known(0.0003, 0.5, 'bore', 'bore'),
  /** Of the neck, hose or hole behind it. */
  length_m: known(0, SPAN_M, 'length behind it', 'run'),
  /** What stands on it outside, where it is not as usual for its role. */
  stands: closed({
    height_m: known(0, 2, 'height', 'tape'),
    diameter_m: known(0.002, 1, 'diameter', 'tape'),
    /** A hose end that turns aside from the top of it, and how far it reaches. */
    turns: oneOf(TURNS),
    reach_m: known(0, 2, 'hose end reaches', 'tape'),
  }).optional(),
  /** The part that goes into the hole, by its key in the table of port parts; nothing is said of it where left out. */
  part: oneOf(PORT_PARTS.map(({ key }) => key)).optional(),
  /** The hole to be cut, where the part at hand differs from the table's. */
  hole_m: known(0.001, 0.5, 'hole to be cut', 'tape').optional(),
  /** Its screws, where they differ. */
  bolts: closed({
    count: bounded(1, 36).integer('must be a whole number'),
    circle_m: known(0.01, 0.6, 'circle of its screws', 'tape'),
    diameter_m: known(0.002, 0.02, 'holes of its screws', 'tape'),
    /** By how much the last screw stands off where it would be if all stood evenly, clockwise as seen from outside. */
    outOfStep_deg: known(-90, 90, 'last screw out of step by', 'slope').optional(),
  }).optional(),
  /** The way of the first screw from the sheet's upward way, clockwise as seen from outside. */
  clock_deg: known(-180, 180, 'first screw from upward', 'slope').optional(),
  /** Of a tube inside that leads what comes in down from it; falls freely where left out. */
  drop_m: known(0, 5, 'tube that leads it down', 'tape').optional(),
  /** Of a filler: its cap; nothing is said of it where left out. */
  cap: closed({
    kind: oneOf(CAP_KINDS),
    hole_m: known(0.0002, 0.05, 'hole in the cap', 'bore').optional(),
    opensIn_Pa: known(0, 5e4, 'lets air in from', 'pressure').optional(),
    opensOut_Pa: known(0, 2e5, 'lets pressure out from', 'pressure').optional(),
    /** Of one with a screw: whether it is shut. */
    shut: boolean().typeError('must be true or false').optional(),
  }).optional(),
  /** Of a vent: the valve that shuts it, by leaning so far, by a float, or by either; none where left out. */
  shutOff: closed({
    lean_deg: known(5, 175, 'lean at which its valve shuts', 'slope').optional(),
    float: boolean().typeError('must be true or false').optional(),
  }).optional(),
  /** Of a vent: the screen, filter or silencer in it, by one point that it is rated at; none where left out. */
  screen: closed({
    flow_m3PerS: known(1e-7, 0.1, 'flow of air that its screen is rated at', 'transfer'),
    loss_Pa: known(0.1, 1e5, 'loss of its screen at that flow', 'pressure'),
  }).optional(),
  /** Of a filler: what stands on it in words, and its colour; nothing is said of it where left out. */
  mark: closed({ says: text(80).optional(), colour: oneOf(MARK_COLOURS).optional() }).optional(),
  /** What makes it tight, by its key in the table of contacts; nothing is said of it where left out. */
  seal: oneOf(SEALING_KEYS).optional(),
  /**
   * Of a spigot: the port of this tank, by its id, on whose plate or ring it stands; nothing is cut for it.
   */
  on: id().optional(),
  /** A hole that is there already: nothing is cut. */
  existing: boolean().typeError('must be true or false').optional(),
});

export const PICKUP_KINDS = ['top-tube', 'hose', 'module', 'bottom-outlet'] as const;
export const STRAINERS = ['none', 'sock', 'mesh'] as const;

export const pickup = closed({
  id: id(),
  name: name(),
  port: id(),
  kind: oneOf(PICKUP_KINDS),
  strainer: oneOf(STRAINERS),
  heightOffFloor_m: known(0, 5, 'height off the floor', 'tape'),
  bore_m: known(0.001, 0.1, 'bore', 'bore'),
  /** Liquid that must stand over the inlet before it draws air. */
  submergence_m: known(0, 0.1, 'liquid needed over the inlet', 'tape'),
  /** A can about its lower end, open above, with openings at its foot. */
  can: closed({
    diameter_m: known(0.02, 1, 'width of the can', 'tape'),
    height_m: known(0.01, 2, 'height of the can', 'tape'),
    openings: closed({
      count: bounded(1, 400).integer('must be a whole number'),
      diameter_m: known(0.001, 0.2, 'width of an opening', 'tape'),
    }),
    /** What of them lets liquid out again: all of plain holes, little of doors that open inward. */
    leak_ratio: known(0, 1, 'leak of its openings', 'share'),
  }).optional(),
  /** Where its upper end is seated, over the outside of the sheet; as its port's part has it where left out. */
  seat_m: known(-0.3, 0.3, 'seat over the lid', 'tape').optional(),
});
