import { convexHull, signedArea_m2, type Point2 } from '../geometry';

/** Corners nearer to each other than this are one [m]: a wall's facets give many. */
const SAME_M = 2e-5;

/** A convex outline laid out by an even margin, its corners cut square. */
export function grown(outline: readonly Point2[], by_m: number): Point2[] {
  const side = signedArea_m2(outline) > 0 ? 1 : -1;
  const edges = outline.flatMap((p, i): Point2[] => {
    const q = outline[(i + 1) % outline.length]!;
    const [du, dv] = [q[0] - p[0], q[1] - p[1]];
    const length = Math.hypot(du, dv);
    if (length < SAME_M) return [];
    const out: Point2 = [(side * by_m * dv) / length, (-side * by_m * du) / length];
    return [p, q].map((end): Point2 => [end[0] + out[0], end[1] + out[1]]);
  });
  return cornersOf(apart(convexHull(apart(edges))));
}

/** Without those that stand where the one before does. */
const apart = (points: readonly Point2[]): Point2[] =>
  points.filter((p, i) => {
    const q = points[(i + points.length - 1) % points.length]!;
    return Math.hypot(p[0] - q[0], p[1] - q[1]) >= SAME_M;
  });

/** A corner that stands out by less than this is none [m]. */
const FLAT_M = 1e-6;

/** Without those that stand on the line from the last that is kept to the next. */
function cornersOf(outline: readonly Point2[]): Point2[] {
  const kept: Point2[] = [];
  for (const [i, p] of outline.entries()) {
    const before = kept.at(-1) ?? outline.at(-1)!;
    const next = outline[(i + 1) % outline.length]!;
    const [du, dv] = [next[0] - before[0], next[1] - before[1]];
    const off = Math.abs((p[0] - before[0]) * dv - (p[1] - before[1]) * du) / Math.hypot(du, dv);
    if (off > FLAT_M) kept.push(p);
  }
  return kept;
}
