import { convexHull, signedArea_m2, type Point2 } from '../geometry';

/** A convex outline laid out by an even margin, its corners cut square. */
export function grown(outline: readonly Point2[], by_m: number): Point2[] {
  const side = signedArea_m2(outline) > 0 ? 1 : -1;
  return convexHull(
    outline.flatMap((p, i) => {
      const q = outline[(i + 1) % outline.length]!;
      const [du, dv] = [q[0] - p[0], q[1] - p[1]];
      const out: Point2 = [(side * by_m * dv) / Math.hypot(du, dv), (-side * by_m * du) / Math.hypot(du, dv)];
      return [p, q].map((end): Point2 => [end[0] + out[0], end[1] + out[1]]);
    }),
  );
}
