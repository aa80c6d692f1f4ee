import { meshSize_m, triangle, triangleCount, type ClosedMesh } from './mesh';
import type { Plane } from './clip';
import type { Vec3 } from './vec';

/** A point of a drawing [m]. */
export type Point2 = readonly [number, number];
export type Axis = 0 | 1 | 2;

/** Joins that close within this share of the mesh's size are the same point. */
const JOIN_REL = 1e-9;
/** The cut is nudged by this share of the size off vertices that lie in it. */
const NUDGE_REL = 1e-7;

/**
 * Outlines where a plane across one axis cuts the mesh, as closed loops in the
 * other two axes, in order (y, z), (x, z) or (x, y).
 */
export function sectionAcross(mesh: ClosedMesh, axis: Axis, at_m: number): Point2[][] {
  const size = meshSize_m(mesh);
  const offset = at_m + NUDGE_REL * size;
  const segments: [Vec3, Vec3][] = [];
  for (let i = 0; i < triangleCount(mesh); i++) {
    const cut = triangleCut(triangle(mesh, i), axis, offset);
    if (cut) segments.push(cut);
  }
  const [u, v] = ([0, 1, 2] as const).filter((other) => other !== axis) as [Axis, Axis];
  return joinLoops(segments, JOIN_REL * size).map((loop) => loop.map((p) => [p[u], p[v]] as const));
}

function triangleCut(corners: readonly [Vec3, Vec3, Vec3], axis: Axis, offset: number): [Vec3, Vec3] | undefined {
  let leaving: Vec3 | undefined;
  let entering: Vec3 | undefined;
  for (let k = 0; k < 3; k++) {
    const [a, b] = [corners[k]!, corners[(k + 1) % 3]!];
    const [here, there] = [a[axis] - offset, b[axis] - offset];
    if (here <= 0 === there <= 0) continue;
    const t = here / (here - there);
    const point: Vec3 = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])];
    if (here <= 0) leaving = point;
    else entering = point;
  }
  return leaving && entering ? [leaving, entering] : undefined;
}

function joinLoops(segments: [Vec3, Vec3][], tolerance: number): Vec3[][] {
  const open = [...segments];
  const loops: Vec3[][] = [];
  while (open.length > 0) {
    const [start, next] = open.pop()!;
    const loop = [start];
    let end = next;
    while (!near(end, start, tolerance)) {
      loop.push(end);
      const index = open.findIndex(([from]) => near(from, end, tolerance));
      if (index < 0) break;
      end = open.splice(index, 1)[0]![1];
    }
    loops.push(loop);
  }
  return loops;
}

const near = (a: Vec3, b: Vec3, tolerance: number): boolean =>
  Math.abs(a[0] - b[0]) <= tolerance && Math.abs(a[1] - b[1]) <= tolerance && Math.abs(a[2] - b[2]) <= tolerance;

/**
 * The part of a plane outline below a line u . p <= offset, as one loop
 * (bridges along the cut where the outline is not convex: for drawing only).
 * @source I. Sutherland and G. Hodgman, Comm. ACM 17 (1974)
 */
export function outlineBelow(loop: readonly Point2[], normal: Point2, offset: number): Point2[] {
  const height = (p: Point2): number => normal[0] * p[0] + normal[1] * p[1] - offset;
  return loop.flatMap((here, index) => {
    const there = loop[(index + 1) % loop.length]!;
    const [a, b] = [height(here), height(there)];
    const kept: Point2[] = a <= 0 ? [here] : [];
    if (a <= 0 === b <= 0) return kept;
    const t = a / (a - b);
    return [...kept, [here[0] + t * (there[0] - here[0]), here[1] + t * (there[1] - here[1])] as const];
  });
}

/** The line in which a liquid surface meets a section across one axis. */
export function surfaceInSection(plane: Plane, axis: Axis, at_m: number): { normal: Point2; offset: number } {
  const [u, v] = ([0, 1, 2] as const).filter((other) => other !== axis) as [Axis, Axis];
  return { normal: [plane.normal[u], plane.normal[v]], offset: plane.offset_m - plane.normal[axis] * at_m };
}

/** Points of an outline where one of its coordinates takes a value. */
export const crossingsAt = (loop: readonly Point2[], coordinate: 0 | 1, value: number): Point2[] =>
  loop.flatMap((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    if (a[coordinate] <= value === b[coordinate] <= value) return [];
    const t = (value - a[coordinate]) / (b[coordinate] - a[coordinate]);
    return [[a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])] as const];
  });
