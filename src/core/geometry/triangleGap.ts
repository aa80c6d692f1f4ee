/**
 * Distance between two triangles. Corners lie in flat arrays, 9 numbers a
 * triangle; the nearest points are left in `nearestOnFirst`, `nearestOnSecond`
 * so that nothing is allocated in the innermost loop.
 */
export const nearestOnFirst = new Float64Array(3);
export const nearestOnSecond = new Float64Array(3);

let least2 = 0;

/** Keeps a pair of points where it is the nearest yet. */
function keep(ax: number, ay: number, az: number, bx: number, by: number, bz: number): void {
  const d2 = (ax - bx) ** 2 + (ay - by) ** 2 + (az - bz) ** 2;
  if (d2 >= least2) return;
  least2 = d2;
  nearestOnFirst[0] = ax;
  nearestOnFirst[1] = ay;
  nearestOnFirst[2] = az;
  nearestOnSecond[0] = bx;
  nearestOnSecond[1] = by;
  nearestOnSecond[2] = bz;
}

const clamp01 = (value: number): number => (value < 0 ? 0 : value > 1 ? 1 : value);

/**
 * Nearest points of two segments.
 * @source C. Ericson, Real-Time Collision Detection (2005), section 5.1.9
 */
function segments(a: Float64Array, p: number, q: number, b: Float64Array, r: number, s: number): void {
  const px = a[p]!,
    py = a[p + 1]!,
    pz = a[p + 2]!;
  const rx = b[r]!,
    ry = b[r + 1]!,
    rz = b[r + 2]!;
  const ux = a[q]! - px,
    uy = a[q + 1]! - py,
    uz = a[q + 2]! - pz;
  const vx = b[s]! - rx,
    vy = b[s + 1]! - ry,
    vz = b[s + 2]! - rz;
  const wx = px - rx,
    wy = py - ry,
    wz = pz - rz;
  const uu = ux * ux + uy * uy + uz * uz;
  const vv = vx * vx + vy * vy + vz * vz;
  const vw = vx * wx + vy * wy + vz * wz;
  let m = 0;
  let n: number;
  if (uu <= 0) n = vv <= 0 ? 0 : clamp01(vw / vv);
  else {
    const uw = ux * wx + uy * wy + uz * wz;
    if (vv <= 0) {
      n = 0;
      m = clamp01(-uw / uu);
    } else {
      const uv = ux * vx + uy * vy + uz * vz;
      const denominator = uu * vv - uv * uv;
      m = denominator > 0 ? clamp01((uv * vw - uw * vv) / denominator) : 0;
      n = (uv * m + vw) / vv;
      if (n < 0) {
        n = 0;
        m = clamp01(-uw / uu);
      } else if (n > 1) {
        n = 1;
        m = clamp01((uv - uw) / uu);
      }
    }
  }
  keep(px + ux * m, py + uy * m, pz + uz * m, rx + vx * n, ry + vy * n, rz + vz * n);
}

/** The foot of a corner on a triangle's plane, where it falls within the triangle. */
function foot(a: Float64Array, p: number, b: Float64Array, o: number, first: boolean): void {
  const ox = b[o]!,
    oy = b[o + 1]!,
    oz = b[o + 2]!;
  const ux = b[o + 3]! - ox,
    uy = b[o + 4]! - oy,
    uz = b[o + 5]! - oz;
  const vx = b[o + 6]! - ox,
    vy = b[o + 7]! - oy,
    vz = b[o + 8]! - oz;
  const nx = uy * vz - uz * vy,
    ny = uz * vx - ux * vz,
    nz = ux * vy - uy * vx;
  const nn = nx * nx + ny * ny + nz * nz;
  if (nn <= 0) return;
  const px = a[p]!,
    py = a[p + 1]!,
    pz = a[p + 2]!;
  const wx = px - ox,
    wy = py - oy,
    wz = pz - oz;
  const height = (wx * nx + wy * ny + wz * nz) / nn;
  if (height * height * nn >= least2) return;
  const beta = ((uy * wz - uz * wy) * nx + (uz * wx - ux * wz) * ny + (ux * wy - uy * wx) * nz) / nn;
  const alpha = ((wy * vz - wz * vy) * nx + (wz * vx - wx * vz) * ny + (wx * vy - wy * vx) * nz) / nn;
  if (alpha < 0 || beta < 0 || alpha + beta > 1) return;
  const [fx, fy, fz] = [px - height * nx, py - height * ny, pz - height * nz];
  if (first) keep(px, py, pz, fx, fy, fz);
  else keep(fx, fy, fz, px, py, pz);
}

/** Where an edge goes through a triangle; the distance is then none. */
function pierces(a: Float64Array, p: number, q: number, b: Float64Array, o: number): boolean {
  const ox = b[o]!,
    oy = b[o + 1]!,
    oz = b[o + 2]!;
  const ux = b[o + 3]! - ox,
    uy = b[o + 4]! - oy,
    uz = b[o + 5]! - oz;
  const vx = b[o + 6]! - ox,
    vy = b[o + 7]! - oy,
    vz = b[o + 8]! - oz;
  const nx = uy * vz - uz * vy,
    ny = uz * vx - ux * vz,
    nz = ux * vy - uy * vx;
  const px = a[p]! - ox,
    py = a[p + 1]! - oy,
    pz = a[p + 2]! - oz;
  const qx = a[q]! - ox,
    qy = a[q + 1]! - oy,
    qz = a[q + 2]! - oz;
  const near = px * nx + py * ny + pz * nz;
  const far = qx * nx + qy * ny + qz * nz;
  if (near > 0 === far > 0 || near === far) return false;
  const t = near / (near - far);
  const wx = px + t * (qx - px),
    wy = py + t * (qy - py),
    wz = pz + t * (qz - pz);
  const nn = nx * nx + ny * ny + nz * nz;
  const beta = (uy * wz - uz * wy) * nx + (uz * wx - ux * wz) * ny + (ux * wy - uy * wx) * nz;
  const alpha = (wy * vz - wz * vy) * nx + (wz * vx - wx * vz) * ny + (wx * vy - wy * vx) * nz;
  if (alpha < 0 || beta < 0 || alpha + beta > nn) return false;
  keep(wx + ox, wy + oy, wz + oz, wx + ox, wy + oy, wz + oz);
  return true;
}

/**
 * Square of the distance between two triangles [m²], or `atMost2` where they
 * lie further apart. Zero where they touch or cut each other.
 *
 * @param a, b corners [m]; `i`, `j` where the triangle begins in them
 */
export function triangleGap2(a: Float64Array, i: number, b: Float64Array, j: number, atMost2: number): number {
  const aside = planeGap2(a, i, b, j);
  if (aside >= atMost2) return atMost2;
  const otherwise = planeGap2(b, j, a, i);
  if (otherwise >= atMost2) return atMost2;
  least2 = atMost2;
  // On one side of the other's plane nothing is pierced.
  for (let k = 0; k < 9 && aside === 0 && otherwise === 0; k += 3) {
    if (pierces(a, i + k, i + ((k + 3) % 9), b, j) || pierces(b, j + k, j + ((k + 3) % 9), a, i)) return 0;
  }
  for (let k = 0; k < 9; k += 3) {
    foot(a, i + k, b, j, true);
    foot(b, j + k, a, i, false);
  }
  // Nearer than one triangle stays to the other's plane they cannot come: with faces that run along each other a foot
  // says it all.
  if (least2 <= Math.max(aside, otherwise)) return least2;
  for (let k = 0; k < 9; k += 3)
    for (let l = 0; l < 9; l += 3) segments(a, i + k, i + ((k + 3) % 9), b, j + l, j + ((l + 3) % 9));
  return least2;
}

/** Square of the distance by which a triangle stays on one side of the other's plane; 0 where it does not. */
function planeGap2(a: Float64Array, i: number, b: Float64Array, j: number): number {
  const ox = a[i]!,
    oy = a[i + 1]!,
    oz = a[i + 2]!;
  const ux = a[i + 3]! - ox,
    uy = a[i + 4]! - oy,
    uz = a[i + 5]! - oz;
  const vx = a[i + 6]! - ox,
    vy = a[i + 7]! - oy,
    vz = a[i + 8]! - oz;
  const nx = uy * vz - uz * vy,
    ny = uz * vx - ux * vz,
    nz = ux * vy - uy * vx;
  const nn = nx * nx + ny * ny + nz * nz;
  if (nn <= 0) return 0;
  const p = (b[j]! - ox) * nx + (b[j + 1]! - oy) * ny + (b[j + 2]! - oz) * nz;
  const q = (b[j + 3]! - ox) * nx + (b[j + 4]! - oy) * ny + (b[j + 5]! - oz) * nz;
  const r = (b[j + 6]! - ox) * nx + (b[j + 7]! - oy) * ny + (b[j + 8]! - oz) * nz;
  const least = p > 0 && q > 0 && r > 0 ? Math.min(p, q, r) : p < 0 && q < 0 && r < 0 ? Math.max(p, q, r) : 0;
  return (least * least) / nn;
}
