import {
  FLUIDS,
  type DensityLaw,
  type FluidKey,
  type ViscosityAnchor,
  type ViscosityLaw,
  type VapourLaw,
} from '../reference/fluids';
import { PSI_PA, ZERO_CELSIUS_K } from '../units';
import { failure, success, type Outcome } from '../outcome';

export type FluidState = {
  readonly density_kgPerM3: number;
  readonly viscosity_PaS: number;
  readonly kinematicViscosity_m2PerS: number;
  readonly vapourPressureAbs_Pa: number;
  /** Volume expansion for one kelvin [1/K]. */
  readonly expansion_perK: number;
  /** True outside the range in which the laws are said to hold. */
  readonly extrapolated: boolean;
};

/** A particular batch, where the builder knows better than the table. */
export type FluidBatch = {
  readonly key: FluidKey;
  readonly density15_kgPerM3?: number;
  readonly kinematicViscosityFactor?: number;
};

/** No liquid fuel line in this trade works outside -60 … +150 °C. */
const LOWEST_K = 213.15;
const HIGHEST_K = 423.15;
const EXPANSION_STEP_K = 0.5;

/**
 * Density, viscosity and vapour pressure of a fluid.
 *
 * @param batch         which fluid, and what is known of this batch
 * @param temperature_K 213.15 … 423.15; flagged as extrapolated outside the row's own range
 * @source each law names its own in reference/fluids.ts
 */
export function fluidState(batch: FluidBatch, temperature_K: number): Outcome<FluidState, 'temperature-range'> {
  if (!(temperature_K >= LOWEST_K && temperature_K <= HIGHEST_K)) {
    return failure('temperature-range', 'fuel temperature', 'Fluid properties are known from -60 to 150 °C only.');
  }
  const row = FLUIDS[batch.key];
  const density = densityAt(row.density, temperature_K, batch.density15_kgPerM3);
  const kinematic = viscosityAt(row.viscosity, temperature_K, density) * (batch.kinematicViscosityFactor ?? 1);
  const warmer = densityAt(row.density, temperature_K + EXPANSION_STEP_K, batch.density15_kgPerM3);
  const colder = densityAt(row.density, temperature_K - EXPANSION_STEP_K, batch.density15_kgPerM3);
  return success({
    density_kgPerM3: density,
    viscosity_PaS: kinematic * density,
    kinematicViscosity_m2PerS: kinematic,
    vapourPressureAbs_Pa: vapourAt(row.vapour, temperature_K),
    expansion_perK: (colder - warmer) / (2 * EXPANSION_STEP_K * density),
    extrapolated: temperature_K < row.validFrom_K || temperature_K > row.validTo_K,
  });
}

const BAR_PA = 1e5;
const REFERENCE_15_K = ZERO_CELSIUS_K + 15;

/** Density [kg/m³]; all but water from their density at 15 °C. */
export function densityAt(law: DensityLaw, temperature_K: number, density15?: number): number {
  if (law.law === 'water-kell') return waterDensity(temperature_K);
  const reference = density15 ?? law.density15_kgPerM3;
  if (law.law === 'linear') return reference - law.fall_kgPerM3K * (temperature_K - REFERENCE_15_K);
  return reference * volumeCorrection(reference, law.k0, law.k1, temperature_K);
}

/** Volume correction factor to 15 °C [-], generalized products. */
export function volumeCorrection(density15: number, k0: number, k1: number, temperature_K: number): number {
  const alpha = k0 / density15 ** 2 + k1 / density15;
  const warming = temperature_K - REFERENCE_15_K;
  return Math.exp(-alpha * warming * (1 + 0.8 * alpha * warming));
}

function waterDensity(temperature_K: number): number {
  const t = temperature_K - ZERO_CELSIUS_K;
  const numerator =
    999.83952 + t * (16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - t * 280.54253e-12))));
  return numerator / (1 + 16.87985e-3 * t);
}

/** Kinematic viscosity [m²/s]. */
export function viscosityAt(law: ViscosityLaw, temperature_K: number, density_kgPerM3: number): number {
  switch (law.law) {
    case 'water-iapws':
      return waterViscosity(temperature_K) / density_kgPerM3;
    case 'andrade':
      return Math.exp(throughAnchors(law.anchors, temperature_K, (t) => 1 / t, Math.log));
    case 'walther':
      return waltherInverse(throughAnchors(law.anchors, temperature_K, (t) => Math.log10(t), walther));
  }
}

/** The straight line through two anchors in transformed axes. */
function throughAnchors(
  anchors: readonly [ViscosityAnchor, ViscosityAnchor],
  temperature_K: number,
  x: (temperature_K: number) => number,
  y: (kinematic: number) => number,
): number {
  const [a, b] = anchors;
  const slope = (y(b.kinematic_m2PerS) - y(a.kinematic_m2PerS)) / (x(b.temperature_K) - x(a.temperature_K));
  return y(a.kinematic_m2PerS) + slope * (x(temperature_K) - x(a.temperature_K));
}

const MM2_PER_S = 1e-6;
const walther = (kinematic: number): number => Math.log10(Math.log10(kinematic / MM2_PER_S + 0.7));
const waltherInverse = (w: number): number => (10 ** (10 ** w) - 0.7) * MM2_PER_S;

function waterViscosity(temperature_K: number): number {
  const t = temperature_K / 300;
  return 1e-6 * (280.68 * t ** -1.9 + 511.45 * t ** -7.7 + 61.131 * t ** -19.6 + 0.45903 * t ** -40);
}

/** Vapour pressure, absolute [Pa]. */
export function vapourAt(law: VapourLaw, temperature_K: number): number {
  switch (law.law) {
    case 'petrol-rvp':
      return petrolVapour(law.reidVapourPressure_Pa / PSI_PA, law.slope_K, temperature_K * 1.8) * PSI_PA;
    case 'rankine-ab':
      return Math.exp(law.a - law.b_R / (temperature_K * 1.8)) * PSI_PA;
    case 'antoine':
      return 10 ** (law.a - law.b_K / (temperature_K + law.c_K)) * BAR_PA;
    case 'water-wagner':
      return waterVapour(temperature_K);
  }
}

function petrolVapour(reid_psi: number, slope: number, temperature_R: number): number {
  const root = Math.sqrt(slope);
  const log = Math.log10(reid_psi);
  return Math.exp(
    (0.7553 - 413 / temperature_R) * root * log -
      (1.854 - 1042 / temperature_R) * root +
      (2416 / temperature_R - 2.013) * log -
      8742 / temperature_R +
      15.64,
  );
}

const WATER_CRITICAL_K = 647.096;
const WATER_CRITICAL_PA = 22.064e6;

function waterVapour(temperature_K: number): number {
  const tau = 1 - temperature_K / WATER_CRITICAL_K;
  const series =
    -7.85951783 * tau +
    1.84408259 * tau ** 1.5 -
    11.7866497 * tau ** 3 +
    22.6807411 * tau ** 3.5 -
    15.9618719 * tau ** 4 +
    1.80122502 * tau ** 7.5;
  return WATER_CRITICAL_PA * Math.exp((WATER_CRITICAL_K / temperature_K) * series);
}
