/**
 * Darcy friction and fitting losses, written as pressure against flow with
 * the slope, so that the solver never meets a friction factor at zero flow.
 */

/** Below: laminar. */
export const LAMINAR_RE = 2000;
/** Above: Colebrook. Between the two the pressure curve is bridged smoothly. */
export const TURBULENT_RE = 4000;

export type Regime = 'still' | 'laminar' | 'transitional' | 'turbulent';

export function regimeOf(reynolds: number): Regime {
  if (reynolds < 1e-9) return 'still';
  return reynolds <= LAMINAR_RE ? 'laminar' : reynolds < TURBULENT_RE ? 'transitional' : 'turbulent';
}

const COLEBROOK_STEPS = 8;
const TWO_PER_LN10 = 2 / Math.LN10;
/** Newton's method doubles the digits: a change this small leaves nothing but rounding. */
const COLEBROOK_SMALL = 1e-8;

/**
 * 1 / sqrt(f) of Colebrook's formula, to rounding.
 * @source Newton's method on 1/sqrt(f), from T. K. Serghides' explicit formula, Chemical Engineering 91 (1984) 63
 */
function colebrookRoot(reynolds: number, relativeRoughness: number): number {
  const a = relativeRoughness / 3.7;
  const b = 2.51 / reynolds;
  const first = -TWO_PER_LN10 * Math.log(a + 12 / reynolds);
  let x = -TWO_PER_LN10 * Math.log(a + b * first);
  for (let step = 0; step < COLEBROOK_STEPS; step++) {
    const inside = a + b * x;
    const change = (x + TWO_PER_LN10 * Math.log(inside)) / (1 + (TWO_PER_LN10 * b) / inside);
    x -= change;
    if (Math.abs(change) <= COLEBROOK_SMALL * x) break;
  }
  return x;
}

/**
 * Darcy friction factor in turbulent flow, to rounding.
 *
 * @param reynolds          > 0, meant for 4000 and above
 * @param relativeRoughness roughness / bore, 0 … 0.05
 * @returns f [-]
 * @source C. F. Colebrook, J. Inst. Civ. Eng. 11 (1939)
 */
export const colebrook = (reynolds: number, relativeRoughness: number): number => colebrookRoot(reynolds, relativeRoughness) ** -2;

/** d ln f / d ln Re of Colebrook's f, by implicit differentiation; x is 1 / sqrt(f). */
function colebrookSlope(reynolds: number, relativeRoughness: number, x: number): number {
  const b = 2.51 / reynolds;
  const lever = (TWO_PER_LN10 * b) / (relativeRoughness / 3.7 + b * x);
  return (-2 * lever) / (1 + lever);
}

/**
 * f Re² and its derivative with Re, continuous and rising from creeping to
 * rough flow. In it pressure is rho nu² / (2 D³) L times f Re².
 *
 * Laminar to 2000, Colebrook from 4000, and between them a cubic in
 * logarithms that meets both in value and slope (no law exists there; flow
 * may be either).
 */
export function frictionNumber(reynolds: number, relativeRoughness: number): { value: number; slope: number } {
  if (reynolds <= LAMINAR_RE) return { value: 64 * reynolds, slope: 64 };
  if (reynolds < TURBULENT_RE) return bridged(reynolds, relativeRoughness);
  const x = colebrookRoot(reynolds, relativeRoughness);
  const value = (reynolds / x) ** 2;
  return { value, slope: (value / reynolds) * (2 + colebrookSlope(reynolds, relativeRoughness, x)) };
}

const SPAN = Math.log(TURBULENT_RE / LAMINAR_RE);
const BRIDGE_START = Math.log(64 * LAMINAR_RE);
const BRIDGES_KEPT = 64;
const bridges = new Map<number, { readonly end: number; readonly slope: number }>();

/** Where the bridge meets Colebrook's curve, in logarithms: the same for every line of a roughness. */
function bridgeEnd(relativeRoughness: number): { readonly end: number; readonly slope: number } {
  const kept = bridges.get(relativeRoughness);
  if (kept) return kept;
  const x = colebrookRoot(TURBULENT_RE, relativeRoughness);
  const made = { end: 2 * Math.log(TURBULENT_RE / x), slope: SPAN * (2 + colebrookSlope(TURBULENT_RE, relativeRoughness, x)) };
  if (bridges.size >= BRIDGES_KEPT) bridges.clear();
  bridges.set(relativeRoughness, made);
  return made;
}

function bridged(reynolds: number, relativeRoughness: number): { value: number; slope: number } {
  const { end, slope } = bridgeEnd(relativeRoughness);
  const y = hermite(Math.log(reynolds / LAMINAR_RE) / SPAN, BRIDGE_START, end, SPAN, slope);
  const value = Math.exp(y.value);
  return { value, slope: (value * y.slope) / (SPAN * reynolds) };
}

/** Cubic through two ends with given slopes; t in 0 … 1. */
function hermite(t: number, y0: number, y1: number, m0: number, m1: number): { value: number; slope: number } {
  const t2 = t * t;
  const t3 = t2 * t;
  return {
    value: (2 * t3 - 3 * t2 + 1) * y0 + (t3 - 2 * t2 + t) * m0 + (-2 * t3 + 3 * t2) * y1 + (t3 - t2) * m1,
    slope: (6 * t2 - 6 * t) * y0 + (3 * t2 - 4 * t + 1) * m0 + (-6 * t2 + 6 * t) * y1 + (3 * t2 - 2 * t) * m1,
  };
}

/** Darcy friction factor at any Reynolds number > 0, for showing. */
export const frictionFactor = (reynolds: number, relativeRoughness: number): number =>
  frictionNumber(reynolds, relativeRoughness).value / (reynolds * reynolds);

export const boreArea_m2 = (bore_m: number): number => (Math.PI / 4) * bore_m * bore_m;

export const reynoldsNumber = (flow_m3PerS: number, bore_m: number, kinematicViscosity_m2PerS: number): number =>
  (4 * Math.abs(flow_m3PerS)) / (Math.PI * bore_m * kinematicViscosity_m2PerS);
