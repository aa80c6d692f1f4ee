import {
  levelForVolume,
  meshBounds,
  offsetRange,
  roomDepth,
  volumeBelow,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { failure, success, unwrap, type Outcome } from '../outcome';
import { bentArm, floatCentre_m, freeSwing, type SwingArm } from './swingArm';
import { straight } from './straight';
import { gaugeCurve, type Instrument, type Surround } from './gauge';

/** The arm of a sender that is to be chosen: what is given of it. */
export type ArmPlan = Pick<SwingArm, 'floatRadius_m' | 'floatRise_m' | 'wireRadius_m'> & {
  /** Stops of its hub [rad]. */
  readonly lowStop_rad: number;
  readonly highStop_rad: number;
};

/** Steps in which arms and pivots are made, and their ends [m]. */
export type DesignSteps = {
  readonly armStep_m: number;
  readonly pivotStep_m: number;
  readonly shortestArm_m: number;
  readonly longestArm_m: number;
  readonly keep_m: number;
};

export type SenderDesign = {
  readonly pivotDepth_m: number;
  readonly armLength_m: number;
  readonly reach: Vec3;
  /** Of what the tank holds, the share over which the float moves. */
  readonly covers_ratio: number;
  readonly unseenLow_m3: number;
  readonly unseenHigh_m3: number;
  /** Largest error of the needle, with its sign. */
  readonly worst_ratio: number;
  readonly arm: SwingArm;
};

/** What a sender is designed into: the tank, how it stands, what it holds, and what surrounds the sender. */
export type DesignSite = {
  readonly mesh: ClosedMesh;
  readonly up: Vec3;
  readonly holds_m3: number;
  readonly surround: Surround;
  /** Under the sheet where it hangs. */ readonly top_m: Vec3;
};

/** Covers within so much of the best are as good; the least error among them wins. */
const AS_GOOD_RATIO = 0.01;
/** Designs whose free swing and curve are worked out, the most promising first. */
const MOST_TRIED = 400;
const CURVE_STEPS = 40;
const HEIGHT_STEPS = 200;

/**
 * Pivot depth and arm length, in the steps in which they are made, that let
 * the float follow most of the volume while its whole swing stays clear; of
 * those within a hundredth of the best, the one whose needle errs least. Where
 * no whole swing is free, what is free of one is taken.
 *
 * The heights between which a float swings bound what a pair can cover before
 * anything is known of what stands in the way, so pairs are tried from the
 * largest bound down, and the search ends where no bound beats what was found.
 *
 * @param directions level directions in which the arm may reach
 */
export function designArm(
  site: DesignSite,
  plan: ArmPlan,
  instrument: Omit<Instrument, 'sender'>,
  directions: readonly Vec3[],
  steps: DesignSteps,
): Outcome<SenderDesign, 'no-fit'> {
  const bound = boundOf(site);
  const all = pairs(site, steps)
    .flatMap(({ pivotDepth_m, armLength_m }) =>
      directions.map((reach): Candidate => {
        const arm: SwingArm = {
          kind: 'swing-arm',
          pivot_m: [site.top_m[0], site.top_m[1], site.top_m[2] - pivotDepth_m],
          reach,
          armLength_m,
          ...plan,
        };
        return { arm, pivotDepth_m, wire_m: armLength_m, bound: bound(arm) };
      }),
    )
    .sort((a, b) => b.bound - a.bound);
  for (const swing of ['whole', 'part'] as const) {
    const found: SenderDesign[] = [];
    let best = 0;
    let tried = 0;
    for (const candidate of all) {
      if (candidate.bound < best - AS_GOOD_RATIO || tried >= MOST_TRIED) break;
      if (swing === 'whole' && !endsFree(site, candidate.arm, steps.keep_m)) continue;
      tried++;
      const design = designOf(site, candidate, instrument, steps.keep_m, swing);
      if (!design) continue;
      found.push(design);
      best = Math.max(best, design.covers_ratio);
    }
    if (found.length > 0)
      return success(
        found
          .filter(({ covers_ratio }) => covers_ratio >= best - AS_GOOD_RATIO)
          .reduce((least, one) => (Math.abs(one.worst_ratio) < Math.abs(least.worst_ratio) ? one : least)),
      );
  }
  return failure(
    'no-fit',
    'sender',
    'No arm of these lengths swings free from this port: move the port away from walls and baffles, or take a smaller float, a shorter arm, or a tube.',
  );
}

/** An arm to be looked at, and the most that it can cover, of what the tank holds. */
type Candidate = {
  readonly arm: SwingArm;
  readonly pivotDepth_m: number;
  readonly wire_m: number;
  readonly bound: number;
};

/**
 * The most that an arm can cover: the volume between the heights of its float at its stops, a float's radius off floor
 * and lid.
 */
function boundOf(site: DesignSite): (arm: SwingArm) => number {
  const volumeAt = heightTable(site);
  const { min, max } = meshBounds(site.surround.room);
  return ({ pivot_m, armLength_m, floatRadius_m, floatRise_m, lowStop_rad, highStop_rad }) => {
    const [low, high] = [lowStop_rad, highStop_rad].map((angle) => pivot_m[2] + armLength_m * Math.sin(angle)) as [
      number,
      number,
    ];
    return (
      Math.max(
        0,
        volumeAt(Math.min(high, max[2] - floatRadius_m) - floatRise_m) -
          volumeAt(Math.max(low, min[2] + floatRadius_m) - floatRise_m),
      ) / site.holds_m3
    );
  };
}

/** Whether the float is clear of walls where its stops hold it: what most arms fail at. */
const endsFree = ({ surround }: DesignSite, arm: SwingArm, keep_m: number): boolean =>
  [arm.lowStop_rad, arm.highStop_rad].every(
    (angle) => roomDepth(surround.room)(floatCentre_m(arm, angle)) >= arm.floatRadius_m + keep_m,
  );

function pairs(
  { top_m, surround }: DesignSite,
  { armStep_m, pivotStep_m, shortestArm_m, longestArm_m }: DesignSteps,
): { pivotDepth_m: number; armLength_m: number }[] {
  const depth = top_m[2] - meshBounds(surround.room).min[2];
  const multiples = (from: number, to: number, step: number): number[] =>
    Array.from({ length: Math.max(0, Math.floor(to / step + EVEN) - Math.ceil(from / step - EVEN) + 1) }, (_, i) =>
      tidy((Math.ceil(from / step - EVEN) + i) * step),
    );
  return multiples(pivotStep_m, depth - pivotStep_m, pivotStep_m).flatMap((pivotDepth_m) =>
    multiples(shortestArm_m, longestArm_m, armStep_m).map((armLength_m) => ({ pivotDepth_m, armLength_m })),
  );
}
const EVEN = 1e-9;
const tidy = (value_m: number): number => Number(value_m.toFixed(6));

/**
 * What one arm covers and how far its needle errs; nothing where it does not swing free of everything with room to
 * spare.
 */
function designOf(
  site: DesignSite,
  { arm, pivotDepth_m, wire_m }: Candidate,
  instrument: Omit<Instrument, 'sender'>,
  keep_m: number,
  want: 'whole' | 'part',
): SenderDesign | undefined {
  const swing = freeSwing(site.surround.room, arm, site.surround.round, keep_m);
  if (!swing || swing.high_rad - swing.low_rad < LEAST_SWING_RAD || (want === 'whole' && (swing.lowBy ?? swing.highBy)))
    return undefined;
  const curve = gaugeCurve(
    site.mesh,
    { ...instrument, sender: arm },
    site.holds_m3,
    site.up,
    CURVE_STEPS,
    site.surround,
  );
  if (!curve.ok) return undefined;
  const { unseenLow_m3, unseenHigh_m3, worst } = curve.value;
  return {
    pivotDepth_m,
    armLength_m: wire_m,
    reach: arm.reach,
    arm,
    unseenLow_m3,
    unseenHigh_m3,
    covers_ratio: (site.holds_m3 - unseenLow_m3 - unseenHigh_m3) / site.holds_m3,
    worst_ratio: worst.error_ratio,
  };
}
const LEAST_SWING_RAD = 0.17;

/** Volume by the height of a level surface, held between empty and what the tank holds. */
function heightTable({ mesh, up, holds_m3 }: DesignSite): (height_m: number) => number {
  const [low, high] = offsetRange(mesh, up);
  const top = unwrap(levelForVolume(mesh, up, holds_m3)).offset_m;
  const heights = Float64Array.from({ length: HEIGHT_STEPS + 1 }, (_, i) => low + ((high - low) * i) / HEIGHT_STEPS);
  const volumes = heights.map((offset_m) => volumeBelow(mesh, { normal: up, offset_m }));
  return (height_m) => Math.min(holds_m3, straight(heights, volumes, Math.min(height_m, top)));
}

/** What may be done to a sender that was made for another tank: its wire cut shorter and bent once near the pivot. */
export type Refit = { readonly wire_m: number; readonly bend_rad: number; readonly design: SenderDesign };

/** Where a wire is bent by hand: so far from the pivot [m]. Common practice. */
export const BEND_AT_M = 0.02;

/**
 * For a sender from another tank, with its bracket and so its pivot as it is:
 * to which length to cut the wire and how to bend it, and what error is left.
 * As it is comes first; a change must cover more, or err less by a hundredth.
 */
export function refitArm(
  site: DesignSite,
  plan: ArmPlan,
  instrument: Omit<Instrument, 'sender'>,
  given: { readonly pivotDepth_m: number; readonly wire_m: number; readonly directions: readonly Vec3[] },
  steps: {
    readonly armStep_m: number;
    readonly shortestArm_m: number;
    readonly bendStep_rad: number;
    readonly mostBend_rad: number;
    readonly keep_m: number;
  },
): { readonly asItIs: SenderDesign | undefined; readonly best: Refit | undefined } {
  const bound = boundOf(site);
  const candidate = (wire_m: number, bend_rad: number, reach: Vec3): Candidate & { readonly bend_rad: number } => {
    const bent = bentArm(wire_m, BEND_AT_M, bend_rad);
    const arm: SwingArm = {
      kind: 'swing-arm',
      pivot_m: [site.top_m[0], site.top_m[1], site.top_m[2] - given.pivotDepth_m],
      reach,
      ...plan,
      armLength_m: bent.length_m,
      lowStop_rad: plan.lowStop_rad + bent.lead_rad,
      highStop_rad: plan.highStop_rad + bent.lead_rad,
      ...(bend_rad === 0 ? {} : { elbow: { at_m: BEND_AT_M, from_rad: -bent.lead_rad } }),
    };
    return { arm, pivotDepth_m: given.pivotDepth_m, wire_m, bend_rad, bound: bound(arm) };
  };
  const [first] = given.directions;
  const asItIs = first && designOf(site, candidate(given.wire_m, 0, first), instrument, 0, 'part');
  const bends = Math.floor(steps.mostBend_rad / steps.bendStep_rad + EVEN);
  const lengths = [
    given.wire_m,
    ...Array.from({ length: Math.max(0, Math.ceil((given.wire_m - steps.shortestArm_m) / steps.armStep_m)) }, (_, i) =>
      tidy(given.wire_m - (i + 1) * steps.armStep_m),
    ),
  ].filter((wire) => wire >= steps.shortestArm_m);
  const all = lengths
    .flatMap((wire_m) =>
      Array.from({ length: 2 * bends + 1 }, (_, i) => (i - bends) * steps.bendStep_rad).flatMap((bend_rad) =>
        given.directions.map((way) => candidate(wire_m, bend_rad, way)),
      ),
    )
    .sort((a, b) => b.bound - a.bound);
  let best = asItIs && { wire_m: given.wire_m, bend_rad: 0, design: asItIs };
  for (const one of all) {
    // No needle errs by less than nothing.
    if (best && one.bound <= merit(best.design) + MUCH_RATIO) break;
    const design = designOf(site, one, instrument, steps.keep_m, 'part');
    if (design && (!best || merit(design) > merit(best.design) + MUCH_RATIO))
      best = { wire_m: one.wire_m, bend_rad: one.bend_rad, design };
  }
  return { asItIs, best };
}
/** What is not covered weighs as much as what the needle errs. */
const merit = ({ covers_ratio, worst_ratio }: SenderDesign): number => covers_ratio - Math.abs(worst_ratio);
const MUCH_RATIO = 0.01;
