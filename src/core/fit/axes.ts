import { derived } from '../memo';
import { cross, dot, norm, scale, subtract, unitVector, vertex, type Pose, type Surface, type Vec3 } from '../geometry';

/** Three directions square to one another, right-handed. */
export type Frame = Pose['axes'];

/** Edges whose faces turn by less than this are not seen as edges (cosine of 2°). */
const CREASE_COS = 0.9994;
/** Directions nearer to each other than this are one (cosine of 0.5°). */
const ONE_WAY_COS = 0.99996;
/** Directions further from square than this make no frame (sine of 0.5°). */
const SQUARE = 0.009;
/** Corners nearer than this are one [m]. */
const SAME_CORNER_M = 1e-6;

/** A direction, its sign left open, and how many metres of edge run along it. */
export type EdgeWay = { readonly way: Vec3; readonly length_m: number };

/** A straight edge of a surface. */
export type Edge = { readonly from: Vec3; readonly to: Vec3 };

/**
 * The edges of a surface at which its faces turn or end, in its own frame, the longest first; pieces of one line put
 * together.
 */
export const edgesOf: (surface: Surface) => readonly Edge[] = derived((surface: Surface) => {
  const normals = new Map<string, { from: Vec3; to: Vec3; faces: Vec3[] }>();
  for (let t = 0; t < surface.triangles.length; t += 3) {
    const corners = [0, 1, 2].map((c): Vec3 => vertex(surface, surface.triangles[t + c]!));
    const normal = cross(subtract(corners[1]!, corners[0]!), subtract(corners[2]!, corners[0]!));
    if (norm(normal) === 0) continue;
    corners.forEach((from, c) => {
      const to = corners[(c + 1) % 3]!;
      const key = [from, to]
        .map((point) => point.map((value) => Math.round(value / SAME_CORNER_M)).join())
        .sort()
        .join(';');
      const edge = normals.get(key) ?? { from, to, faces: [] };
      edge.faces.push(unitVector(normal));
      normals.set(key, edge);
    });
  }
  const creases = [...normals.values()].filter(
    ({ from, to, faces }) =>
      norm(subtract(to, from)) > SAME_CORNER_M && (faces.length !== 2 || dot(faces[0]!, faces[1]!) < CREASE_COS),
  );
  const edges = joinedUp(creases).sort((a, b) => lengthOfEdge(b) - lengthOfEdge(a));
  return edges;
});

/** Length of an edge [m]. */
export const lengthOfEdge = ({ from, to }: Edge): number => norm(subtract(to, from));

/** Edges that go on in one line from each other, as one. */
function joinedUp(edges: readonly Edge[]): Edge[] {
  const at = new Map<string, Edge[]>();
  const keyOf = (point: Vec3): string => point.map((value) => Math.round(value / SAME_CORNER_M)).join();
  const put = (edge: Edge): void =>
    [edge.from, edge.to].forEach((end) => at.set(keyOf(end), [...(at.get(keyOf(end)) ?? []), edge]));
  const remove = (edge: Edge): void =>
    [edge.from, edge.to].forEach((end) =>
      at.set(
        keyOf(end),
        at.get(keyOf(end))!.filter((other) => other !== edge),
      ),
    );
  const way = ({ from, to }: Edge): Vec3 => unitVector(subtract(to, from));
  for (const edge of edges) {
    let whole = edge;
    for (const end of ['from', 'to'] as const) {
      for (;;) {
        const here = keyOf(whole[end]);
        const on = at.get(here)?.find((other) => Math.abs(dot(way(other), way(whole))) > ONE_LINE_COS);
        if (!on) break;
        remove(on);
        whole = { ...whole, [end]: keyOf(on.from) === here ? on.to : on.from };
        if (lengthOfEdge(whole) === 0) break;
      }
    }
    if (lengthOfEdge(whole) > 0) put(whole);
  }
  return [...new Set([...at.values()].flat())];
}
/** Edges nearer to one line than this are pieces of it (cosine of 0.03°). */
const ONE_LINE_COS = 1 - 1e-7;

/** Along which directions a surface's edges run, in its own frame, most metres first. */
export const edgeWays = (surface: Surface): EdgeWay[] =>
  gathered(
    edgesOf(surface).map((edge) => ({ way: unitVector(subtract(edge.to, edge.from)), length_m: lengthOfEdge(edge) })),
  );

/** Directions that are the same but for their sign put together, most metres first. */
export function gathered(directions: readonly EdgeWay[]): EdgeWay[] {
  const parallel: EdgeWay[] = [];
  for (const { way, length_m } of [...directions].sort((a, b) => b.length_m - a.length_m)) {
    const at = parallel.findIndex((one) => Math.abs(dot(one.way, way)) > ONE_WAY_COS);
    if (at < 0) parallel.push({ way, length_m });
    else parallel[at] = { way: parallel[at]!.way, length_m: parallel[at]!.length_m + length_m };
  }
  return parallel.sort((a, b) => b.length_m - a.length_m);
}

/** Frames of three directions square to one another among those given, no two alike. */
export function framesAmong(directions: readonly Vec3[], most: number): Frame[] {
  const frames: Frame[] = [];
  for (let i = 0; i < directions.length && frames.length < most; i++) {
    for (let j = i + 1; j < directions.length && frames.length < most; j++) {
      if (Math.abs(dot(directions[i]!, directions[j]!)) > SQUARE) continue;
      const z = unitVector(cross(directions[i]!, directions[j]!));
      const frame: Frame = [directions[i]!, cross(z, directions[i]!), z];
      if (!frames.some((other) => sameFrame(other, frame))) frames.push(frame);
    }
  }
  return frames;
}

/** Whether every axis of the one is an axis of the other, whichever way it points. */
const sameFrame = (a: Frame, b: Frame): boolean =>
  a.every((axis) => b.some((other) => Math.abs(dot(axis, other)) > ONE_WAY_COS));

/** The greater, the smaller the turn from one to the other: its trace, 1 + 2 cos(angle). */
export const alike = (a: Frame, b: Frame): number => a.reduce((sum, axis, k) => sum + dot(axis, b[k]!), 0);

/** All 24 turns that lay the axes of one frame along those of another, as images of the coordinate axes. */
export function alignments(part: Frame, place: Frame): Frame[] {
  const found: Frame[] = [];
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++) {
      if (i === j) continue;
      for (const [s, t] of [
        [1, 1],
        [1, -1],
        [-1, 1],
        [-1, -1],
      ] as const) {
        const [u, v] = [scale(place[i]!, s), scale(place[j]!, t)];
        const onto = [u, v, cross(u, v)];
        found.push(
          [0, 1, 2].map(
            (k): Vec3 =>
              [0, 1, 2].map(
                (c) => onto[0]![c]! * part[0][k]! + onto[1]![c]! * part[1][k]! + onto[2]![c]! * part[2][k]!,
              ) as unknown as Vec3,
          ) as unknown as Frame,
        );
      }
    }
  }
  return found;
}
