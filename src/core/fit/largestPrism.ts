import { commonRegion, meshBounds, sectionAcross, type ClosedMesh, type Point2, type Surface } from '../geometry';

/** A prism along the fore-and-aft axis [m]: its outline in (y, z). */
export type FreePrism = {
  readonly from_m: number;
  readonly to_m: number;
  readonly outline: readonly Point2[];
  readonly volume_m3: number;
};

/** The length of a space is tried in so many parts. */
const PARTS = 8;
/** Outlines between two ends are looked at in so many places. */
const PLACES = 5;

/**
 * The largest prism along the fore-and-aft axis that follows a space: for
 * every stretch of its length, the outline that all its sections share, less
 * the shadows of what stands in that stretch.
 *
 * @param space closed, already less the clearance to its walls
 * @param clear what to stay clear of, by how much [m]
 */
export function largestPrism(
  space: ClosedMesh,
  clear: readonly { readonly surface: Surface; readonly keep_m: number }[],
): FreePrism | undefined {
  const { min, max } = meshBounds(space);
  const at = (part: number): number => min[0] + ((max[0] - min[0]) * part) / PARTS;
  let best: FreePrism | undefined;
  for (let first = 0; first < PARTS; first++) {
    for (let last = first + 1; last <= PARTS; last++) {
      const [from_m, to_m] = [at(first), at(last)];
      // No outline is larger than the space's own height by its width.
      if (best && (to_m - from_m) * (max[1] - min[1]) * (max[2] - min[2]) <= best.volume_m3) continue;
      const sections = Array.from({ length: PLACES }, (_, i) =>
        sectionAcross(space, 0, from_m + (to_m - from_m) * (INSIDE_REL + ((1 - 2 * INSIDE_REL) * i) / (PLACES - 1))),
      );
      const region = commonRegion(
        sections,
        clear.map(({ surface, keep_m }) => ({
          triangles: shadowBetween(surface, from_m - keep_m, to_m + keep_m),
          margin_m: keep_m,
        })),
      );
      const volume_m3 = region ? region.area_m2 * (to_m - from_m) : 0;
      if (region && volume_m3 > (best?.volume_m3 ?? 0)) best = { from_m, to_m, outline: region.outline, volume_m3 };
    }
  }
  return best;
}

/** A section in the very end of a stretch may lie in a step or have no outline: it is taken a little inside. */
const INSIDE_REL = 1e-4;

/** Triangles that reach into a stretch, as seen along it. */
function shadowBetween({ positions, triangles }: Surface, from_m: number, to_m: number): Point2[][] {
  const seen: Point2[][] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => 3 * triangles[i + k]!);
    const xs = corners.map((c) => positions[c]!);
    if (Math.max(...xs) <= from_m || Math.min(...xs) >= to_m) continue;
    seen.push(corners.map((c): Point2 => [positions[c + 1]!, positions[c + 2]!]));
  }
  return seen;
}
