import { convexHull, silhouette, type ClosedMesh, type Point2 } from '../../geometry';

/** What is seen of a surface along the axis that is left of two, as loops. */
export function outlineOf(
  { positions, triangles }: Pick<ClosedMesh, 'positions' | 'triangles'>,
  [u, v]: readonly [0 | 1 | 2, 0 | 1 | 2],
): Point2[][] {
  const points = Array.from(triangles, (vertex): Point2 => [positions[3 * vertex + u]!, positions[3 * vertex + v]!]);
  const seen = silhouette(Array.from({ length: points.length / 3 }, (_, i) => points.slice(3 * i, 3 * i + 3)));
  // What is seen on edge has no area: its hull is drawn.
  return seen.length > 0 ? seen : [convexHull(points)];
}
