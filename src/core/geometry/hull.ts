import type { Point2 } from './section';

/**
 * The convex hull of points, counter-clockwise.
 * @source A. M. Andrew, Information Processing Letters 9 (1979): monotone chains
 */
export function convexHull(points: readonly Point2[]): Point2[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const chain = (list: readonly Point2[]): Point2[] => {
    const kept: Point2[] = [];
    for (const p of list) {
      while (kept.length > 1 && !leftOf(kept[kept.length - 2]!, kept[kept.length - 1]!, p)) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...chain(sorted), ...chain(sorted.reverse())];
}

const leftOf = (a: Point2, b: Point2, c: Point2): boolean =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) > 0;
