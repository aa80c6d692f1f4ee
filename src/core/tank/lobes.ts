import { derived } from '../memo';
import {
  add,
  cross,
  DisjointSets,
  dot,
  meshSize_m,
  norm,
  rayHit,
  scale,
  subtract,
  triangle,
  triangleCount,
  vertex,
  volumeBelow,
  type ClosedMesh,
  type Vec3,
} from '../geometry';

/** What a mesh is like whatever the attitude: found once for each. */
type Frame =
  | { readonly convex: true }
  | {
      readonly convex: false;
      readonly neighbours: readonly (readonly number[])[];
      /** Outward at each vertex, weighed by area. */ readonly normals: readonly Vec3[];
    };

const frameOf: (mesh: ClosedMesh) => Frame = derived((mesh: ClosedMesh) =>
  isConvex(mesh, thirdCorners(mesh)) ? { convex: true } : { convex: false, ...aroundVertices(mesh) },
);

/** Whether a space is convex, so that its liquid never parts. */
export const isConvexSpace = (mesh: ClosedMesh): boolean => frameOf(mesh).convex;

/** By directed edge, the third corner of its triangle. */
function thirdCorners({ positions, triangles }: ClosedMesh): Map<number, number> {
  const count = positions.length / 3;
  const across = new Map<number, number>();
  for (let i = 0; i < triangles.length; i += 3) {
    for (let k = 0; k < 3; k++)
      across.set(triangles[i + k]! * count + triangles[i + ((k + 1) % 3)]!, triangles[i + ((k + 2) % 3)]!);
  }
  return across;
}

/** Neighbours and normal of each vertex. */
function aroundVertices(mesh: ClosedMesh): { neighbours: number[][]; normals: Vec3[] } {
  const count = mesh.positions.length / 3;
  const neighbours: Set<number>[] = Array.from({ length: count }, () => new Set());
  const normals: Vec3[] = Array.from({ length: count }, () => [0, 0, 0]);
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const corners = triangle(mesh, i / 3);
    const normal = cross(subtract(corners[1], corners[0]), subtract(corners[2], corners[0]));
    for (let k = 0; k < 3; k++) {
      const [a, b] = [mesh.triangles[i + k]!, mesh.triangles[i + ((k + 1) % 3)]!];
      normals[a] = add(normals[a]!, normal);
      neighbours[a]!.add(b);
      neighbours[b]!.add(a);
    }
  }
  return { neighbours: neighbours.map((set) => [...set]), normals };
}

/** A neighbour's corner bends inward when it stands this share of the size over a face. */
const CONVEX_REL = 1e-9;

/**
 * A closed surface in one piece that bends outward over every edge is convex.
 * @source Tietze and Nakajima's theorem: local convexity of a connected closed set is convexity
 */
function isConvex(mesh: ClosedMesh, across: ReadonlyMap<number, number>): boolean {
  const count = mesh.positions.length / 3;
  // Two pieces can each bend outward everywhere: Euler's number tells them from one.
  if (count - across.size / 2 + triangleCount(mesh) !== 2) return false;
  const size = meshSize_m(mesh);
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const normal = cross(subtract(b, a), subtract(c, a));
    const reach = CONVEX_REL * size * norm(normal);
    for (let k = 0; k < 3; k++) {
      const [from, to] = [mesh.triangles[3 * i + k]!, mesh.triangles[3 * i + ((k + 1) % 3)]!];
      const beyond = across.get(to * count + from)!;
      if (dot(normal, subtract(vertex(mesh, beyond), a)) > reach) return false;
    }
  }
  return true;
}

/**
 * Liquid that a pickup leaves behind when the surface in its own lobe has
 * fallen to a level [m³], with what other lobes hold back.
 *
 * As the tank drains, the liquid parts at every saddle; a lobe without the
 * pickup keeps all that lies below the level at which it was cut off. The
 * saddles are the merges of the join tree of heights over the mesh.
 *
 * @param inlet_m  a point inside the tank
 * @param up       unit vector against effective gravity
 * @param offset_m level at which the pickup draws air, at or above the inlet
 * @param from_m   level that the surface falls from
 * @source join tree: H. Carr et al., Comput. Geom. 24 (2003) 75
 */
export function leftBehind_m3(mesh: ClosedMesh, inlet_m: Vec3, up: Vec3, offset_m: number, from_m = Infinity): number {
  const rise = riseFrom(mesh, inlet_m, up, offset_m);
  if (!rise) return volumeBelow(mesh, { normal: up, offset_m });
  let left = rise.lobes.volume(rise.home, offset_m);
  rise.onward((lobe, level) => {
    left += rise.lobes.volume(lobe, Math.min(level, from_m));
    return true;
  });
  return left;
}

/**
 * For each of some points in the tank, the level at which its lobe first hangs together with the pickup's [m]; no lower
 * than the level asked from.
 */
export function saddlesTo(
  mesh: ClosedMesh,
  inlet_m: Vec3,
  up: Vec3,
  offset_m: number,
  points: readonly Vec3[],
): number[] {
  const levels = points.map(() => offset_m);
  const rise = riseFrom(mesh, inlet_m, up, offset_m);
  if (!rise) return levels;
  const feet = points.map((point) => rise.footOf(point));
  rise.onward((lobe, level) => {
    feet.forEach((foot, i) => {
      if (foot !== undefined && rise.lobes.root(foot) === lobe) levels[i] = level;
    });
    return true;
  });
  return levels;
}

/** The lobe of liquid that a pickup stands in. */
export type HomeLobe = {
  /** The level at which it first hangs together with another; infinite where it never does. */
  readonly saddle_m: number;
  /** Its volume below a level up to the saddle [m³]. */
  readonly volume: (offset_m: number) => number;
};

/** The lobe in which a pickup draws, from the level at which it draws air to the saddle over which the lobe spills. */
export function homeLobe(mesh: ClosedMesh, inlet_m: Vec3, up: Vec3, offset_m: number): HomeLobe {
  const whole = (level: number): number => volumeBelow(mesh, { normal: up, offset_m: level });
  const rise = riseFrom(mesh, inlet_m, up, offset_m);
  if (!rise) return { saddle_m: Infinity, volume: whole };
  let found: { lobe: number; level: number } | undefined;
  rise.onward((lobe, level) => {
    found = { lobe, level };
    return false;
  });
  const saddle_m = found?.level ?? Infinity;
  const triangles = rise.lobes.triangles(rise.home);
  return {
    saddle_m,
    volume: (level) => volumeBelow({ ...mesh, triangles }, { normal: up, offset_m: Math.min(level, saddle_m) }),
  };
}

type Merge = (other: number, level: number) => boolean;
type Rise = {
  readonly lobes: Lobes;
  readonly home: number;
  /** The corner by which the lobe under a point is known; undefined over nothing. */ readonly footOf: (
    point: Vec3,
  ) => number | undefined;
  /** Raises the surface further; told of each lobe that joins the pickup's, until told to stop. */ readonly onward: (
    told: Merge,
  ) => void;
};

/** The surface risen to a level; undefined where the body is convex and has one lobe only. */
function riseFrom(mesh: ClosedMesh, inlet_m: Vec3, up: Vec3, offset_m: number): Rise | undefined {
  const frame = frameOf(mesh);
  if (frame.convex) return undefined;
  const { neighbours, normals } = frame;
  const down = scale(up, -1);
  const foot = rayHit(mesh, inlet_m, down);
  if (foot === undefined) return undefined;
  const heights = Float64Array.from(neighbours, (_, v) => dot(up, vertex(mesh, v)));
  const lobes = new Lobes(mesh, up, heights);
  const order = Array.from(heights.keys()).sort((a, b) => heights[a]! - heights[b]!);
  const seen = new Uint8Array(heights.length);
  let next = 0;
  for (; next < order.length && heights[order[next]!]! <= offset_m; next++) enter(order[next]!, () => true);
  const home = lobes.lowestOf(foot);
  const onward = (told: Merge): void => {
    let going = true;
    for (; going && next < order.length; next++) {
      enter(order[next]!, (a, b, level) => {
        const mine = lobes.root(home);
        if (going && (a === mine || b === mine)) going = told(a === mine ? b : a, level);
        return going;
      });
    }
  };
  const footOf = (point: Vec3): number | undefined => {
    const under = rayHit(mesh, point, down);
    return under === undefined ? undefined : lobes.lowestOf(under);
  };
  return { lobes, home, footOf, onward };

  /** Takes a vertex under the surface; stops short of a merge that it is told not to make. */
  function enter(v: number, onMerge: (a: number, b: number, level: number) => boolean): void {
    const wet = neighbours[v]!.filter((neighbour) => seen[neighbour]);
    if (wet.length === 0) dip(v);
    seen[v] = 1;
    for (const neighbour of wet) {
      const [a, b] = [lobes.root(neighbour), lobes.root(v)];
      if (a === b) continue;
      // A vertex that has only just come up is no lobe of its own yet.
      if ((b !== v || lobes.isGrown(v)) && !onMerge(a, b, heights[v]!)) return;
      lobes.join(a, b);
    }
    lobes.grow(v);
  }

  /** What hangs into the liquid from above, or stands free in it, dips into the lobe under it and is no lobe itself. */
  function dip(v: number): void {
    if (dot(normals[v]!, up) <= 0) return;
    const under = rayHit(
      mesh,
      vertex(mesh, v),
      down,
      DIP_REL * Math.abs(heights[order.at(-1)!]! - heights[order[0]!]!),
    );
    if (under !== undefined) lobes.join(lobes.lowestOf(under), v);
  }
}

/** Of the tank's height: a ray from a corner passes the faces that meet in it. */
const DIP_REL = 1e-9;

/** Sets of vertices below the rising surface that hang together. */
class Lobes {
  private readonly sets: DisjointSets;
  private readonly grown: Uint8Array;
  private readonly lowest: Uint32Array;

  constructor(
    private readonly mesh: ClosedMesh,
    private readonly up: Vec3,
    private readonly heights: Float64Array,
  ) {
    this.sets = new DisjointSets(heights.length);
    this.grown = new Uint8Array(heights.length);
    this.lowest = new Uint32Array(triangleCount(mesh));
    for (let i = 0; i < this.lowest.length; i++) this.lowest[i] = this.lowestOf(i);
  }

  /** The lowest corner of a triangle: the lobe in which its wet part lies. */
  lowestOf(index: number): number {
    const { triangles } = this.mesh;
    let low = triangles[3 * index]!;
    for (let at = 3 * index + 1; at < 3 * index + 3; at++)
      if (this.heights[triangles[at]!]! < this.heights[low]!) low = triangles[at]!;
    return low;
  }

  root(v: number): number {
    return this.sets.root(v);
  }

  join(a: number, b: number): void {
    this.sets.join(a, b);
    this.grown[this.root(a)] = 1;
  }

  grow(v: number): void {
    this.grown[this.root(v)] = 1;
  }

  isGrown(v: number): boolean {
    return this.grown[v] === 1;
  }

  /** Volume of one lobe below a level: its triangles' clipped tetrahedra, whose apex lies in the surface. */
  volume(lobe: number, offset_m: number): number {
    return volumeBelow({ ...this.mesh, triangles: this.triangles(lobe) }, { normal: this.up, offset_m });
  }

  /** Triangles whose wet part lies in a lobe. */
  triangles(lobe: number): Uint32Array {
    const mine = this.root(lobe);
    const all = this.mesh.triangles;
    const found = new Uint32Array(all.length);
    let count = 0;
    for (let i = 0; i < this.lowest.length; i++) {
      if (this.root(this.lowest[i]!) !== mine) continue;
      for (let at = 3 * i; at < 3 * i + 3; at++) found[count++] = all[at]!;
    }
    return found.subarray(0, count);
  }
}
