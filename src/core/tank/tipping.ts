import { clipBelow, dot, levelForVolume, norm, scale, subtract, type ClosedMesh, type Vec3 } from '../geometry';
import { commonCentre_m } from './mass';

/** What stands on level ground, in its own frame with z up: what does not move in it, and what stays level. */
export type Standing = {
  readonly fixed: readonly { readonly mass_kg: number; readonly at_m: Vec3 }[];
  readonly liquids: readonly {
    readonly mesh: ClosedMesh;
    readonly volume_m3: number;
    readonly density_kgPerM3: number;
  }[];
};

/** An edge that something stands on and tips over, and the level way out over it, a unit vector. */
export type TipEdge = { readonly at_m: Vec3; readonly out: Vec3 };

const UP: Vec3 = [0, 0, 1];
/** Steps in which a first tip is looked for [rad], and how near it is found. */
const STEP_RAD = Math.PI / 72;
const NEAR_RAD = 1e-7;

/** Up as what leans over an edge feels it. */
const leaning = ({ out }: TipEdge, lean_rad: number): Vec3 => {
  const [c, s] = [Math.cos(lean_rad), Math.sin(lean_rad)];
  return [-s * out[0], -s * out[1], c];
};

/** The common centre of all that stands, with the liquids level at a lean [m]; undefined where a level is not found. */
export function centreAt({ fixed, liquids }: Standing, up: Vec3): Vec3 | undefined {
  const masses = [...fixed];
  for (const { mesh, volume_m3, density_kgPerM3 } of liquids) {
    if (volume_m3 === 0) continue;
    const level = levelForVolume(mesh, up, volume_m3);
    const centroid_m = level.ok
      ? clipBelow(mesh, { normal: up, offset_m: level.value.offset_m }).centroid_m
      : undefined;
    if (!centroid_m) return undefined;
    masses.push({ mass_kg: volume_m3 * density_kgPerM3, at_m: centroid_m });
  }
  return commonCentre_m(masses);
}

/**
 * How high the common centre stands over an edge at a lean [m]: what leans comes to rest where it is least, and goes
 * over where it is most.
 */
export function heightOver_m(standing: Standing, edge: TipEdge, lean_rad: number): number | undefined {
  const up = leaning(edge, lean_rad);
  const centre = centreAt(standing, up);
  return centre && dot(up, subtract(centre, edge.at_m));
}

/** How far the common centre lies out over an edge at a lean, along the level there [m]; over zero it goes over. */
function out_m(standing: Standing, edge: TipEdge, lean_rad: number): number | undefined {
  const up = leaning(edge, lean_rad);
  const centre = centreAt(standing, up);
  const level: Vec3 = [Math.cos(lean_rad) * edge.out[0], Math.cos(lean_rad) * edge.out[1], Math.sin(lean_rad)];
  return centre && dot(level, subtract(centre, edge.at_m));
}

/**
 * The lean at which what stands loose goes over an edge, slowly leant, its liquids level all the while [rad].
 *
 * @returns 0 where it does not stand at all; undefined where nothing weighs anything, or a level is not found
 * @source statics: it goes over when the centre of all its weight comes to stand over the edge
 */
export function tipAngle_rad(standing: Standing, edge: TipEdge): number | undefined {
  const start = out_m(standing, edge, 0);
  if (start === undefined) return undefined;
  if (start >= 0) return 0;
  let low = 0;
  // Laid on its side the centre is over the edge by its height: it is over before that.
  let high = STEP_RAD;
  for (let at = out_m(standing, edge, high); high < Math.PI / 2; at = out_m(standing, edge, high)) {
    if (at === undefined) return undefined;
    if (at >= 0) break;
    low = high;
    high += STEP_RAD;
  }
  while (high - low > NEAR_RAD) {
    const middle = (low + high) / 2;
    const at = out_m(standing, edge, middle);
    if (at === undefined) return undefined;
    if (at < 0) low = middle;
    else high = middle;
  }
  return high;
}

/** The level outline that something stands on as edges, each with its way out; counter-clockwise seen from above. */
export const edgesOf = (outline: readonly (readonly [number, number])[], z_m: number): TipEdge[] =>
  outline.flatMap((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const along: Vec3 = [b[0] - a[0], b[1] - a[1], 0];
    const length = norm(along);
    return length > 0 ? [{ at_m: [a[0], a[1], z_m] as Vec3, out: scale([along[1], -along[0], 0], 1 / length) }] : [];
  });

/** The lean of something whose centre stays where it is, as a first guess [rad]. */
export function rigidTip_rad(standing: Standing, edge: TipEdge): number | undefined {
  const centre = centreAt(standing, UP);
  if (!centre) return undefined;
  const from = subtract(centre, edge.at_m);
  return Math.max(0, Math.atan2(-dot(edge.out, from), from[2]));
}
