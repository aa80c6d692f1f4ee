import { failure, success, type Outcome } from '../outcome';
import type { ExtrudeAxis } from './loft';
import type { ClosedMesh } from './mesh';
import { revolvedMesh, type MeridianPoint } from './revolved';

export const END_SHAPES = ['flat', 'hemispherical', 'elliptical', 'torispherical', 'dished-10', 'dished-deep'] as const;
export type EndShape = (typeof END_SHAPES)[number];

/**
 * Dished ends by their proportions to the diameter: radius of the crown, and of the knuckle round it.
 * @source flanged and dished: ASME BPVC VIII-1, UG-32; knuckle of a tenth: DIN 28011; deep, crown of 0.8 diameters: DIN
 * 28013 (all from memory)
 */
const DISHED = {
  torispherical: { crownOverDiameter: 1, knuckleOverDiameter: 0.06 },
  'dished-10': { crownOverDiameter: 1, knuckleOverDiameter: 0.1 },
  'dished-deep': { crownOverDiameter: 0.8, knuckleOverDiameter: 0.154 },
} as const;
type Dished = keyof typeof DISHED;

export type VesselCode = 'no-size';

const WIDEN_STEPS = 6;

/** Depth of an end beyond the straight shell [m]. */
export function endDepth_m(end: EndShape, radius_m: number): number {
  switch (end) {
    case 'flat':
      return 0;
    case 'hemispherical':
      return radius_m;
    case 'elliptical':
      return radius_m / 2;
    case 'torispherical':
    case 'dished-10':
    case 'dished-deep':
      return dished(end, radius_m).depth;
  }
}

/** Where crown and knuckle of a dished end meet, and its depth. */
function dished(
  end: Dished,
  radius_m: number,
): { crown: number; knuckle: number; joinRadius: number; joinHeight: number; depth: number } {
  const { crownOverDiameter, knuckleOverDiameter } = DISHED[end];
  const crown = 2 * radius_m * crownOverDiameter;
  const knuckle = 2 * radius_m * knuckleOverDiameter;
  const toKnuckle = radius_m - knuckle;
  const rise = Math.sqrt((crown - knuckle) ** 2 - toKnuckle ** 2);
  return {
    crown,
    knuckle,
    joinRadius: (toKnuckle * crown) / (crown - knuckle),
    joinHeight: (rise * crown) / (crown - knuckle) - rise,
    depth: crown - rise,
  };
}

/** Radius of an end at a height over the shell's edge [m]. */
function endRadius_m(end: EndShape, radius_m: number, height: number): number {
  switch (end) {
    case 'flat':
      return radius_m;
    case 'hemispherical':
      return Math.sqrt(Math.max(0, radius_m ** 2 - height ** 2));
    case 'elliptical':
      return Math.sqrt(Math.max(0, radius_m ** 2 - 4 * height ** 2));
    case 'torispherical':
    case 'dished-10':
    case 'dished-deep': {
      const { crown, knuckle, joinHeight, depth } = dished(end, radius_m);
      if (height <= joinHeight) return radius_m - knuckle + Math.sqrt(Math.max(0, knuckle ** 2 - height ** 2));
      return Math.sqrt(Math.max(0, crown ** 2 - (crown - depth + height) ** 2));
    }
  }
}

/**
 * Volume of one end [m³].
 * @source hemisphere 2/3 pi r³, 2:1 ellipsoid half of it; dished ends by
 * integrating discs over crown and knuckle; cf. the closed forms of
 * D. Jones, "Computing fluid tank volumes", Chemical Processing (2003), from memory
 */
export function endVolume_m3(end: EndShape, radius_m: number): number {
  switch (end) {
    case 'flat':
      return 0;
    case 'hemispherical':
      return (2 / 3) * Math.PI * radius_m ** 3;
    case 'elliptical':
      return (1 / 3) * Math.PI * radius_m ** 3;
    case 'torispherical':
    case 'dished-10':
    case 'dished-deep':
      return dishedVolume_m3(end, radius_m);
  }
}

function dishedVolume_m3(end: Dished, radius_m: number): number {
  const { crown, knuckle, joinHeight, depth } = dished(end, radius_m);
  const cap = depth - joinHeight;
  const crownVolume = (Math.PI * cap * cap * (3 * crown - cap)) / 3;
  const inset = radius_m - knuckle;
  // Discs of radius inset + sqrt(k² - h²), from the shell's edge to the join.
  const asine =
    knuckle * knuckle * Math.asin(joinHeight / knuckle) + joinHeight * Math.sqrt(knuckle ** 2 - joinHeight ** 2);
  return (
    crownVolume + Math.PI * (inset ** 2 * joinHeight + inset * asine + knuckle ** 2 * joinHeight - joinHeight ** 3 / 3)
  );
}

export type Vessel = {
  readonly radius_m: number;
  readonly shell_m: number;
  readonly axis: ExtrudeAxis;
  readonly nearEnd: EndShape;
  readonly farEnd: EndShape;
};

/** Volume of the whole vessel [m³]. */
export const vesselVolume_m3 = ({ radius_m, shell_m, nearEnd, farEnd }: Vessel): number =>
  Math.PI * radius_m ** 2 * shell_m + endVolume_m3(nearEnd, radius_m) + endVolume_m3(farEnd, radius_m);

/**
 * A cylinder with its ends, lying (axis x or y) or upright (axis z).
 * @param vessel inside radius and straight shell length [m]; radius > 0, shell >= 0
 */
export function vesselMesh(vessel: Vessel): Outcome<ClosedMesh, VesselCode> {
  const { radius_m, shell_m, nearEnd, farEnd, axis } = vessel;
  if (!(radius_m > 0) || !(shell_m >= 0))
    return failure('no-size', 'vessel', 'Radius must be above zero and the shell not negative.');
  const near = endMeridian(nearEnd, radius_m)
    .map(([height, radius]): MeridianPoint => [-height, radius])
    .reverse();
  const far = endMeridian(farEnd, radius_m).map(([height, radius]): MeridianPoint => [shell_m + height, radius]);
  const whole = [...near, ...far].filter(
    (point, i, all) => i === 0 || point[0] !== all[i - 1]![0] || point[1] !== all[i - 1]![1],
  );
  return success(revolvedMesh(whole, axis));
}

/** A cone or tapered tube with flat ends; either radius may be 0. */
export function coneMesh(
  nearRadius_m: number,
  farRadius_m: number,
  length_m: number,
  axis: ExtrudeAxis,
): Outcome<ClosedMesh, VesselCode> {
  if (!(length_m > 0) || !(nearRadius_m >= 0) || !(farRadius_m >= 0) || nearRadius_m + farRadius_m === 0)
    return failure('no-size', 'cone', 'Length must be above zero, and one radius at least.');
  return success(
    revolvedMesh(
      [
        [0, nearRadius_m],
        [length_m, farRadius_m],
      ],
      axis,
    ),
  );
}

/** Shares of a quarter turn at which an end is cut: crowded towards its tip, where a dip is read. */
const END_STEPS = [...Array.from({ length: 9 }, (_, i) => i / 10), 0.86, 0.9, 0.93, 0.95, 0.982, 1];

/**
 * Meridian of an end from the shell's edge to its tip: heights crowded where
 * it curves most. Inner points are moved out so that the frustums between
 * them have the end's true volume, each first by what its neighbours lack and
 * then all alike.
 */
function endMeridian(end: EndShape, radius_m: number): MeridianPoint[] {
  const depth = endDepth_m(end, radius_m);
  if (depth === 0) return [[0, radius_m]];
  const heights = END_STEPS.map((share) => depth * Math.sin((Math.PI / 2) * share));
  const tip = heights.length - 1;
  const true_m = heights.map((height) => endRadius_m(end, radius_m, height));
  const segments = heights
    .slice(1)
    .map((height, i) => ({
      is: discs(end, radius_m, heights[i]!, height),
      drawn: frustum(height - heights[i]!, true_m[i]!, i + 1 === tip ? 0 : true_m[i + 1]!),
    }));
  const radii = true_m.map((radius, i) =>
    i === 0
      ? radius
      : i === tip
        ? 0
        : radius * Math.sqrt((segments[i - 1]!.is + segments[i]!.is) / (segments[i - 1]!.drawn + segments[i]!.drawn)),
  );
  const wanted = endVolume_m3(end, radius_m);
  let widen = 1;
  // Each step leaves some hundredth of the last one's error.
  for (let step = 0; step < WIDEN_STEPS; step++)
    widen *= Math.sqrt(1 + (wanted - frustums(heights, radii, widen)) / wanted);
  return heights.map((height, i): MeridianPoint => [height, i === 0 ? radius_m : radii[i]! * widen]);
}

/** Volume of an end between two heights, by Simpson's rule on its discs [m³]. */
function discs(end: EndShape, radius_m: number, from: number, to: number): number {
  const n = 16;
  const area = (i: number): number => Math.PI * endRadius_m(end, radius_m, from + ((to - from) * i) / n) ** 2;
  const inner = Array.from({ length: n - 1 }, (_, i) => area(i + 1) * (i % 2 === 0 ? 4 : 2)).reduce(
    (sum, each) => sum + each,
    0,
  );
  return ((to - from) / (3 * n)) * (area(0) + inner + area(n));
}

const frustum = (height: number, a: number, b: number): number => (Math.PI / 3) * height * (a * a + a * b + b * b);

function frustums(heights: readonly number[], radii: readonly number[], widen: number): number {
  const at = (i: number): number => (i === 0 ? radii[0]! : radii[i]! * widen);
  return heights.slice(1).reduce((sum, height, i) => {
    return sum + frustum(height - heights[i]!, at(i), at(i + 1));
  }, 0);
}
