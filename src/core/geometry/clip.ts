import { derived } from '../memo';
import { triangleCount, type ClosedMesh } from './mesh';
import type { Vec3 } from './vec';

/** The set of points p with normal . p = offset; liquid lies where normal . p <= offset. */
export type Plane = { readonly normal: Vec3; readonly offset_m: number };

export type ClippedBody = {
  readonly volume_m3: number;
  /** Centre of volume, tank frame; undefined when nothing lies below. */
  readonly centroid_m: Vec3 | undefined;
  /** Area of the cut: the free surface. */
  readonly surface_m2: number;
};

/**
 * Liquid volume on the side of a plane opposite its normal.
 *
 * Clips each triangle, then sums signed tetrahedra whose apex lies on the
 * plane, so that the cut cap adds nothing. A corner of a triangle cut off at
 * shares t1 and t2 of its two edges keeps t1 t2 of the tetrahedron, which
 * makes the clip exact without building polygons.
 *
 * @param mesh  closed, outward-facing; vertices [m], tank frame
 * @param plane unit normal [-], offset [m], same frame
 * @returns volume [m³], 0 … full
 * @source divergence theorem; docs/derivations/clipped-volume.md
 */
export function volumeBelow(mesh: ClosedMesh, { normal, offset_m }: Plane): number {
  const { positions, triangles } = mesh;
  const [nx, ny, nz] = normal;
  const vertices = positions.length / 3;
  if (heights.length < vertices) heights = new Float64Array(2 * vertices);
  for (let v = 0, i = 0; v < vertices; v++, i += 3)
    heights[v] = nx * positions[i]! + ny * positions[i + 1]! + nz * positions[i + 2]! - offset_m;
  const parts = tetrahedra(mesh);
  let six = 0;
  for (let i = 0, t = 0; i < triangles.length; i += 3, t += 4) {
    const da = heights[triangles[i]!]!,
      db = heights[triangles[i + 1]!]!,
      dc = heights[triangles[i + 2]!]!;
    if (da > 0 && db > 0 && dc > 0) continue;
    const all = parts[t]! - offset_m * (nx * parts[t + 1]! + ny * parts[t + 2]! + nz * parts[t + 3]!);
    six += da <= 0 && db <= 0 && dc <= 0 ? all : shareBelow(da, db, dc) * all;
  }
  return Math.max(0, (six / 6) * mesh.fillable);
}

/** Heights of vertices over the plane of the question that is being answered [m]. */
let heights = new Float64Array(0);

/**
 * Of each triangle, six times its tetrahedron from the origin [m³], and twice its area as a vector [m²]: with an apex p
 * elsewhere it has the first less p times the second.
 */
const tetrahedra = derived(({ positions, triangles }: ClosedMesh): Float64Array => {
  const parts = new Float64Array((4 * triangles.length) / 3);
  for (let i = 0, t = 0; i < triangles.length; i += 3, t += 4) {
    const a = 3 * triangles[i]!,
      b = 3 * triangles[i + 1]!,
      c = 3 * triangles[i + 2]!;
    const ax = positions[a]!,
      ay = positions[a + 1]!,
      az = positions[a + 2]!;
    const ux = positions[b]! - ax,
      uy = positions[b + 1]! - ay,
      uz = positions[b + 2]! - az;
    const vx = positions[c]! - ax,
      vy = positions[c + 1]! - ay,
      vz = positions[c + 2]! - az;
    const wx = uy * vz - uz * vy,
      wy = uz * vx - ux * vz,
      wz = ux * vy - uy * vx;
    parts[t] = ax * wx + ay * wy + az * wz;
    parts[t + 1] = wx;
    parts[t + 2] = wy;
    parts[t + 3] = wz;
  }
  return parts;
});

/** Six times what the named triangles add below a plane. One loop without calls, since much else waits for it. */
function sixBelow({ positions, triangles }: ClosedMesh, normal: Vec3, offset_m: number, which: Uint32Array): number {
  const [nx, ny, nz] = normal;
  const px = nx * offset_m;
  const py = ny * offset_m;
  const pz = nz * offset_m;
  let six = 0;
  for (let k = 0; k < which.length; k++) {
    const i = 3 * which[k]!;
    const a = 3 * triangles[i]!;
    const b = 3 * triangles[i + 1]!;
    const c = 3 * triangles[i + 2]!;
    const ax = positions[a]! - px,
      ay = positions[a + 1]! - py,
      az = positions[a + 2]! - pz;
    const bx = positions[b]! - px,
      by = positions[b + 1]! - py,
      bz = positions[b + 2]! - pz;
    const cx = positions[c]! - px,
      cy = positions[c + 1]! - py,
      cz = positions[c + 2]! - pz;
    const share = shareBelow(nx * ax + ny * ay + nz * az, nx * bx + ny * by + nz * bz, nx * cx + ny * cy + nz * cz);
    if (share === 0) continue;
    six += share * (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx));
  }
  return six;
}

/** Share cut off at the corner of height d; two ratios, since their products can vanish where they do not. */
const corner = (d: number, e: number, f: number): number => (d / (d - e)) * (d / (d - f));

/** Share of a triangle's tetrahedron that lies below, from its corners' signed distances. */
function shareBelow(da: number, db: number, dc: number): number {
  const below = (da <= 0 ? 1 : 0) + (db <= 0 ? 1 : 0) + (dc <= 0 ? 1 : 0);
  if (below === 3) return 1;
  if (below === 0) return 0;
  if (below === 1) return da <= 0 ? corner(da, db, dc) : db <= 0 ? corner(db, dc, da) : corner(dc, da, db);
  return 1 - (da > 0 ? corner(da, db, dc) : db > 0 ? corner(db, dc, da) : corner(dc, da, db));
}

const BANDS = 48;

/**
 * `volumeBelow` for many planes of one normal. The height is cut into bands;
 * what lies wholly under a band is summed up beforehand, so that a question
 * looks only at the triangles that reach into its band. The same clip, apart
 * from rounding: whole triangles add a . (b x c) - offset * normal . (a x b + b x c + c x a).
 *
 * @returns volume [m³] by offset [m]
 */
export function volumesAlong(mesh: ClosedMesh, normal: Vec3): (offset_m: number) => number {
  const { positions, triangles } = mesh;
  const [nx, ny, nz] = normal;
  const [floor, brim] = offsetRange(mesh, normal);
  const step = (brim - floor) / BANDS || 1;
  const bandOf = (offset_m: number): number => Math.min(BANDS - 1, Math.max(0, Math.floor((offset_m - floor) / step)));
  const inBand = Array.from({ length: BANDS }, () => [] as number[]);
  // Of triangles that end in each band: both sums; from the next band on they lie wholly below.
  const [whole, leaning] = [new Float64Array(BANDS + 1), new Float64Array(BANDS + 1)];
  for (let i = 0; i < triangleCount(mesh); i++) {
    const [a, b, c] = [3 * triangles[3 * i]!, 3 * triangles[3 * i + 1]!, 3 * triangles[3 * i + 2]!];
    const ax = positions[a]!,
      ay = positions[a + 1]!,
      az = positions[a + 2]!;
    const bx = positions[b]!,
      by = positions[b + 1]!,
      bz = positions[b + 2]!;
    const cx = positions[c]!,
      cy = positions[c + 1]!,
      cz = positions[c + 2]!;
    const [da, db, dc] = [nx * ax + ny * ay + nz * az, nx * bx + ny * by + nz * bz, nx * cx + ny * cy + nz * cz];
    const last = bandOf(Math.max(da, db, dc));
    for (let band = bandOf(Math.min(da, db, dc)); band <= last; band++) inBand[band]!.push(i);
    const ux = by * cz - bz * cy,
      uy = bz * cx - bx * cz,
      uz = bx * cy - by * cx;
    whole[last + 1]! += ax * ux + ay * uy + az * uz;
    leaning[last + 1]! +=
      nx * (ay * bz - az * by + ux + cy * az - cz * ay) +
      ny * (az * bx - ax * bz + uy + cz * ax - cx * az) +
      nz * (ax * by - ay * bx + uz + cx * ay - cy * ax);
  }
  for (let band = 1; band <= BANDS; band++) {
    whole[band]! += whole[band - 1]!;
    leaning[band]! += leaning[band - 1]!;
  }
  const lists = inBand.map((list) => Uint32Array.from(list));
  return (offset_m) => {
    const band = bandOf(offset_m);
    return Math.max(
      0,
      ((whole[band]! - offset_m * leaning[band]! + sixBelow(mesh, normal, offset_m, lists[band]!)) / 6) * mesh.fillable,
    );
  };
}

/**
 * Volume, centroid and free-surface area below a plane.
 * The slower, fuller sister of `volumeBelow`; the same clip.
 */
export function clipBelow(mesh: ClosedMesh, plane: Plane): ClippedBody {
  const sum = { volume: 0, moment: [0, 0, 0], surface: 0 };
  const apex: Vec3 = [
    plane.normal[0] * plane.offset_m,
    plane.normal[1] * plane.offset_m,
    plane.normal[2] * plane.offset_m,
  ];
  for (let i = 0; i < triangleCount(mesh); i++) {
    const polygon = clippedTriangle(mesh, i, plane);
    for (let k = 1; k + 1 < polygon.points.length; k++) {
      addTetrahedron(sum, apex, polygon.points[0]!, polygon.points[k]!, polygon.points[k + 1]!);
    }
    if (polygon.cut) sum.surface += signedArea(apex, polygon.cut[1], polygon.cut[0], plane.normal);
  }
  const space_m3 = Math.max(0, sum.volume);
  const [mx, my, mz] = sum.moment as [number, number, number];
  return {
    volume_m3: space_m3 * mesh.fillable,
    centroid_m: space_m3 > 0 ? [mx / space_m3, my / space_m3, mz / space_m3] : undefined,
    surface_m2: Math.max(0, sum.surface) * mesh.fillable,
  };
}

type Sums = { volume: number; moment: number[]; surface: number };

function addTetrahedron(sum: Sums, apex: Vec3, a: Vec3, b: Vec3, c: Vec3): void {
  const [ax, ay, az] = [a[0] - apex[0], a[1] - apex[1], a[2] - apex[2]];
  const [bx, by, bz] = [b[0] - apex[0], b[1] - apex[1], b[2] - apex[2]];
  const [cx, cy, cz] = [c[0] - apex[0], c[1] - apex[1], c[2] - apex[2]];
  const volume = (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
  sum.volume += volume;
  for (let axis = 0; axis < 3; axis++)
    sum.moment[axis]! += (volume * (apex[axis]! + a[axis]! + b[axis]! + c[axis]!)) / 4;
}

/** Area of the triangle that two spokes from the apex span, signed along the normal. */
function signedArea(apex: Vec3, from: Vec3, to: Vec3, normal: Vec3): number {
  const [ux, uy, uz] = [from[0] - apex[0], from[1] - apex[1], from[2] - apex[2]];
  const [vx, vy, vz] = [to[0] - apex[0], to[1] - apex[1], to[2] - apex[2]];
  return (normal[0] * (uy * vz - uz * vy) + normal[1] * (uz * vx - ux * vz) + normal[2] * (ux * vy - uy * vx)) / 2;
}

type ClippedTriangle = { readonly points: readonly Vec3[]; readonly cut?: readonly [Vec3, Vec3] };

/** The part of one triangle below the plane, in its own turning sense, and the edge along the cut. */
export function clippedTriangle(mesh: ClosedMesh, index: number, plane: Plane): ClippedTriangle {
  const corners: Vec3[] = [0, 1, 2].map((k) => {
    const at = 3 * mesh.triangles[3 * index + k]!;
    return [mesh.positions[at]!, mesh.positions[at + 1]!, mesh.positions[at + 2]!];
  });
  const heights = corners.map(
    (p) => p[0] * plane.normal[0] + p[1] * plane.normal[1] + p[2] * plane.normal[2] - plane.offset_m,
  );
  const points: Vec3[] = [];
  let leaving: Vec3 | undefined;
  let entering: Vec3 | undefined;
  for (let k = 0; k < 3; k++) {
    const next = (k + 1) % 3;
    const [here, there] = [heights[k]!, heights[next]!];
    if (here <= 0) points.push(corners[k]!);
    if (here <= 0 === there <= 0) continue;
    const crossing = between(corners[k]!, corners[next]!, here / (here - there));
    points.push(crossing);
    if (here <= 0) leaving = crossing;
    else entering = crossing;
  }
  return leaving && entering ? { points, cut: [leaving, entering] } : { points };
}

const between = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + t * (b[0] - a[0]),
  a[1] + t * (b[1] - a[1]),
  a[2] + t * (b[2] - a[2]),
];

/** Lowest and highest offset at which a plane of this normal touches the mesh [m]. */
export function offsetRange(mesh: Pick<ClosedMesh, 'positions'>, normal: Vec3): readonly [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const height =
      normal[0] * mesh.positions[i]! + normal[1] * mesh.positions[i + 1]! + normal[2] * mesh.positions[i + 2]!;
    low = Math.min(low, height);
    high = Math.max(high, height);
  }
  return [low, high];
}
