/** Points and directions: [x forward, y to port, z up], metres or unitless. */
export type Vec3 = readonly [number, number, number];

/** Sum of two vectors. */
export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** The first vector less the second. */
export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** A vector times a number. */
export const scale = (a: Vec3, factor: number): Vec3 => [a[0] * factor, a[1] * factor, a[2] * factor];
/** Scalar product. */
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Vector product, right-handed. */
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** Length of a vector. */
export const norm = (a: Vec3): number => Math.sqrt(dot(a, a));
/** A vector's direction; the vector is not zero. */
export const unitVector = (a: Vec3): Vec3 => scale(a, 1 / norm(a));
/** Distance of two points. */
export const distance = (a: Vec3, b: Vec3): number => norm(subtract(a, b));
/** The point at a share of the way from one to another. */
export const lerp = (a: Vec3, b: Vec3, t: number): Vec3 => add(a, scale(subtract(b, a), t));
