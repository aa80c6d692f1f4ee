import { crossingsAt, type Point2 } from './section';

/** Jordan: a ray from within meets the outlines an odd number of times. */
export const insideOutline = (loops: readonly (readonly Point2[])[], [u, v]: Point2): boolean =>
  loops.reduce((count, loop) => count + crossingsAt(loop, 1, v).filter((point) => point[0] > u).length, 0) % 2 === 1;

/** Distance from a point to a stretch, and the point of it that is nearest. */
export function toStretch(
  [u, v]: Point2,
  [a, b]: Point2,
  [c, d]: Point2,
): { readonly distance_m: number; readonly foot: Point2; /** How far along, 0 to 1. */ readonly share: number } {
  const [du, dv] = [c - a, d - b];
  const square = du * du + dv * dv;
  const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((u - a) * du + (v - b) * dv) / square));
  const foot: Point2 = [a + share * du, b + share * dv];
  return { distance_m: Math.hypot(u - foot[0], v - foot[1]), foot, share };
}
