import { derived } from '../memo';
import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import { failure, success, type Outcome } from '../outcome';
import { boxMesh } from './box';
import type { Plane } from './clip';
import { meshBounds, meshSize_m, meshVolume, parseMesh, type Bounds, type ClosedMesh } from './mesh';
import { distinctPlanes, moveOntoPlanes, trianglePlanes } from './planes';
import { signedArea_m2 } from './polygon';
import type { Point2 } from './section';
import { cutAcross } from './slab';
import { norm, subtract, type Vec3 } from './vec';

/**
 * Bodies added, taken away and cut by the boolean kernel. The kernel works in
 * single precision; it says of every face which face it came from, so each
 * corner is put back, in double precision, onto the planes that meet in it.
 */
export type CombineCode = 'nothing-left' | 'not-solid';

export type Operation = 'add' | 'take' | 'common';

let kernel: ManifoldToplevel | undefined;
let loading: Promise<void> | undefined;

/** Must have come back before any shape with parts is asked for: at the start of a worker, a command, a test run. */
export const loadKernel = (): Promise<void> =>
  (loading ??= Module().then((loaded) => {
    loaded.setup();
    kernel = loaded;
  }));

/** Of the first body's volume: less is the rounding of faces that just touch. */
const NOTHING_REL = 1e-9;

/** Two bodies made one, one less the other, or what both share. */
export function combine(a: ClosedMesh, b: ClosedMesh, operation: Operation): Outcome<ClosedMesh, CombineCode> {
  if (!kernel) throw new Error('loadKernel() has not come back yet');
  const made: Manifold[] = [];
  const keep = (solid: Manifold): Manifold => (made.push(solid), solid);
  try {
    const [first, second] = [source(a), source(b)];
    const [left, right] = [keep(first.solid), keep(second.solid)];
    const result = keep(
      operation === 'add' ? left.add(right) : operation === 'take' ? left.subtract(right) : left.intersect(right),
    );
    if (result.isEmpty()) return failure('nothing-left', 'shape', 'Nothing of the body is left.');
    const settled = settle(result.getMesh(), [first, second]);
    const mesh = parseMesh(settled.positions, settled.triangles);
    if (!mesh.ok && mesh.error.code !== 'no-volume')
      return failure('not-solid', 'shape', `The bodies cannot be combined: ${mesh.error.detail}`);
    if (!mesh.ok || meshVolume(mesh.value) <= NOTHING_REL * meshVolume(a))
      return failure('nothing-left', 'shape', 'Nothing of the body is left.');
    return success({ ...mesh.value, fillable: a.fillable });
  } catch (error) {
    return failure('not-solid', 'shape', `The bodies cannot be combined (${(error as Error).message}).`);
  } finally {
    made.forEach((solid) => solid.delete());
  }
}

/**
 * Volume by the kernel's own reckoning [m³]; undefined where it does not take
 * the mesh for a solid. A second way to `meshVolume`.
 */
export function kernelVolume_m3(mesh: ClosedMesh): number | undefined {
  if (!kernel) throw new Error('loadKernel() has not come back yet');
  let solid: Manifold | undefined;
  try {
    solid = kernel.Manifold.ofMesh(
      new kernel.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(mesh.positions),
        triVerts: Uint32Array.from(mesh.triangles),
      }),
    );
    return solid.isEmpty() ? undefined : solid.volume() * mesh.fillable;
  } catch {
    return undefined;
  } finally {
    solid?.delete();
  }
}

type Faces = {
  /** The face that each triangle belongs to. */
  readonly ofTriangle: Uint32Array;
  /** By face number, outward. */
  readonly planes: readonly (Plane | undefined)[];
  /** Vertices as single precision rounds them, to the vertex itself. */
  readonly corners: ReadonlyMap<string, number>;
};
type Source = { readonly solid: Manifold; readonly id: number; readonly mesh: ClosedMesh; readonly faces: Faces };

const single = new Float32Array(3);
const bits = new Int32Array(single.buffer);
/** A point by its bits in single precision. */
function roundedKey(x: number, y: number, z: number): string {
  single[0] = x;
  single[1] = y;
  single[2] = z;
  return `${bits[0]},${bits[1]},${bits[2]}`;
}

/** The level faces of a body, numbered so that the kernel may mend their seams but keep their edges. */
const facesOf: (mesh: ClosedMesh) => Faces = derived((mesh: ClosedMesh) => {
  const planes: (Plane | undefined)[] = [];
  const numbers = new Map<string, number>();
  const size = meshSize_m(mesh);
  const ofTriangle = Uint32Array.from(trianglePlanes(mesh), (plane) => {
    const key =
      plane &&
      [...plane.normal.map((value) => Math.round(value * 1e8)), Math.round((plane.offset_m / size) * 1e8)].join();
    const number = key === undefined ? undefined : numbers.get(key);
    if (number !== undefined) return number;
    if (key !== undefined) numbers.set(key, planes.length);
    return planes.push(plane) - 1;
  });
  const corners = new Map<string, number>();
  for (let i = 0; i < mesh.positions.length; i += 3)
    corners.set(roundedKey(mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!), i / 3);
  const faces = { ofTriangle, planes, corners };
  return faces;
});

/** A body as the kernel takes it. */
function source(mesh: ClosedMesh): Source {
  const faces = facesOf(mesh);
  const id = kernel!.Manifold.reserveIDs(1);
  const solid = kernel!.Manifold.ofMesh(
    new kernel!.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(mesh.positions),
      triVerts: Uint32Array.from(mesh.triangles),
      faceID: faces.ofTriangle,
      runOriginalID: Uint32Array.of(id),
      runIndex: Uint32Array.of(0, mesh.triangles.length),
    }),
  );
  return { solid, id, mesh, faces };
}

type KernelMesh = ReturnType<Manifold['getMesh']>;

/** A corner that would have to go further than this share of the size lies on planes too nearly alike to say where. */
const FAR_REL = 1e-4;

function settle(mesh: KernelMesh, sources: readonly Source[]): { positions: Float64Array; triangles: Uint32Array } {
  const positions = Float64Array.from(
    { length: mesh.numVert * 3 },
    (_, i) => mesh.vertProperties[Math.floor(i / 3) * mesh.numProp + (i % 3)]!,
  );
  const triangles = Uint32Array.from(mesh.triVerts);
  const isNew = putBack(positions, sources);
  const around: Plane[][] = Array.from({ length: mesh.numVert }, () => []);
  for (let run = 0; run < mesh.runOriginalID.length; run++) {
    const planes = sources.find(({ id }) => id === mesh.runOriginalID[run])?.faces.planes;
    for (let i = mesh.runIndex[run]!; i < mesh.runIndex[run + 1]!; i++) {
      const plane = isNew[triangles[i]!] ? planes?.[mesh.faceID[Math.floor(i / 3)]!] : undefined;
      if (plane) around[triangles[i]!]!.push(plane);
    }
  }
  const size = meshSize_m({ positions });
  around.forEach((planes, v) => {
    if (planes.length === 0) return;
    const from: Vec3 = [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!];
    const to = moveOntoPlanes(from, distinctPlanes(planes, size));
    if (norm(subtract(to, from)) <= FAR_REL * size) positions.set(to, 3 * v);
  });
  return { positions, triangles };
}

/** Corners that a source had already take its own place again; says which are new. */
function putBack(positions: Float64Array, sources: readonly Source[]): Uint8Array {
  const isNew = new Uint8Array(positions.length / 3).fill(1);
  for (let v = 0; v < isNew.length; v++) {
    const key = roundedKey(positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    const owner = sources.find(({ faces }) => faces.corners.has(key));
    if (!owner) continue;
    const corner = owner.faces.corners.get(key)!;
    positions.set(owner.mesh.positions.subarray(3 * corner, 3 * corner + 3), 3 * v);
    isNew[v] = 0;
  }
  return isNew;
}

/** A box with room to spare on every side but those that are given. */
function slab(bounds: Bounds, axis: 0 | 1 | 2, from_m: number | undefined, to_m: number | undefined): ClosedMesh {
  const margin = Math.max(...bounds.max.map((value, k) => value - bounds.min[k]!));
  const min = bounds.min.map((value, k) => (k === axis && from_m !== undefined ? from_m : value - margin));
  const max = bounds.max.map((value, k) => (k === axis && to_m !== undefined ? to_m : value + margin));
  return movedMesh(boxMesh(max[0]! - min[0]!, max[1]! - min[1]!, max[2]! - min[2]!), min as unknown as Vec3);
}

/** The part of a body between two planes across an axis; either may be left out. */
export function between(
  mesh: ClosedMesh,
  axis: 0 | 1 | 2,
  from_m: number | undefined,
  to_m: number | undefined,
): Outcome<ClosedMesh, CombineCode> {
  const bounds = meshBounds(mesh);
  if ((from_m !== undefined && from_m >= bounds.max[axis]) || (to_m !== undefined && to_m <= bounds.min[axis]))
    return failure('nothing-left', 'shape', 'Nothing of the body lies there.');
  const above = from_m === undefined ? mesh : cutAcross(mesh, axis, from_m, 'upper');
  const part = above && (to_m === undefined ? above : cutAcross(above, axis, to_m, 'lower'));
  // Where the cut leaves no clean outline the kernel's own way is slower and sure.
  return part ? success(part) : combine(mesh, slab(bounds, axis, from_m, to_m), 'common');
}

/** A body shifted [m]. */
export const movedMesh = (mesh: ClosedMesh, by_m: Vec3): ClosedMesh => ({
  ...mesh,
  positions: mesh.positions.map((value, i) => value + by_m[i % 3]!),
});

/** Takes out a band across an axis and closes the body up by moving what lies beyond it back. */
export function withoutBand(
  mesh: ClosedMesh,
  axis: 0 | 1 | 2,
  from_m: number,
  width_m: number,
): Outcome<ClosedMesh, CombineCode> {
  const { min, max } = meshBounds(mesh);
  if (from_m >= max[axis] || from_m + width_m <= min[axis]) return success(mesh);
  const near = from_m > min[axis] ? between(mesh, axis, undefined, from_m) : undefined;
  const far = from_m + width_m < max[axis] ? between(mesh, axis, from_m + width_m, undefined) : undefined;
  if (near && !near.ok) return near;
  if (far && !far.ok) return far;
  const back = far && movedMesh(far.value, [0, 1, 2].map((k) => (k === axis ? -width_m : 0)) as unknown as Vec3);
  if (near && back) return combine(near.value, back, 'add');
  const whole = near?.value ?? back;
  return whole ? success(whole) : failure('nothing-left', 'shape', 'The band takes the whole body.');
}

/** A surface to look at: single precision, for pictures only. */
export type PictureMesh = { readonly positions: Float32Array; readonly triangles: Uint32Array };

/** A body in single precision, to look at [m]. */
export const pictureOf = (mesh: ClosedMesh): PictureMesh => ({
  positions: Float32Array.from(mesh.positions),
  triangles: Uint32Array.from(mesh.triangles),
});

/** The part of a body below a plane with its cut closed, to look at; undefined where nothing lies below. */
export function pictureBelow(mesh: ClosedMesh, { normal, offset_m }: Plane): PictureMesh | undefined {
  const whole = source(mesh).solid;
  // The kernel keeps what lies along the normal: turn the plane round.
  const below = whole.trimByPlane([-normal[0], -normal[1], -normal[2]], -offset_m);
  const cut = below.isEmpty() ? undefined : below.getMesh();
  const picture = cut && {
    positions: Float32Array.from(
      { length: cut.numVert * 3 },
      (_, i) => cut.vertProperties[Math.floor(i / 3) * cut.numProp + (i % 3)]!,
    ),
    triangles: Uint32Array.from(cut.triVerts),
  };
  whole.delete();
  below.delete();
  return picture;
}

/** Corners nearer to a straight line than this are left out of a region's outline [m]. */
const STRAIGHT_M = 5e-4;

/**
 * The largest piece of the region that all of the outlines share, less the
 * shadows of triangles grown by a margin; as one outline, counter-clockwise.
 *
 * @param shared each a set of closed loops [m]
 * @param shadows corners of triangles, three points each, with the margin round them [m]
 */
export function commonRegion(
  shared: readonly (readonly Point2[][])[],
  shadows: readonly { readonly triangles: readonly (readonly Point2[])[]; readonly margin_m: number }[],
): { outline: Point2[]; area_m2: number } | undefined {
  if (!kernel) throw new Error('loadKernel() has not come back yet');
  const { CrossSection } = kernel;
  type Region = InstanceType<typeof CrossSection>;
  const made: Region[] = [];
  const keep = (region: Region): Region => (made.push(region), region);
  const of = (loops: readonly (readonly Point2[])[], rule: 'EvenOdd' | 'Positive'): Region =>
    keep(
      new CrossSection(
        loops.map((loop) => loop.map(([u, v]) => [u, v] as [number, number])),
        rule,
      ),
    );
  try {
    let region = shared.map((loops) => of(loops, 'EvenOdd')).reduce((all, next) => keep(all.intersect(next)));
    for (const { triangles, margin_m } of shadows) {
      if (triangles.length === 0) continue;
      const upright = triangles.map((loop) => (turnOf(loop) < 0 ? [...loop].reverse() : loop));
      region = keep(region.subtract(keep(of(upright, 'Positive').offset(margin_m, 'Miter', 2))));
    }
    const largestOf = (whole: Region): Region | undefined =>
      whole
        .decompose()
        .map(keep)
        .reduce<Region | undefined>((best, piece) => (best && best.area() >= piece.area() ? best : piece), undefined);
    let largest = largestOf(region);
    // An outline has no holes: each is opened to the side where that costs least.
    for (let holes = 0; largest && largest.numContour() > 1 && holes < MOST_HOLES; holes++) {
      const hole = largest.toPolygons().find((loop) => signedArea_m2(loop as unknown as Point2[]) < 0);
      if (!hole) break;
      const opened: (Region | undefined)[] = slots(hole as unknown as Point2[]).map((slot) =>
        largestOf(keep(largest!.subtract(of([slot], 'EvenOdd')))),
      );
      largest = opened.reduce(
        (best, piece) => (!piece || (best && best.area() >= piece.area()) ? best : piece),
        undefined,
      );
    }
    const outline = largest && keep(largest.simplify(STRAIGHT_M)).toPolygons()[0];
    return largest && outline
      ? { outline: outline.map(([u, v]): Point2 => [u, v]), area_m2: largest.area() }
      : undefined;
  } finally {
    made.forEach((region) => region.delete());
  }
}

/** The outline of triangles as they are seen flat, with holes where one looks through. */
export function silhouette(triangles: readonly (readonly Point2[])[]): Point2[][] {
  if (!kernel) throw new Error('loadKernel() has not come back yet');
  const upright = triangles
    .filter((loop) => turnOf(loop) !== 0)
    .map((loop) => (turnOf(loop) < 0 ? [...loop].reverse() : loop).map(([u, v]) => [u, v] as [number, number]));
  const region = new kernel.CrossSection(upright, 'Positive');
  const plain = region.simplify(STRAIGHT_M);
  const loops = plain.toPolygons().map((loop) => loop.map(([u, v]): Point2 => [u, v]));
  region.delete();
  plain.delete();
  return loops;
}

const MOST_HOLES = 40;
const FAR_M = 100;

/** The box round a hole, drawn out to each of the four sides. */
function slots(hole: readonly Point2[]): Point2[][] {
  const [us, vs] = [hole.map(([u]) => u), hole.map(([, v]) => v)];
  const [u0, u1, v0, v1] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
  const box = (a: number, b: number, c: number, d: number): Point2[] => [
    [a, c],
    [b, c],
    [b, d],
    [a, d],
  ];
  return [
    box(u0 - FAR_M, u1, v0, v1),
    box(u0, u1 + FAR_M, v0, v1),
    box(u0, u1, v0 - FAR_M, v1),
    box(u0, u1, v0, v1 + FAR_M),
  ];
}

const turnOf = ([a, b, c]: readonly Point2[]): number =>
  (b![0] - a![0]) * (c![1] - a![1]) - (b![1] - a![1]) * (c![0] - a![0]);
