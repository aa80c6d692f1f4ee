import type { TankLevel } from '../../model/networkParts';
import { surroundOf } from '../../model/compileSender';
import { freeRun, shareAt, lawOf } from '../../gauge';
import {
  crossingsAt,
  meshBounds,
  outlineBelow,
  sectionAcross,
  surfaceInSection,
  type Axis,
  type Bounds,
  type Point2,
  type Vec3,
} from '../../geometry';
import type { FittedPlate } from '../../tank';

/** A cut through the tank, in metres, tank frame. */
export type SectionDrawing = {
  readonly outline: readonly (readonly Point2[])[];
  readonly liquid: readonly (readonly Point2[])[];
  /** Baffles that the cut goes through, by id; one with a gap in it has several lines. */
  readonly plates: readonly { readonly id: string; readonly line: readonly [Point2, Point2] }[];
};

export type SenderDrawing = {
  readonly id: string;
  /** The pivot of an arm, the port of a probe. */
  readonly from: readonly [number, number, number];
  /** From there to the float, by the bend of a bent arm; or down the probe. */
  readonly wire: readonly (readonly [number, number, number])[];
  readonly float: readonly [number, number, number];
  /** Centres of the float along its free swing, low to high. */
  readonly sweep: readonly (readonly [number, number, number])[];
  readonly radius_m: number;
};

/**
 * What the three views draw: side and end cut through the first pickup, or the middle; plan cut just under the liquid's
 * surface where that is level.
 */
export type TankDrawing = {
  readonly bounds: Bounds;
  readonly side: SectionDrawing;
  readonly end: SectionDrawing;
  readonly plan: SectionDrawing;
  /** Where end, side and plan are cut: at a length, a width and a height [m]. */
  readonly cuts_m: Vec3;
  readonly ports: readonly {
    readonly id: string;
    readonly role: string;
    readonly face: string;
    readonly name: string;
    readonly at: readonly [number, number, number];
  }[];
  readonly pickups: readonly {
    readonly id: string;
    readonly name: string;
    readonly port: readonly [number, number, number];
    readonly inlet: readonly [number, number, number];
  }[];
  readonly senders: readonly SenderDrawing[];
};

const SWEEP_STEPS = 24;
const ALONG_SIDE: Axis = 1;
const ALONG_END: Axis = 0;
const FROM_ABOVE: Axis = 2;
/** The plan keeps this share of the height off floor and lid. */
const OFF_ENDS = 0.02;

/**
 * What is drawn of a tank with its liquid at one level: sections, ports, pickups and senders, in the tank's frame
 * [m].
 */
export function tankDrawing(level: TankLevel): TankDrawing {
  const { tank } = level;
  const bounds = meshBounds(tank.body.shell);
  const middle = bounds.min.map((value, axis) => (value + bounds.max[axis]!) / 2);
  const through = tank.pickups[0]?.inlet.point_m ?? middle;
  const cuts_m: Vec3 = [through[0]!, through[1]!, planHeight_m(level, bounds)];
  return {
    bounds,
    side: section(level, ALONG_SIDE, cuts_m[1]),
    end: section(level, ALONG_END, cuts_m[0]),
    plan: section(level, FROM_ABOVE, cuts_m[2]),
    cuts_m,
    ports: tank.ports.map(({ document, point_m }) => ({
      id: document.id,
      role: document.role,
      face: document.face,
      name: document.name,
      at: point_m,
    })),
    pickups: tank.pickups.map(({ document, port_m, inlet }) => ({
      id: document.id,
      name: document.name,
      port: port_m,
      inlet: inlet.point_m,
    })),
    senders: tank.senders.flatMap((sender) => senderDrawing(level, sender)),
  };
}

/** Half-way up the liquid in the middle of the tank, so that what is wet in the plan is where the liquid stands. */
function planHeight_m({ up, offset_m }: TankLevel, { min, max }: Bounds): number {
  const height = max[2] - min[2];
  const surface =
    (offset_m - (up[0] * (min[0] + max[0])) / 2 - (up[1] * (min[1] + max[1])) / 2) /
    (Math.abs(up[2]) > 0.1 ? up[2] : 1);
  return Math.min(max[2] - OFF_ENDS * height, Math.max(min[2] + OFF_ENDS * height, (min[2] + surface) / 2));
}

function section({ tank, up, offset_m }: TankLevel, axis: Axis, at_m: number): SectionDrawing {
  const outline = sectionAcross(tank.mesh, axis, at_m);
  const { normal, offset } = surfaceInSection({ normal: up, offset_m }, axis, at_m);
  return {
    outline,
    liquid: outline.map((loop) => outlineBelow(loop, normal, offset)).filter((loop) => loop.length > 2),
    plates: tank.body.plates.flatMap(({ plate }) =>
      platesIn(plate, axis, at_m).map((line) => ({ id: plate.id, line })),
    ),
  };
}

/** The lines in which a plate meets a section across another axis. */
function platesIn(plate: FittedPlate, axis: Axis, at_m: number): (readonly [Point2, Point2])[] {
  if (plate.axis === axis) return [];
  const { outline: loops } = plate;
  const [first] = ([0, 1, 2] as const).filter((other) => other !== plate.axis) as [Axis, Axis];
  // The plate's outline runs over two axes: the section's own, and the one along which the line is drawn.
  const [own, along] = axis === first ? [0, 1] : [1, 0];
  const top_m = Math.max(...loops.flat().map((point) => point[1])) - plate.topGap_m;
  const ends = loops
    .flatMap((loop) => crossingsAt(loop, own as 0 | 1, at_m))
    .map((point) => point[along]!)
    .sort((a, b) => a - b);
  const [u] = ([0, 1, 2] as const).filter((other) => other !== axis) as [Axis, Axis];
  const drawn = (value: number): Point2 => (plate.axis === u ? [plate.at_m, value] : [value, plate.at_m]);
  const upright = plate.axis !== 2 && axis !== 2;
  return ends.flatMap((low, i) => {
    const high = upright ? Math.min(ends[i + 1] ?? low, top_m) : ends[i + 1];
    return i % 2 === 0 && high !== undefined && high > low ? [[drawn(low), drawn(high)] as const] : [];
  });
}

function senderDrawing(
  { tank, up, offset_m }: TankLevel,
  model: TankLevel['tank']['senders'][number],
): SenderDrawing[] {
  const { sender, document } = model;
  const surround = surroundOf(tank, model);
  const free = freeRun(sender, surround.room, surround.round) ?? WHOLE;
  const law = lawOf(sender);
  const at = (share: number): Vec3 => law.middle_m(sender, share);
  const share = shareAt(sender, free, up, offset_m);
  return [
    {
      id: document.id,
      from: law.head_m(sender),
      wire: law.line_m(sender, share),
      float: at(share),
      sweep: Array.from({ length: SWEEP_STEPS + 1 }, (_, i) =>
        at(free.low_share + ((free.high_share - free.low_share) * i) / SWEEP_STEPS),
      ),
      radius_m: law.drawnRadius_m(sender),
    },
  ];
}
const WHOLE = { low_share: 0, high_share: 1 };
