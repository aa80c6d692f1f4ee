import type { AirState } from '../fluids';
import { boreArea_m2, bridgeOf, frictionNumber, reynoldsNumber, type Bridge } from './friction';

/** Pressure lost along a link at a flow, and its slope. Every law rises with flow. */
export type Loss = { readonly pressure_Pa: number; readonly slope_PaSPerM3: number };

/** A law of a link: pressure lost from its start to its end at a flow, negative for backward flow. */
export type LossLaw = ((flow_m3PerS: number) => Loss) & {
  /** What it is made of, where it is a plain line: the solver then works it out by itself. */
  readonly line?: LineTerms;
};

/** Loss of a line: friction x f Re²(Re) + linear Q + square Q². */
export type LineTerms = {
  readonly friction_Pa: number;
  readonly rePerFlow_sPerM3: number;
  readonly relativeRoughness: number;
  /** Between laminar and turbulent, for this roughness. */
  readonly bridge: Bridge;
  readonly linear_PaSPerM3: number;
  readonly square_PaS2PerM6: number;
};

export type Liquid = { readonly density_kgPerM3: number; readonly kinematicViscosity_m2PerS: number };

/** One fitting in a line: its K's and how many there are. */
export type FittingLoss = {
  readonly k1: number;
  readonly kInfinity: number;
  readonly sized: boolean;
  readonly count: number;
  /** Third K, where the size term is that of the three-K method. */
  readonly kd?: number;
};

const INCH_M = 0.0254;

/** Makes an odd law from its branch for forward flow. */
const oddLaw =
  (forward: (flow: number) => Loss): LossLaw =>
  (flow) => {
    const loss = forward(Math.abs(flow));
    return flow < 0 ? { pressure_Pa: -loss.pressure_Pa, slope_PaSPerM3: loss.slope_PaSPerM3 } : loss;
  };

/**
 * What friction in a round line and its fittings cost.
 *
 * @param bore_m      > 0, true inside diameter
 * @param length_m    >= 0
 * @param roughness_m 0 … 0.05 of the bore
 * @source Darcy-Weisbach; fittings by Hooper's two-K or Darby's three-K method
 */
export function lineTerms(
  bore_m: number,
  length_m: number,
  roughness_m: number,
  fittings: readonly FittingLoss[],
  liquid: Liquid,
): LineTerms {
  const { density_kgPerM3: rho, kinematicViscosity_m2PerS: nu } = liquid;
  const area = boreArea_m2(bore_m);
  const rePerFlow_sPerM3 = reynoldsNumber(1, bore_m, nu);
  let k1 = 0;
  let kInfinity = 0;
  for (const fitting of fittings) {
    k1 += fitting.count * fitting.k1;
    kInfinity += fitting.count * sizedK(fitting, bore_m);
  }
  const relativeRoughness = roughness_m / bore_m;
  return {
    friction_Pa: (rho * nu * nu * length_m) / (2 * bore_m ** 3),
    rePerFlow_sPerM3,
    relativeRoughness,
    bridge: bridgeOf(relativeRoughness),
    // K1/Re makes a term linear in flow, Kinf one in its square.
    linear_PaSPerM3: (k1 * rho) / (2 * area * area * rePerFlow_sPerM3),
    square_PaS2PerM6: (kInfinity * rho) / (2 * area * area),
  };
}

/** The law of a round line with its fittings; parameters as for its terms. */
export function lineLaw(
  bore_m: number,
  length_m: number,
  roughness_m: number,
  fittings: readonly FittingLoss[],
  liquid: Liquid,
): LossLaw {
  const line = lineTerms(bore_m, length_m, roughness_m, fittings, liquid);
  const { friction_Pa, rePerFlow_sPerM3: rePerFlow, linear_PaSPerM3: linear, square_PaS2PerM6: square } = line;
  const law = (flow: number): Loss => {
    const size = Math.abs(flow);
    const number = frictionNumber(size * rePerFlow, line.relativeRoughness, line.bridge);
    const pressure = friction_Pa * number.value + (linear + square * size) * size;
    return {
      pressure_Pa: flow < 0 ? -pressure : pressure,
      slope_PaSPerM3: friction_Pa * number.slope * rePerFlow + linear + 2 * square * size,
    };
  };
  return Object.assign(law, { line });
}

/** A law that rises evenly with the flow [Pa s/m³]: the solver works it out by itself, as it does a line. */
export function evenLaw(slope_PaSPerM3: number): LossLaw {
  const law = (flow: number): Loss => ({ pressure_Pa: slope_PaSPerM3 * flow, slope_PaSPerM3 });
  const line: LineTerms = {
    friction_Pa: 0,
    rePerFlow_sPerM3: ALWAYS_LAMINAR,
    relativeRoughness: 0,
    bridge: bridgeOf(0),
    linear_PaSPerM3: slope_PaSPerM3,
    square_PaS2PerM6: 0,
  };
  return Object.assign(law, { line });
}
/** So small that no flow there is has a Reynolds number to speak of [s/m³]. */
const ALWAYS_LAMINAR = 1e-9;

/**
 * K of a fitting in fully turbulent flow: Kinf (1 + 1/D), or Ki (1 + Kd / D^0.3), D in inches; as it stands for inlets
 * and outlets.
 */
export const sizedK = ({ kInfinity, sized, kd }: Omit<FittingLoss, 'count'>, bore_m: number): number => {
  if (kd !== undefined) return kInfinity * (1 + kd / (bore_m / INCH_M) ** 0.3);
  return kInfinity * (sized ? 1 + INCH_M / bore_m : 1);
};

/** A vent's inlet and outlet: K of 0.5 and 1. */
const VENT_ENDS: FittingLoss = { k1: 160, kInfinity: 1.5, sized: false, count: 1 };

/** Air through a vent hole or hose; bore > 0, length >= 0 [m]. Slow enough to be taken as incompressible. */
export const ventLaw = (bore_m: number, length_m: number, air: AirState): LossLaw =>
  lineLaw(bore_m, length_m, 0, [VENT_ENDS], {
    density_kgPerM3: air.density_kgPerM3,
    kinematicViscosity_m2PerS: air.viscosity_PaS / air.density_kgPerM3,
  });

/** Re below which a sharp orifice's loss turns linear. */
const ORIFICE_LINEAR_RE = 10;

/**
 * Sharp-edged orifice: dp = rho/2 (Q / (C A))², turning linear below Re 10 so
 * that its slope never vanishes.
 *
 * @param dischargeCoefficient 0 … 1, about 0.61 sharp, 0.8 a short tube
 * @source Torricelli with a discharge coefficient; ISO 5167 for the form
 */
export function orificeLaw(bore_m: number, dischargeCoefficient: number, fluid: Liquid): LossLaw {
  const square = fluid.density_kgPerM3 / (2 * (dischargeCoefficient * boreArea_m2(bore_m)) ** 2);
  const blend = ORIFICE_LINEAR_RE / reynoldsNumber(1, bore_m, fluid.kinematicViscosity_m2PerS);
  return oddLaw((flow) => ({
    pressure_Pa: square * flow * Math.sqrt(flow * flow + blend * blend),
    slope_PaSPerM3: (square * (2 * flow * flow + blend * blend)) / Math.sqrt(flow * flow + blend * blend),
  }));
}

/**
 * A filter medium: Darcy's law, linear in flow and viscosity, from one rated point.
 * @param dirtFactor 1 clean; how many times the clean loss when dirty
 * @source Darcy's law for flow through a porous medium
 */
export function filterLaw(
  ratedFlow_m3PerS: number,
  ratedDrop_Pa: number,
  ratedViscosity_PaS: number,
  dirtFactor: number,
  viscosity_PaS: number,
): LossLaw {
  const slope = (ratedDrop_Pa / ratedFlow_m3PerS) * (viscosity_PaS / ratedViscosity_PaS) * dirtFactor;
  return (flow) => ({ pressure_Pa: slope * flow, slope_PaSPerM3: slope });
}

/** Below this share of the rated flow the loss of a body turns linear, so that its slope never vanishes. */
const BODY_LINEAR = 1e-3;

/**
 * A body rated by one point: loss with the square of flow and with density.
 * @source turbulent loss of a fixed body, dp ~ rho Q²; IEC 60534-2-1 for the form
 */
export function bodyLaw(
  ratedFlow_m3PerS: number,
  ratedDrop_Pa: number,
  ratedDensity_kgPerM3: number,
  density_kgPerM3: number,
): LossLaw {
  const square = (ratedDrop_Pa * density_kgPerM3) / (ratedDensity_kgPerM3 * ratedFlow_m3PerS ** 2);
  const blend = (BODY_LINEAR * ratedFlow_m3PerS) ** 2;
  return oddLaw((flow) => {
    const root = Math.sqrt(flow * flow + blend);
    return { pressure_Pa: square * flow * root, slope_PaSPerM3: (square * (2 * flow * flow + blend)) / root };
  });
}

/** What leaks past a valve's seat, as a slope [Pa s/m³]: a drop an hour at one bar. */
export const SEAT_PA_S_PER_M3 = 1e5 / (5e-8 / 3600);

/**
 * Lets a law pass forward flow only, and only above an opening pressure: a
 * check valve, one with a spring, an anti-siphon valve, a relief valve. Shut,
 * its seat leaks a drop an hour, and what stands in a row with it does what it
 * does at rest: a pump stands at its shut-off pressure.
 *
 * @param opens_Pa difference of pressures at which it lifts, >= 0
 */
export function checkedLaw(law: LossLaw, opens_Pa = 0): LossLaw {
  const lifts = opens_Pa / SEAT_PA_S_PER_M3;
  const atRest_Pa = law(0).pressure_Pa;
  return (flow) => {
    if (flow < lifts) return { pressure_Pa: atRest_Pa + SEAT_PA_S_PER_M3 * flow, slope_PaSPerM3: SEAT_PA_S_PER_M3 };
    const open = law(flow - lifts);
    return { pressure_Pa: opens_Pa + open.pressure_Pa, slope_PaSPerM3: open.slope_PaSPerM3 };
  };
}

/** Past its limit a law lets a hundred-thousandth more pass at a bar: less would drown in rounding of the flow. */
const LIMIT_SLOPE_PA = 1e5 / 1e-5;

/**
 * Lets a law pass so much forward flow and next to no more.
 *
 * @param most_m3PerS > 0
 */
export function limitedLaw(law: LossLaw, most_m3PerS: number): LossLaw {
  const atMost_Pa = law(most_m3PerS).pressure_Pa;
  const slope = LIMIT_SLOPE_PA / most_m3PerS;
  return (flow) =>
    flow <= most_m3PerS ? law(flow) : { pressure_Pa: atMost_Pa + slope * (flow - most_m3PerS), slope_PaSPerM3: slope };
}

/** Laws in series at one flow add. */
export function seriesLaw(laws: readonly LossLaw[]): LossLaw {
  if (laws.length === 1) return laws[0]!;
  return (flow) => {
    let pressure_Pa = 0;
    let slope_PaSPerM3 = 0;
    for (const law of laws) {
      const loss = law(flow);
      pressure_Pa += loss.pressure_Pa;
      slope_PaSPerM3 += loss.slope_PaSPerM3;
    }
    return { pressure_Pa, slope_PaSPerM3 };
  };
}
