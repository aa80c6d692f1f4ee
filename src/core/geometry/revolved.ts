import { unwrap } from '../outcome';
import { parseMesh, type ClosedMesh } from './mesh';
import type { ExtrudeAxis } from './loft';
import type { Vec3 } from './vec';

/** A point of a meridian: distance along the axis, and radius [m]. */
export type MeridianPoint = readonly [along_m: number, radius_m: number];

/**
 * Facets round the axis so that a sliver between facet and circle, which is
 * all that any cut can get wrong, stays under the given share of the section.
 * @source sliver area r²(a - sin a)/2, about r² a³/12, halved since facets
 * straddle the circle
 */
export function facetsFor(volumeTolerance_rel: number): number {
  const angle = Math.cbrt(24 * Math.PI * volumeTolerance_rel);
  return 4 * Math.ceil((2 * Math.PI) / angle / 4);
}

/** A twentieth of the promised 0.05 %: circles look round and measure true to a millimetre; finer ones would only cost time with every edit. */
export const ROUND_REL = 2.5e-5;

/**
 * A body of revolution. Facets are set out so that their polygon has the area
 * of the circle: it straddles the true surface and keeps the volume. Flats lie
 * where the body is widest along an axis, so that its extent is the diameter
 * less a part in a thousand.
 *
 * @param meridian from one end to the other, radius 0 or more; ends of radius 0 are points, others are closed flat
 * @param axis     which axis it turns about; the body's lowest corner lies at the origin
 */
export function revolvedMesh(meridian: readonly MeridianPoint[], axis: ExtrudeAxis, facets = facetsFor(ROUND_REL)): ClosedMesh {
  const angle = (2 * Math.PI) / facets;
  const widen = Math.sqrt(angle / Math.sin(angle));
  const start = meridian[0]![0];
  const largest = Math.max(...meridian.map(([, radius]) => radius));
  const positions: number[] = [];
  const triangles: number[] = [];
  const place = (along: number, u: number, v: number): Vec3 => PLACE[axis](along - start, largest + u, largest + v);
  const ring = ([along, radius]: MeridianPoint): number[] => {
    const first = positions.length / 3;
    if (radius === 0) {
      positions.push(...place(along, 0, 0));
      return [first];
    }
    for (let i = 0; i < facets; i++) positions.push(...place(along, radius * widen * Math.cos((i + 0.5) * angle), radius * widen * Math.sin((i + 0.5) * angle)));
    return Array.from({ length: facets }, (_, i) => first + i);
  };
  const rings = meridian.map(ring);
  const closed = [flatEnd(meridian[0]!, place, positions), ...rings, flatEnd(meridian.at(-1)!, place, positions)].filter((found) => found.length > 0);
  for (let k = 1; k < closed.length; k++) joinRings(closed[k - 1]!, closed[k]!, facets, triangles);
  return unwrap(parseMesh(Float64Array.from(positions), Uint32Array.from(triangles)));
}

/** Axes in right-handed order after the axis of turning, so that faces look outward. */
const PLACE: Readonly<Record<ExtrudeAxis, (along: number, u: number, v: number) => Vec3>> = {
  x: (along, u, v) => [along, u, v],
  y: (along, u, v) => [v, along, u],
  z: (along, u, v) => [u, v, along],
};

/** The middle point of a flat end, or nothing where the end is a point already. */
function flatEnd([along, radius]: MeridianPoint, place: (along: number, u: number, v: number) => Vec3, positions: number[]): number[] {
  if (radius === 0) return [];
  positions.push(...place(along, 0, 0));
  return [positions.length / 3 - 1];
}

function joinRings(a: readonly number[], b: readonly number[], facets: number, triangles: number[]): void {
  for (let i = 0; i < facets; i++) {
    const j = (i + 1) % facets;
    if (a.length === 1 && b.length === 1) return;
    if (a.length === 1) triangles.push(a[0]!, b[j]!, b[i]!);
    else if (b.length === 1) triangles.push(a[i]!, a[j]!, b[0]!);
    else triangles.push(a[i]!, a[j]!, b[j]!, a[i]!, b[j]!, b[i]!);
  }
}
