import { meshSize_m, triangle, triangleCount, type ClosedMesh } from './mesh';
import type { Plane } from './clip';
import { cross, dot, norm, scale, subtract, type Vec3 } from './vec';

/** Faces smaller than this share of the size squared have no direction worth trusting. */
const SLIVER_REL = 1e-14;

/** The outward plane of each triangle; undefined for one too thin to have any. */
export function trianglePlanes(mesh: ClosedMesh): (Plane | undefined)[] {
  const least = SLIVER_REL * meshSize_m(mesh) ** 2;
  return Array.from({ length: triangleCount(mesh) }, (_, i) => {
    const [a, b, c] = triangle(mesh, i);
    const normal = cross(subtract(b, a), subtract(c, a));
    const length = norm(normal);
    if (length <= least) return undefined;
    const unit = scale(normal, 1 / length);
    return { normal: unit, offset_m: (dot(unit, a) + dot(unit, b) + dot(unit, c)) / 3 };
  });
}

/** Directions in which the planes say less than this share of what they say in all leave the point where it is. */
const RANK_REL = 1e-9;
/** The second round takes away what rounding left of the first. */
const ROUNDS = 2;

/**
 * The point nearest to a given one that lies on all of some planes; where they
 * have no point in common, the one that misses them least.
 * @source minimum-norm least squares by the eigenvectors of the normal matrix
 */
export function moveOntoPlanes(from: Vec3, planes: readonly Plane[]): Vec3 {
  const matrix = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const { normal } of planes)
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) matrix[r]![c]! += normal[r]! * normal[c]!;
  const { values, vectors } = symmetricEigen(matrix);
  const least = RANK_REL * planes.length;
  const to: [number, number, number] = [...from];
  for (let round = 0; round < ROUNDS; round++) {
    const miss = [0, 0, 0];
    for (const { normal, offset_m } of planes) {
      const gap = offset_m - dot(normal, to);
      for (let r = 0; r < 3; r++) miss[r]! += normal[r]! * gap;
    }
    for (let k = 0; k < 3; k++) {
      if (values[k]! <= least) continue;
      const along = vectors[k]!;
      const step = (along[0] * miss[0]! + along[1] * miss[1]! + along[2] * miss[2]!) / values[k]!;
      for (let r = 0; r < 3; r++) to[r]! += step * along[r]!;
    }
  }
  return to;
}

const SWEEPS = 12;

/** @source Jacobi's cyclic rotations; G. Golub and C. Van Loan, Matrix Computations, section 8.5 */
function symmetricEigen(input: readonly (readonly number[])[]): { values: number[]; vectors: Vec3[] } {
  const a = input.map((row) => [...row]);
  const v = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  for (
    let sweep = 0;
    sweep < SWEEPS && Math.abs(a[0]![1]!) + Math.abs(a[0]![2]!) + Math.abs(a[1]![2]!) > 1e-15;
    sweep++
  ) {
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      if (a[p]![q] === 0) continue;
      const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!);
      const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
      const c = 1 / Math.sqrt(t * t + 1);
      const s = t * c;
      for (let k = 0; k < 3; k++) [a[k]![p], a[k]![q]] = [c * a[k]![p]! - s * a[k]![q]!, s * a[k]![p]! + c * a[k]![q]!];
      for (let k = 0; k < 3; k++) [a[p]![k], a[q]![k]] = [c * a[p]![k]! - s * a[q]![k]!, s * a[p]![k]! + c * a[q]![k]!];
      for (let k = 0; k < 3; k++) [v[k]![p], v[k]![q]] = [c * v[k]![p]! - s * v[k]![q]!, s * v[k]![p]! + c * v[k]![q]!];
    }
  }
  return {
    values: [0, 1, 2].map((k) => a[k]![k]!),
    vectors: [0, 1, 2].map((k): Vec3 => [v[0]![k]!, v[1]![k]!, v[2]![k]!]),
  };
}

const SAME_DIRECTION = 1e-9;

/** Planes without repeats: each direction and offset once. */
export function distinctPlanes(planes: readonly Plane[], size_m: number): Plane[] {
  const kept: Plane[] = [];
  for (const plane of planes) {
    const known = kept.some(
      (other) =>
        Math.abs(other.offset_m - plane.offset_m) <= SAME_DIRECTION * size_m &&
        norm(subtract(other.normal, plane.normal)) <= SAME_DIRECTION,
    );
    if (!known) kept.push(plane);
  }
  return kept;
}
