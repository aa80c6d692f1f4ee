import { DisjointSets } from './disjointSets';
import { CREASE_RAD, forEachEdge } from './edges';
import { trianglePlanes } from './planes';
import { signedArea_m2 } from './polygon';
import type { Point2 } from './section';
import { vertex, type ClosedMesh } from './mesh';
import { add, cross, dot, norm, scale, subtract, unitVector, type Vec3 } from './vec';

/** A sheet's own axes: seen from outside, u runs to the right and v up; the normal looks at the reader. */
export type FaceFrame = { readonly origin_m: Vec3; readonly u: Vec3; readonly v: Vec3; readonly normal: Vec3 };

/** A flat face of a body, with its outline and holes in its own axes. */
export type FlatFace = {
  readonly frame: FaceFrame;
  /** The first runs round it counter-clockwise; the others are holes, clockwise. Corners only. */
  readonly loops: readonly (readonly Point2[])[];
  readonly area_m2: number;
};

/** Triangles whose normals differ by less than this lie in one plane [rad]. */
const SAME_PLANE_RAD = 1e-4;
/**
 * A strip of a round wall has strips of about its own size on both sides; a flat between two rounds is larger than this
 * many of them.
 */
const STRIPS = 3;
/** Corners nearer to the line between their neighbours than this are none [m]. */
const STRAIGHT_M = 1e-5;

type Border = {
  readonly from: number;
  readonly to: number;
  readonly other: number;
  readonly length_m: number;
  readonly isSmooth: boolean;
};

/**
 * The flat faces of a body, largest first. Walls that are round by many
 * narrow strips are left out.
 *
 * @returns outlines in each face's own axes: v leans towards up on walls that
 * stand, and forward on those that lie
 */
export function flatFaces(mesh: ClosedMesh): FlatFace[] {
  const planes = trianglePlanes(mesh);
  const sets = new DisjointSets(mesh.triangles.length / 3);
  forEachEdge(mesh, (_from, _to, here, there) => {
    const [a, b] = [planes[here]?.normal, planes[there]?.normal];
    // A sliver has no direction of its own: it belongs to what it lies against.
    if (!a || !b || norm(subtract(a, b)) < SAME_PLANE_RAD) sets.join(here, there);
  });
  const borders = new Map<number, Border[]>();
  const areas = new Map<number, number>();
  const normals = new Map<number, Vec3>();
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const root = sets.root(t);
    const [a, b, c] = [0, 1, 2].map((k) => vertex(mesh, mesh.triangles[3 * t + k]!)) as [Vec3, Vec3, Vec3];
    const twice = cross(subtract(b, a), subtract(c, a));
    areas.set(root, (areas.get(root) ?? 0) + norm(twice) / 2);
    normals.set(root, add(normals.get(root) ?? [0, 0, 0], twice));
  }
  forEachEdge(mesh, (from, to, here, there) => {
    const [mine, theirs] = [sets.root(here), sets.root(there)];
    if (mine === theirs) return;
    const length_m = norm(subtract(vertex(mesh, to), vertex(mesh, from)));
    const isSmooth = dot(unitVector(normals.get(mine)!), unitVector(normals.get(theirs)!)) > Math.cos(CREASE_RAD);
    borders.set(mine, [...(borders.get(mine) ?? []), { from, to, other: theirs, length_m, isSmooth }]);
    borders.set(theirs, [...(borders.get(theirs) ?? []), { from: to, to: from, other: mine, length_m, isSmooth }]);
  });
  return [...borders.entries()]
    .filter(([root, border]) => !isStrip(border, areas.get(root)!, areas))
    .map(([root, border]) => faceOf(mesh, border, unitVector(normals.get(root)!), areas.get(root)!))
    .sort((a, b) => b.area_m2 - a.area_m2);
}

/**
 * Whether a plane piece is one strip of a round wall: along its two longest smooth borders it runs on into others of
 * about its size or larger.
 */
function isStrip(border: readonly Border[], area_m2: number, areas: ReadonlyMap<number, number>): boolean {
  const along = new Map<number, number>();
  for (const { other, length_m, isSmooth } of border)
    if (isSmooth) along.set(other, (along.get(other) ?? 0) + length_m);
  const [first, second] = [...along.entries()].sort((a, b) => b[1] - a[1]);
  return second !== undefined && area_m2 < STRIPS * Math.min(areas.get(first![0])!, areas.get(second[0])!);
}

function faceOf(mesh: ClosedMesh, border: readonly Border[], normal: Vec3, area_m2: number): FlatFace {
  const frame = frameOf(normal, vertex(mesh, border[0]!.from));
  const flat = (index: number): Point2 => {
    const from = subtract(vertex(mesh, index), frame.origin_m);
    return [dot(from, frame.u), dot(from, frame.v)];
  };
  const next = new Map<number, number[]>();
  for (const { from, to } of border) next.set(from, [...(next.get(from) ?? []), to]);
  const loops: Point2[][] = [];
  for (const { from } of border) {
    const loop: Point2[] = [];
    let at = from;
    for (let to = next.get(at)?.pop(); to !== undefined; to = next.get(at)?.pop()) {
      loop.push(flat(at));
      at = to;
    }
    const corners = cornersOf(loop);
    if (corners.length >= 3) loops.push(corners);
  }
  loops.sort((a, b) => Math.abs(signedArea_m2(b)) - Math.abs(signedArea_m2(a)));
  return settled({ frame, loops, area_m2 });
}

/** The face with its lower left corner at the origin of its frame. */
function settled({ frame, loops, area_m2 }: FlatFace): FlatFace {
  const [u, v] = [0, 1].map((k) => Math.min(...loops.flat().map((point) => point[k]!))) as [number, number];
  return {
    area_m2,
    frame: { ...frame, origin_m: add(frame.origin_m, add(scale(frame.u, u), scale(frame.v, v))) },
    loops: loops.map((loop) => loop.map(([a, b]): Point2 => [a - u, b - v])),
  };
}

/** On walls that stand v is as near to up as may be, on those that lie as near to forward. */
function frameOf(normal: Vec3, origin_m: Vec3): FaceFrame {
  const lies = Math.abs(normal[2]) > Math.SQRT1_2;
  const towards: Vec3 = lies ? [1, 0, 0] : [0, 0, 1];
  const v = unitVector(subtract(towards, scale(normal, dot(towards, normal))));
  return { origin_m, v, u: cross(v, normal), normal };
}

function cornersOf(loop: readonly Point2[]): Point2[] {
  return loop.filter((point, i) => {
    const [before, after] = [loop[(i + loop.length - 1) % loop.length]!, loop[(i + 1) % loop.length]!];
    const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
    const span = Math.hypot(dx, dy);
    return span === 0 || Math.abs(dx * (point[1] - before[1]) - dy * (point[0] - before[0])) / span > STRAIGHT_M;
  });
}

/** A point of a face's sheet in the body's frame. */
export const onFace = ({ origin_m, u, v }: FaceFrame, [a, b]: Point2): Vec3 =>
  add(origin_m, add(scale(u, a), scale(v, b)));
