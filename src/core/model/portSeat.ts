import { derived } from '../memo';
import {
  add,
  cross,
  dot,
  meshBounds,
  rayCrossings,
  rayHit,
  scale,
  subtract,
  triangle,
  unitVector,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { portPart } from '../reference/portParts';
import { STANDING } from '../reference/standing';
import { OUTWARD } from './axes';
import type { PortDocument } from '../plan/schema';

const FACE_AXIS: Readonly<Record<PortDocument['face'], { axis: 0 | 1 | 2; sign: 1 | -1 }>> = {
  lid: { axis: 2, sign: 1 },
  floor: { axis: 2, sign: -1 },
  fore: { axis: 0, sign: 1 },
  aft: { axis: 0, sign: -1 },
  port: { axis: 1, sign: 1 },
  starboard: { axis: 1, sign: -1 },
};
type Along = { readonly value: number };
/** As much of a port as says where it is. */
export type PlaceOnFace = {
  readonly face: PortDocument['face'];
  readonly x_m?: Along | undefined;
  readonly y_m?: Along | undefined;
  readonly z_m?: Along | undefined;
};

/** The point of a face where a port sits, or undefined where the face has no metal. */
export function portPoint(mesh: ClosedMesh, port: PlaceOnFace): Vec3 | undefined {
  const outward = OUTWARD[port.face];
  const bounds = meshBounds(mesh);
  const reach = 2 * Math.hypot(...bounds.max.map((value, axis) => value - bounds.min[axis]!)) + 1;
  const start: Vec3 = [
    outward[0] === 0 ? (port.x_m?.value ?? 0) : bounds.min[0] + outward[0] * reach,
    outward[1] === 0 ? (port.y_m?.value ?? 0) : bounds.min[1] + outward[1] * reach,
    outward[2] === 0 ? (port.z_m?.value ?? 0) : bounds.min[2] + outward[2] * reach,
  ];
  const first = rayCrossings(mesh, start, scale(outward, -1))[0];
  return first === undefined ? undefined : add(start, scale(outward, -first));
}

const PLUGGED: ReadonlySet<PortDocument['role']> = new Set(['drain', 'spare']);
/** A bore narrower than this is a hole that is drilled, without a fitting [m]. */
const DRILLED_M = 0.004;

/** The hole that is cut for a port: as said, as its part has it, or its bore [m]. */
export const holeOf_m = ({ hole_m, part, bore_m }: PortDocument): number =>
  hole_m?.value ?? (part ? portPart(part).hole : bore_m.value);

/** Height and width of what stands on a port: as given, as its part has it, or as usual for its role. */
export function standsOn(port: PortDocument): { readonly height_m: number; readonly diameter_m: number } {
  if (port.stands) return { height_m: port.stands.height_m.value, diameter_m: port.stands.diameter_m.value };
  if (port.part) {
    const part = portPart(port.part);
    // What is plugged carries no hose end.
    const plug = PLUGGED.has(port.role) ? STANDING.find(({ role }) => role === port.role)!.height_m : Infinity;
    return { height_m: Math.min(part.above, plug), diameter_m: part.cover };
  }
  if (port.bore_m.value <= DRILLED_M) return { height_m: 0, diameter_m: port.bore_m.value };
  const row = STANDING.find(({ role }) => role === port.role)!;
  return { height_m: row.height_m, diameter_m: Math.max(row.least_m, port.bore_m.value + row.widerBy_m) };
}

const SEAT_LOOKS = 12;
/** Normals that differ by less than this are those of one flat wall. */
const FLAT_COS = Math.cos((0.6 * Math.PI) / 180);
/** A wall that leans further from its face's own way than this is another wall. */
const LEANS_COS = 0.5;

/** Where and how what stands on a port stands: from its seat outwards. */
export type PortSeat = {
  readonly seat_m: Vec3;
  /** Square to a flat wall, however it leans; along its face's own way on a curved or stepped one. */
  readonly out: Vec3;
  readonly isFlat: boolean;
};

/** Every doubtful value is nudged in turn, and most leave the walls and the port as they are. */
const seatsOn = derived((outer: ClosedMesh) => derived((port: PortDocument) => seatOn(outer, port)));

/**
 * Where what stands on a port begins: on a flat face at the hole, on a curved
 * or stepped one as high as the highest wall under it, where a flat boss ends.
 */
export const portSeat = (outer: ClosedMesh, port: PortDocument): PortSeat | undefined => seatsOn(outer)(port);

function seatOn(outer: ClosedMesh, port: PortDocument): PortSeat | undefined {
  const point = portPoint(outer, port);
  if (!point) return undefined;
  const { axis, sign } = FACE_AXIS[port.face];
  const flat = flatWay(outer, port, point);
  if (flat) return { seat_m: point, out: flat, isFlat: true };
  const radius = standsOn(port).diameter_m / 2;
  const walls = rimOf(port, point, radius).map((rim) => wallAt(outer, port, rim));
  const seat = [...point] as [number, number, number];
  // A wall that rises by more than the fitting is wide is another wall beside it, not the seat under it.
  const beside = walls
    .map((wall) => ((wall?.point_m[axis] ?? point[axis]) - point[axis]) * sign)
    .filter((rise) => rise > 0 && rise < 2 * radius);
  seat[axis] += sign * Math.max(0, ...beside);
  return { seat_m: seat, out: OUTWARD[port.face], isFlat: false };
}
/**
 * Outwards, square to the wall that a port sits on, where that is flat all round it; one look that is not is enough.
 */
export function flatWay(outer: ClosedMesh, port: PortDocument, point: Vec3): Vec3 | undefined {
  const middle = wallAt(outer, port, point);
  if (!middle || dot(middle.normal, OUTWARD[port.face]) <= LEANS_COS) return undefined;
  const isFlat = rimOf(port, point, standsOn(port).diameter_m / 2).every((rim) => {
    const wall = wallAt(outer, port, rim);
    return (
      wall !== undefined &&
      dot(wall.normal, middle.normal) > FLAT_COS &&
      Math.abs(dot(middle.normal, subtract(wall.point_m, point))) < FLAT_M
    );
  });
  return isFlat ? middle.normal : undefined;
}
/** A wall may be out of flat by so much and still be one [m]. */
const FLAT_M = 2e-4;

/** Points round a hole, in the plane across its face. */
export function rimOf(
  { face }: Pick<PortDocument, 'face'>,
  point: Vec3,
  radius_m: number,
  samples = SEAT_LOOKS,
): Vec3[] {
  const [u, v] = ([0, 1, 2] as const).filter((k) => k !== FACE_AXIS[face].axis) as [0 | 1 | 2, 0 | 1 | 2];
  return Array.from({ length: samples }, (_, i) => {
    const rim = [...point] as [number, number, number];
    rim[u] += radius_m * Math.cos((2 * Math.PI * i) / samples);
    rim[v] += radius_m * Math.sin((2 * Math.PI * i) / samples);
    return rim;
  });
}

/** Where the wall lies over or under a point of a port's face, seen from outside, and which way it looks there. */
export function wallAt(
  outer: ClosedMesh,
  { face }: Pick<PortDocument, 'face'>,
  at: Vec3,
): { readonly point_m: Vec3; readonly normal: Vec3 } | undefined {
  const { axis, sign } = FACE_AXIS[face];
  const { min, max } = meshBounds(outer);
  const start = [...at] as [number, number, number];
  start[axis] = sign > 0 ? max[axis] + 1 : min[axis] - 1;
  const inward: [number, number, number] = [0, 0, 0];
  inward[axis] = -sign;
  const hit = rayHit(outer, start, inward);
  if (hit === undefined) return undefined;
  const [a, b, c] = triangle(outer, hit);
  const normal = unitVector(cross(subtract(b, a), subtract(c, a)));
  const point_m = [...at] as [number, number, number];
  point_m[axis] = start[axis] + inward[axis] * (dot(normal, subtract(a, start)) / dot(normal, inward));
  return { point_m, normal };
}
