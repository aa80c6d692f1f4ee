import { kernel } from './kernel';

/**
 * Darcy friction and fitting losses, written as pressure against flow with
 * the slope, so that the solver never meets a friction factor at zero flow.
 * The formulas stand in `kernel/friction.kernel.ts`.
 */

/** Below: laminar. */
export const LAMINAR_RE = 2000;
/** Above: Colebrook. Between the two the pressure curve is bridged smoothly. */
export const TURBULENT_RE = 4000;

export type Regime = 'still' | 'laminar' | 'transitional' | 'turbulent';

/** How a pipe flows at a Reynolds number. */
export function regimeOf(reynolds: number): Regime {
  if (reynolds < 1e-9) return 'still';
  return reynolds <= LAMINAR_RE ? 'laminar' : reynolds < TURBULENT_RE ? 'transitional' : 'turbulent';
}

/**
 * Darcy friction factor in turbulent flow, to rounding.
 *
 * @param reynolds          > 0, meant for 4000 and above
 * @param relativeRoughness roughness / bore, 0 … 0.05
 * @returns f [-]
 * @source C. F. Colebrook, J. Inst. Civ. Eng. 11 (1939); solved by Newton's
 * method from T. K. Serghides' explicit formula, Chemical Engineering 91 (1984) 63
 */
export const colebrook = (reynolds: number, relativeRoughness: number): number =>
  kernel().colebrookRoot(reynolds, relativeRoughness) ** -2;

/**
 * f Re² and its derivative with Re, continuous and rising from creeping to
 * rough flow. In it pressure is rho nu² / (2 D³) L times f Re².
 *
 * Laminar to 2000, Colebrook from 4000, and between them a cubic in
 * logarithms that meets both in value and slope (no law exists there; flow
 * may be either).
 *
 * @param bridge of this roughness
 */
export function frictionNumber(
  reynolds: number,
  relativeRoughness: number,
  bridge = bridgeOf(relativeRoughness),
): { value: number; slope: number } {
  const { friction, frictionSlope } = kernel();
  return { value: friction(reynolds, relativeRoughness, bridge.end, bridge.slope), slope: frictionSlope.value };
}

const BRIDGES_KEPT = 64;
const bridges = new Map<number, Bridge>();

/** Where the cubic from laminar flow meets Colebrook's curve, in logarithms: the same for every line of a roughness. */
export type Bridge = { readonly end: number; readonly slope: number };

/** Ends of the bridge between laminar and turbulent flow at a roughness relative to the bore. */
export function bridgeOf(relativeRoughness: number): Bridge {
  const kept = bridges.get(relativeRoughness);
  if (kept) return kept;
  // There the kernel goes by Colebrook, whatever the bridge.
  const { value, slope } = frictionNumber(TURBULENT_RE, relativeRoughness, { end: 0, slope: 0 });
  const made = { end: Math.log(value), slope: (Math.log(TURBULENT_RE / LAMINAR_RE) * TURBULENT_RE * slope) / value };
  if (bridges.size >= BRIDGES_KEPT) bridges.clear();
  bridges.set(relativeRoughness, made);
  return made;
}

/** Darcy friction factor at any Reynolds number > 0, for showing. */
export const frictionFactor = (reynolds: number, relativeRoughness: number): number =>
  frictionNumber(reynolds, relativeRoughness).value / (reynolds * reynolds);

/** Area of a round bore [m²]. */
export const boreArea_m2 = (bore_m: number): number => (Math.PI / 4) * bore_m * bore_m;

/** Reynolds number of a flow in a round bore; its parts in SI. */
export const reynoldsNumber = (flow_m3PerS: number, bore_m: number, kinematicViscosity_m2PerS: number): number =>
  (4 * Math.abs(flow_m3PerS)) / (Math.PI * bore_m * kinematicViscosity_m2PerS);
