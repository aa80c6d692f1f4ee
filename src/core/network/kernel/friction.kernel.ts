/** Friction in round lines, in AssemblyScript; `friction.ts` is the door and says where it comes from. */

const LAMINAR_RE: f64 = 2000;
const TURBULENT_RE: f64 = 4000;

const COLEBROOK_STEPS: i32 = 8;
const TWO_PER_LN10: f64 = 2 / Math.LN10;
/** Newton's method doubles the digits: a change this small leaves nothing but rounding. */
const COLEBROOK_SMALL: f64 = 1e-8;

/** 1 / sqrt(f) of Colebrook's formula, to rounding: Newton's method on it, from Serghides' explicit formula. */
export function colebrookRoot(reynolds: f64, relativeRoughness: f64): f64 {
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

/** Derivative of the last friction number with Re. */
export let frictionSlope: f64 = 0;

/** f Re²; the bridge is where the cubic from laminar flow meets Colebrook's curve of this roughness, in logarithms. */
export function friction(reynolds: f64, relativeRoughness: f64, bridgeEnd: f64, bridgeSlope: f64): f64 {
  if (reynolds <= LAMINAR_RE) {
    frictionSlope = 64;
    return 64 * reynolds;
  }
  if (reynolds < TURBULENT_RE) return bridged(reynolds, bridgeEnd, bridgeSlope);
  const x = colebrookRoot(reynolds, relativeRoughness);
  const value = (reynolds / x) * (reynolds / x);
  // d ln f / d ln Re by implicit differentiation.
  const lever = (TWO_PER_LN10 * 2.51) / reynolds / (relativeRoughness / 3.7 + (2.51 / reynolds) * x);
  frictionSlope = (value / reynolds) * (2 - (2 * lever) / (1 + lever));
  return value;
}

const SPAN: f64 = Math.log(TURBULENT_RE / LAMINAR_RE);
const BRIDGE_START: f64 = Math.log(64 * LAMINAR_RE);

/** Cubic in logarithms through both ends with their slopes; that of the laminar end is SPAN, since there f Re² goes with Re. */
function bridged(reynolds: f64, end: f64, slope: f64): f64 {
  const t = Math.log(reynolds / LAMINAR_RE) / SPAN;
  const t2 = t * t;
  const t3 = t2 * t;
  const value = Math.exp((2 * t3 - 3 * t2 + 1) * BRIDGE_START + (t3 - 2 * t2 + t) * SPAN + (3 * t2 - 2 * t3) * end + (t3 - t2) * slope);
  const rises = 6 * (t2 - t) * (BRIDGE_START - end) + (3 * t2 - 4 * t + 1) * SPAN + (3 * t2 - 2 * t) * slope;
  frictionSlope = (value * rises) / (SPAN * reynolds);
  return value;
}
