import type { TankLevel } from '../../model/networkParts';
import { floorUnder_m, standingUp, type PickupModel, type TankModel } from '../../model/compileTank';
import type { EnvelopeDocument } from '../../plan/schema';
import {
  dot,
  effectiveGravity,
  rayCrossings,
  toTankFrame,
  volumeBelow,
  type EffectiveGravity,
  type Vec3,
} from '../../geometry';
import type { FluidState } from '../../fluids';
import { unwrap } from '../../outcome';
import {
  canHold,
  foamCrossing_s,
  foamDamping_ratio,
  headForFlow_m,
  keptLevels_m,
  orificeFlow_m3PerS,
  roundSloshFrequency_Hz,
  sloshFrequency_Hz,
  compartmentBelow_m3,
  type Can,
  type Hold,
  type HoldInputs,
  type LiquidReach,
} from '../../tank';
import { FOAM_LETS } from '../../reference/foam';
import { STANDARD_GRAVITY_M_PER_S2 } from '../../units';
import { heldFor, levelIn, reachOfLiquid } from '../remembered';

export const MANOEUVRES = ['braking', 'driving', 'cornering to port', 'cornering to starboard'] as const;
export type Manoeuvre = (typeof MANOEUVRES)[number];

export type CompartmentResult = {
  readonly volume_m3: number;
  /** At the set fill, the surface level in the tank and the same in every compartment. */
  readonly liquid_m3: number;
  /**
   * First sloshing frequencies fore and aft and side to side; of a rectangular compartment with the same surface and
   * depth, or of a round tank.
   */
  readonly slosh_Hz: { readonly lengthwise: number; readonly crosswise: number } | undefined;
  /** What foam makes of it, where the tank has any. */
  readonly foam?: {
    /** Of what stops the swing altogether, at least. */
    readonly damping: { readonly lengthwise: number; readonly crosswise: number };
    /** From end to end in the hardest manoeuvre, at least [s]. */
    readonly crossing_s?: number;
  };
  /**
   * What the compartment keeps from a pickup when the vehicle stands level, by the pickup's id; infinite where no way
   * leads there.
   */
  readonly kept_m3: Readonly<Record<string, number>>;
};

export type FeedResult = {
  readonly pickup: string;
  readonly compartment: number;
  /** What the lines draw through this pickup. */
  readonly draw_m3PerS: number;
  /**
   * Openings low in the plates through which other compartments feed this one; undefined where it has no plates round
   * it.
   */
  readonly refill:
    { readonly area_m2: number; readonly headForDraw_m: number; readonly rate_m3PerS: number } | undefined;
  /** Whether a flap of the pickup's compartment lets liquid out of it and not in. */
  readonly flapAway: boolean;
  readonly holds: Readonly<Record<Manoeuvre, Hold>>;
  /** Openings of the can about it, and what they let in of the last 25 mm; undefined where it has none. */
  readonly can:
    | {
        readonly area_m2: number;
        readonly rate_m3PerS: number;
        /** From its foot up to the lid; undefined where the pickup has no floor under it [m]. */
        readonly room_m: number | undefined;
      }
    | undefined;
};

export type InsideResult = {
  readonly compartments: readonly CompartmentResult[];
  readonly feeds: readonly FeedResult[];
  readonly largest_m3: number;
};

/** Head under which openings must pass the draw: the last 25 mm of fuel. Common practice. */
export const REFILL_HEAD_M = 0.025;

/**
 * What happens inside a tank at its fill: compartments, what swings in them, what they hold for a pickup.
 *
 * @param draws_m3PerS through each pickup, by its id
 */
export function insideResult(
  draws_m3PerS: Readonly<Record<string, number>>,
  asked: EnvelopeDocument,
  { magnitude_mPerS2: gravity_mPerS2 }: EffectiveGravity,
  level: TankLevel,
  { kinematicViscosity_m2PerS }: FluidState,
): InsideResult {
  const { tank, up, offset_m } = level;
  const still = standingUp(tank, 0, 0);
  const liquid_m3 = level.volume_m3;
  const stillOffset_m = unwrap(levelIn(tank.mesh, still, liquid_m3)).offset_m;
  const kept = new Map(
    tank.pickups.map((pickup) => [
      pickup.document.id,
      keptLevels_m(tank.division, tank.division.compartmentOf(pickup.inlet.point_m), still),
    ]),
  );
  const compartments = tank.division.compartments.map((compartment, b): CompartmentResult => {
    const liquid_m3 = volumeBelow(compartment.mesh, { normal: up, offset_m });
    const reach = reachOfLiquid(compartment.mesh, up, offset_m, liquid_m3);
    const slosh_Hz = reach && sloshOf(tank, reach, gravity_mPerS2);
    return {
      volume_m3: compartment.volume_m3,
      liquid_m3,
      slosh_Hz,
      ...(reach && slosh_Hz && (tank.document.foam_ratio?.value ?? 0) > 0
        ? { foam: inFoam(asked, reach, slosh_Hz, kinematicViscosity_m2PerS) }
        : {}),
      kept_m3: Object.fromEntries(
        [...kept].map(([id, levels]) => [
          id,
          levels[b] === -Infinity
            ? 0
            : levels[b] === Infinity
              ? Infinity
              : compartmentBelow_m3(compartment, still, levels[b]!),
        ]),
      ),
    };
  });
  return {
    compartments,
    feeds: tank.pickups.map((pickup) =>
      feedResult(draws_m3PerS[pickup.document.id]!, asked, tank, pickup, { still, stillOffset_m, liquid_m3 }),
    ),
    largest_m3: Math.max(...compartments.map((compartment) => compartment.volume_m3)),
  };
}

/**
 * Of a rectangular compartment with the same surface and depth; of a round one where the tank is a plain upright
 * cylinder.
 */
function sloshOf(
  tank: TankModel,
  { length_m, width_m, depth_m }: LiquidReach,
  gravity_mPerS2: number,
): NonNullable<CompartmentResult['slosh_Hz']> {
  const { shape, parts } = tank.document;
  if (
    shape.kind === 'cylinder' &&
    shape.axis === 'z' &&
    parts.length === 0 &&
    tank.division.compartments.length === 1
  ) {
    const round = roundSloshFrequency_Hz((length_m + width_m) / 4, depth_m, gravity_mPerS2);
    return { lengthwise: round, crosswise: round };
  }
  return {
    lengthwise: sloshFrequency_Hz(length_m, depth_m, gravity_mPerS2),
    crosswise: sloshFrequency_Hz(width_m, depth_m, gravity_mPerS2),
  };
}

function inFoam(
  { braking_mPerS2, driving_mPerS2, cornering_mPerS2 }: EnvelopeDocument,
  { length_m, width_m }: LiquidReach,
  { lengthwise, crosswise }: NonNullable<CompartmentResult['slosh_Hz']>,
  kinematic_m2PerS: number,
): NonNullable<CompartmentResult['foam']> {
  const crossings = (
    [
      [length_m, Math.max(braking_mPerS2.value, driving_mPerS2.value)],
      [width_m, cornering_mPerS2.value],
    ] as const
  ).flatMap(([reach_m, hardest]) =>
    hardest > 0 ? [foamCrossing_s(reach_m, hardest, kinematic_m2PerS, FOAM_LETS.permeability_m2)] : [],
  );
  return {
    damping: {
      lengthwise: foamDamping_ratio(lengthwise, kinematic_m2PerS, FOAM_LETS.permeability_m2),
      crosswise: foamDamping_ratio(crosswise, kinematic_m2PerS, FOAM_LETS.permeability_m2),
    },
    ...(crossings.length > 0 ? { crossing_s: Math.min(...crossings) } : {}),
  };
}

/** The tank's liquid while the vehicle stands level. */
type Standing = Pick<HoldInputs, 'still' | 'stillOffset_m' | 'liquid_m3'>;

function feedResult(
  draw_m3PerS: number,
  asked: EnvelopeDocument,
  tank: TankModel,
  pickup: PickupModel,
  standing: Standing,
): FeedResult {
  const home = tank.division.compartmentOf(pickup.inlet.point_m);
  const can = canOf(pickup);
  const passages = tank.division.passages.filter(({ compartments }) => compartments.includes(home));
  const inward = passages.filter(
    ({ compartments, into, kind }) => kind !== 'gap' && into[compartments[0] === home ? 0 : 1],
  );
  const area_m2 = inward.reduce((sum, way) => sum + way.area_m2, 0);
  return {
    pickup: pickup.document.id,
    compartment: home,
    draw_m3PerS,
    refill:
      passages.length === 0
        ? undefined
        : {
            area_m2,
            headForDraw_m: headForFlow_m(draw_m3PerS, area_m2, STANDARD_GRAVITY_M_PER_S2),
            rate_m3PerS: orificeFlow_m3PerS(area_m2, REFILL_HEAD_M, STANDARD_GRAVITY_M_PER_S2),
          },
    flapAway: passages.some(
      ({ kind, compartments, into }) => kind === 'flap' && !into[compartments[0] === home ? 0 : 1],
    ),
    holds: holdsOf(asked, tank, pickup, standing, draw_m3PerS),
    can: can && {
      area_m2: can.area_m2,
      rate_m3PerS: orificeFlow_m3PerS(can.area_m2, REFILL_HEAD_M, STANDARD_GRAVITY_M_PER_S2),
      room_m: roomOver_m(tank, footOf(tank, pickup)),
    },
  };
}

function holdsOf(
  { braking_mPerS2, driving_mPerS2, cornering_mPerS2 }: EnvelopeDocument,
  tank: TankModel,
  pickup: PickupModel,
  standing: Standing,
  draw_m3PerS: number,
): Record<Manoeuvre, Hold> {
  const along: Readonly<Record<Manoeuvre, Vec3>> = {
    braking: [-braking_mPerS2.value, 0, 0],
    driving: [driving_mPerS2.value, 0, 0],
    'cornering to port': [0, cornering_mPerS2.value, 0],
    'cornering to starboard': [0, -cornering_mPerS2.value, 0],
  };
  const can = canOf(pickup);
  const foot_m = can && footOf(tank, pickup);
  return Object.fromEntries(
    MANOEUVRES.map((manoeuvre) => {
      const gravity = unwrap(effectiveGravity({ pitch_rad: 0, roll_rad: 0, acceleration_mPerS2: along[manoeuvre] }));
      const moving = toTankFrame(gravity.up, tank.mounting);
      const inCompartment = heldFor({
        mesh: tank.mesh,
        division: tank.division,
        inlet: pickup.inlet,
        ...standing,
        moving,
        gravity_mPerS2: gravity.magnitude_mPerS2,
        draw_m3PerS,
      });
      if (!can || inCompartment.staysWet || foot_m === undefined) return [manoeuvre, inCompartment];
      const inCan = canHold({
        can,
        foot_m,
        inlet: pickup.inlet,
        depth_m: (standing.stillOffset_m - dot(standing.still, foot_m)) / Math.max(LEAST_UP, standing.still[2]),
        moving,
        gravity_mPerS2: gravity.magnitude_mPerS2,
        draw_m3PerS,
      });
      // Whichever lasts longer: that both last one after the other is not counted on.
      return [manoeuvre, inCan.time_s > inCompartment.time_s ? inCan : inCompartment];
    }),
  ) as Record<Manoeuvre, Hold>;
}

/** A tank that lies steeper has nothing standing over its foot. */
const LEAST_UP = 0.1;

/** The can about a pickup. */
function canOf({ document: { can } }: PickupModel): Can | undefined {
  return (
    can && {
      diameter_m: can.diameter_m.value,
      height_m: can.height_m.value,
      area_m2: (can.openings.count * Math.PI * can.openings.diameter_m.value ** 2) / 4,
      leak_ratio: can.leak_ratio.value,
    }
  );
}

/** Where a can stands: on the floor under the inlet. */
function footOf({ body }: TankModel, { inlet: { point_m } }: PickupModel): Vec3 | undefined {
  const floor = floorUnder_m(body.shell, point_m);
  return floor === undefined ? undefined : [point_m[0], point_m[1], floor];
}

/** From a point of the floor straight up to what is over it [m]. */
function roomOver_m({ body }: TankModel, foot_m: Vec3 | undefined): number | undefined {
  return foot_m && rayCrossings(body.shell, foot_m, [0, 0, 1]).find((distance) => distance > ON_FLOOR_M);
}
/** So far over the floor, not to meet the floor itself [m]. */
const ON_FLOOR_M = 1e-6;
