import { derived } from '../memo';
import { failure, success, type Outcome } from '../outcome';
import { DisjointSets } from './disjointSets';
import type { Vec3 } from './vec';

declare const closed: unique symbol;

/**
 * A triangle mesh that encloses a volume: every edge is shared by exactly two
 * triangles that run along it in opposite directions, and faces look outward.
 * Made only by `parseMesh` and the primitives, so that it need not be checked
 * again.
 */
export type ClosedMesh = {
  /** x, y, z of each vertex [m]. */
  readonly positions: Float64Array;
  /** Three vertex numbers a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  /** Share of the space inside that liquid can take; less than 1 where foam or plates fill some of it evenly. */
  readonly fillable: number;
  readonly [closed]: true;
};

export type MeshCode = 'no-triangles' | 'not-finite' | 'bad-index' | 'open-edge' | 'inside-out' | 'no-volume';

/** Below this share of the bounding cube the "volume" is rounding, not a vessel. */
const FLAT_REL = 1e-12;

/**
 * Checks that a mesh is closed, consistently turned and outward-facing.
 *
 * @param positions vertex coordinates [m], 3 a vertex
 * @param triangles vertex numbers, 3 a triangle
 */
export function parseMesh(positions: Float64Array, triangles: Uint32Array): Outcome<ClosedMesh, MeshCode> {
  if (triangles.length === 0 || triangles.length % 3 !== 0)
    return failure('no-triangles', 'triangles', 'The mesh has no whole triangles.');
  const bad = positions.findIndex((coordinate) => !Number.isFinite(coordinate));
  if (bad >= 0) return failure('not-finite', `positions[${bad}]`, 'A coordinate is not a number.');
  const outside = triangles.findIndex((vertex) => vertex >= positions.length / 3);
  if (outside >= 0)
    return failure('bad-index', `triangles[${outside}]`, 'A triangle names a vertex that does not exist.');
  const open = openEdges(triangles, positions.length / 3);
  if (open > 0)
    return failure('open-edge', 'triangles', `The mesh is open or turned two ways: ${open} edges lack their partner.`);
  const mesh = { positions, triangles, fillable: 1 } as ClosedMesh;
  const volume = meshVolume(mesh);
  const bounds = meshBounds(mesh);
  const size = Math.max(...bounds.max.map((value, axis) => value - bounds.min[axis]!));
  if (Math.abs(volume) <= FLAT_REL * size ** 3)
    return failure('no-volume', 'triangles', 'The mesh encloses no volume.');
  return volume < 0
    ? failure('inside-out', 'triangles', 'The faces look inward; turn the triangles round.')
    : success(mesh);
}

function openEdges(triangles: Uint32Array, vertices: number): number {
  const balance = new Map<number, number>();
  for (let i = 0; i < triangles.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const from = triangles[i + k]!;
      const to = triangles[i + ((k + 1) % 3)]!;
      const key = from < to ? from * vertices + to : to * vertices + from;
      balance.set(key, (balance.get(key) ?? 0) + (from < to ? 1 : -1));
    }
  }
  let open = 0;
  for (const count of balance.values()) if (count !== 0) open++;
  return open;
}

/** The same body, some of whose space is evenly taken up by something else. */
export const withFillable = (mesh: ClosedMesh, fillable: number): ClosedMesh => ({ ...mesh, fillable });

/** A corner of each body of a surface that does not hang together with the others, by its number. */
export function cornerOfEach({ positions, triangles }: Pick<ClosedMesh, 'positions' | 'triangles'>): number[] {
  const bodies = new DisjointSets(positions.length / 3);
  for (let i = 0; i < triangles.length; i += 3) {
    bodies.join(triangles[i]!, triangles[i + 1]!);
    bodies.join(triangles[i]!, triangles[i + 2]!);
  }
  return [...new Set(Array.from(triangles, (vertex) => bodies.root(vertex)))];
}

/** How many bodies there are that do not hang together by their surface. */
export const surfacePieces = (mesh: ClosedMesh): number => cornerOfEach(mesh).length;

/** Largest coordinate, by which geometric tolerances are scaled [m]. */
export const meshSize_m = ({ positions }: Pick<ClosedMesh, 'positions'>): number =>
  positions.reduce((largest, value) => Math.max(largest, Math.abs(value)), 0);

/** A vertex by its number [m]. */
export function vertex(mesh: Pick<ClosedMesh, 'positions'>, index: number): Vec3 {
  const at = 3 * index;
  return [mesh.positions[at]!, mesh.positions[at + 1]!, mesh.positions[at + 2]!];
}

/** The corners of a triangle by its number [m]. */
export function triangle(
  mesh: Pick<ClosedMesh, 'positions' | 'triangles'>,
  index: number,
): readonly [Vec3, Vec3, Vec3] {
  const at = 3 * index;
  return [
    vertex(mesh, mesh.triangles[at]!),
    vertex(mesh, mesh.triangles[at + 1]!),
    vertex(mesh, mesh.triangles[at + 2]!),
  ];
}

/** How many triangles a surface has. */
export const triangleCount = (mesh: Pick<ClosedMesh, 'triangles'>): number => mesh.triangles.length / 3;

export type Bounds = { readonly min: Vec3; readonly max: Vec3 };

/** Axis-aligned box around the mesh [m]. */
export function meshBounds(mesh: Pick<ClosedMesh, 'positions' | 'triangles'>): Bounds {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  mesh.positions.forEach((value, index) => {
    const axis = index % 3;
    min[axis] = Math.min(min[axis]!, value);
    max[axis] = Math.max(max[axis]!, value);
  });
  return { min: min as unknown as Vec3, max: max as unknown as Vec3 };
}

/**
 * Volume that liquid can take inside [m³], negative when the faces look inward.
 * @source divergence theorem: sum of signed tetrahedra from one apex
 */
export const meshVolume: (mesh: ClosedMesh) => number = derived((mesh: ClosedMesh) => signedVolume(mesh));

function signedVolume(mesh: ClosedMesh): number {
  const { positions: p, triangles } = mesh;
  let six = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [3 * triangles[i]!, 3 * triangles[i + 1]!, 3 * triangles[i + 2]!];
    six +=
      p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
      p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
      p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
  }
  return (six / 6) * mesh.fillable;
}

/** Area of all faces [m²]. */
export function meshArea(mesh: ClosedMesh): number {
  let area = 0;
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = triangle(mesh, i);
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
    area += Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
  }
  return area;
}
