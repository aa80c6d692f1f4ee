import earcut from 'earcut';
import { meshSize_m, parseMesh, type ClosedMesh } from './mesh';
import { signedArea_m2 } from './polygon';
import type { Point2 } from './section';

/** Vertices this near to the cut, as a share of the size, lie in it. */
const IN_PLANE_REL = 1e-12;

/**
 * The part of a closed mesh on one side of a plane across an axis, its cut
 * closed with faces that share the walls' corners.
 *
 * @param side 'lower' or 'upper' coordinates are kept
 * @returns undefined where nothing is left, or where walls that touch
 *   themselves in the plane leave no clean outline to close
 */
export function cutAcross(
  mesh: ClosedMesh,
  axis: 0 | 1 | 2,
  at_m: number,
  side: 'lower' | 'upper',
): ClosedMesh | undefined {
  const sign = side === 'lower' ? 1 : -1;
  const near = IN_PLANE_REL * meshSize_m(mesh);
  const heights = Float64Array.from({ length: mesh.positions.length / 3 }, (_, v) => {
    const height = sign * (mesh.positions[3 * v + axis]! - at_m);
    return Math.abs(height) <= near ? 0 : height;
  });
  if (heights.every((height) => height <= 0)) return mesh;
  if (heights.every((height) => height >= 0)) return undefined;
  const kept = keptPart(mesh, axis, heights, sign);
  const isInPlane = (vertex: number): boolean => vertex >= heights.length || heights[vertex] === 0;
  const triangles = [...kept.triangles, ...capOf(kept, axis, at_m, sign, isInPlane)];
  const parsed = parseMesh(...compact(kept.positions, triangles));
  return parsed.ok ? { ...parsed.value, fillable: mesh.fillable } : undefined;
}

type Part = { readonly positions: number[]; readonly triangles: number[] };

/** Triangles clipped to the kept side, edges that are cut by two triangles cut once. */
function keptPart(mesh: ClosedMesh, axis: 0 | 1 | 2, heights: Float64Array, sign: number): Part {
  const positions = Array.from(mesh.positions);
  const triangles: number[] = [];
  const count = heights.length;
  const cuts = new Map<number, number>();
  const cut = (a: number, b: number): number => {
    const [from, to] = a < b ? [a, b] : [b, a];
    const known = cuts.get(from * count + to);
    if (known !== undefined) return known;
    const t = heights[from]! / (heights[from]! - heights[to]!);
    for (let k = 0; k < 3; k++)
      positions.push(positions[3 * from + k]! + t * (positions[3 * to + k]! - positions[3 * from + k]!));
    const made = positions.length / 3 - 1;
    cuts.set(from * count + to, made);
    return made;
  };
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const corners = [mesh.triangles[i]!, mesh.triangles[i + 1]!, mesh.triangles[i + 2]!] as const;
    const [a, b, c] = [heights[corners[0]]!, heights[corners[1]]!, heights[corners[2]]!];
    if (a <= 0 && b <= 0 && c <= 0) {
      // A face in the plane closes the body on the side that it looks away from.
      if (a < 0 || b < 0 || c < 0 || sign * faceTurn(positions, corners, axis) > 0) triangles.push(...corners);
      continue;
    }
    if (a >= 0 && b >= 0 && c >= 0) continue;
    const polygon: number[] = [];
    for (let k = 0; k < 3; k++) {
      const [here, there] = [corners[k]!, corners[(k + 1) % 3]!];
      if (heights[here]! <= 0) polygon.push(here);
      if (heights[here]! * heights[there]! < 0) polygon.push(cut(here, there));
    }
    for (let k = 1; k + 1 < polygon.length; k++) triangles.push(polygon[0]!, polygon[k]!, polygon[k + 1]!);
  }
  return { positions, triangles };
}

/** The axis component of a face's normal, times twice its area. */
function faceTurn(p: readonly number[], [a, b, c]: readonly [number, number, number], axis: 0 | 1 | 2): number {
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
  return (
    (p[3 * b + u]! - p[3 * a + u]!) * (p[3 * c + v]! - p[3 * a + v]!) -
    (p[3 * b + v]! - p[3 * a + v]!) * (p[3 * c + u]! - p[3 * a + u]!)
  );
}

/** Faces that close the open edges, which all lie in the plane. */
function capOf(
  { positions, triangles }: Part,
  axis: 0 | 1 | 2,
  at_m: number,
  sign: number,
  isInPlane: (vertex: number) => boolean,
): number[] {
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
  const flat = (vertex: number): Point2 => [positions[3 * vertex + u]!, positions[3 * vertex + v]!];
  // Seen against the axis the cap of an upper part runs the other way round.
  const loops = openLoops(triangles, positions.length / 3, isInPlane).map((loop) =>
    sign > 0 ? loop : [...loop].reverse(),
  );
  const areas = loops.map((loop) => signedArea_m2(loop.map(flat)));
  const cap: number[] = [];
  loops.forEach((loop, i) => {
    if (areas[i]! <= 0) return;
    const outline = loop.map(flat);
    const holes = loops.filter((hole, j) => areas[j]! < 0 && isInOutline(flat(hole[0]!), outline));
    for (const face of filled([loop, ...holes], flat, positions, axis, at_m))
      cap.push(...(sign > 0 ? face : ([face[0], face[2], face[1]] as const)));
  });
  return cap;
}

/** Loops of edges that lack their partner, each run as the partner would run; all others have theirs. */
function openLoops(triangles: readonly number[], count: number, isOpen: (vertex: number) => boolean): number[][] {
  const net = new Map<number, number>();
  for (let i = 0; i < triangles.length; i++) {
    const a = triangles[i]!;
    if (!isOpen(a)) continue;
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1]!;
    if (!isOpen(b)) continue;
    net.set(a * count + b, (net.get(a * count + b) ?? 0) + 1);
  }
  const next = new Map<number, number[]>();
  for (const [key, times] of net) {
    const [a, b] = [Math.floor(key / count), key % count];
    for (let k = times - (net.get(b * count + a) ?? 0); k > 0; k--) next.set(b, [...(next.get(b) ?? []), a]);
  }
  const loops: number[][] = [];
  for (const start of next.keys()) {
    while (next.get(start)!.length > 0) {
      const loop: number[] = [];
      for (let at = start; ;) {
        const to = next.get(at)?.pop();
        if (to === undefined) break;
        loop.push(at);
        at = to;
        if (at === start) break;
      }
      if (loop.length > 2) loops.push(loop);
    }
  }
  return loops;
}

type Face = readonly [number, number, number];

/** Triangles over an outline with holes; points that lie straight on an edge become corners of what they lie on. */
function filled(
  loops: readonly (readonly number[])[],
  flat: (vertex: number) => Point2,
  positions: number[],
  axis: 0 | 1 | 2,
  at_m: number,
): Face[] {
  const next = new Map(
    loops.flatMap((loop) => loop.map((vertex, i) => [vertex, loop[(i + 1) % loop.length]!] as const)),
  );
  const corners = loops.map((loop) => cornersOf(loop, flat));
  const vertices = corners.flat();
  const holes = corners.slice(1).map((_, i) => corners.slice(0, i + 1).reduce((sum, loop) => sum + loop.length, 0));
  const indices = earcut(vertices.flatMap(flat), holes);
  const faces: Face[] = [];
  const paired = new Set<string>();
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [vertices[indices[i]!]!, vertices[indices[i + 1]!]!, vertices[indices[i + 2]!]!];
    const face: Face = signedArea_m2([flat(a), flat(b), flat(c)]) >= 0 ? [a, b, c] : [a, c, b];
    faces.push(face);
    face.forEach((vertex, k) => paired.add(`${vertex} ${face[(k + 1) % 3]!}`));
  }
  return faces.flatMap((face): Face[] => {
    const rim = face.flatMap((from, k) => {
      const to = face[(k + 1) % 3]!;
      return next.get(from) === to || paired.has(`${to} ${from}`) ? [from] : [from, ...between(from, to, next)];
    });
    if (rim.length === 3) return [face];
    const middle = positions.length / 3;
    const centre = [0, 1, 2].map((k) =>
      k === axis ? at_m : face.reduce((sum, vertex) => sum + positions[3 * vertex + k]! / 3, 0),
    );
    positions.push(...centre);
    return rim.map((vertex, k) => [vertex, rim[(k + 1) % rim.length]!, middle] as const);
  });
}

/** A point whose neighbours make no more than this of an angle with it lies straight between them. */
const STRAIGHT_SIN = 1e-9;

function cornersOf(loop: readonly number[], flat: (vertex: number) => Point2): number[] {
  const turned = loop.filter((vertex, i) => {
    const [[ax, ay], [bx, by], [cx, cy]] = [flat(loop.at(i - 1)!), flat(vertex), flat(loop[(i + 1) % loop.length]!)];
    const [ux, uy, vx, vy] = [bx - ax, by - ay, cx - bx, cy - by];
    return Math.abs(ux * vy - uy * vx) > STRAIGHT_SIN * Math.hypot(ux, uy) * Math.hypot(vx, vy);
  });
  return turned.length > 2 ? turned : [...loop];
}

/** The points of a loop between two of its points. */
function between(from: number, to: number, next: ReadonlyMap<number, number>): number[] {
  const points: number[] = [];
  for (let at = next.get(from); at !== undefined && at !== to && points.length <= next.size; at = next.get(at))
    points.push(at);
  return points;
}

/** Whether a point lies within a loop: an even-odd count of the edges to its right. */
export const isInOutline = ([x, y]: Point2, outline: readonly Point2[]): boolean =>
  outline.reduce((inside, [ax, ay], i) => {
    const [bx, by] = outline[(i + 1) % outline.length]!;
    return ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax) ? !inside : inside;
  }, false);

/** Only the vertices that triangles use, in the order in which they are met. */
function compact(positions: readonly number[], triangles: readonly number[]): [Float64Array, Uint32Array] {
  const numbers = new Int32Array(positions.length / 3).fill(-1);
  const renumbered = new Uint32Array(triangles.length);
  const used = new Float64Array(positions.length);
  let count = 0;
  for (let i = 0; i < triangles.length; i++) {
    const vertex = triangles[i]!;
    if (numbers[vertex]! < 0) {
      numbers[vertex] = count;
      for (let k = 0; k < 3; k++) used[3 * count + k] = positions[3 * vertex + k]!;
      count++;
    }
    renumbered[i] = numbers[vertex]!;
  }
  return [used.slice(0, 3 * count), renumbered];
}
