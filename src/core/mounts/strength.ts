import { BOLTS, BOLT_CLASS_ROWS, RIVET_NUTS, type BoltClass, type BoltHeld, type BoltSize } from '../reference/bolts';
import { MOUNT_STOCKS, type MountStock } from '../reference/mountStock';

/** Shear at which a metal gives, of the pull at which it gives. @source von Mises' yield criterion */
const SHEAR_SHARE = 1 / Math.sqrt(3);
/** Partial factor of joints. @source EN 1993-1-8, gamma M2 */
const JOINT_FACTOR = 1.25;
const MPA = 1e6;

/** What is held by screws and crushed by washers. */
export const isWood = (stock: MountStock): boolean => stock === 'plywood' || stock === 'hardwood';

/**
 * Area that carries a bolt's pull [m²].
 * @source ISO 898-1: pi/4 (d - 0.9382 P)^2; ASME B1.1: pi/4 (d - 0.9743 P)^2
 */
export function stressArea_m2(size: BoltSize): number {
  const { diameter_m, pitch_m } = BOLTS[size];
  return (Math.PI / 4) * (diameter_m - (size.startsWith('M') ? 0.9382 : 0.9743) * pitch_m) ** 2;
}

/** Pull that a bolt comes back from [N]. @source ISO 898-1, SAE J429: proof stress on the stress area */
export const boltProof_N = (size: BoltSize, of: BoltClass): number =>
  stressArea_m2(size) * BOLT_CLASS_ROWS[of].proof_Pa;

/**
 * The part of what a bolt bears that pull and shear together take; over 1 it gives. The thread is taken to lie in the
 * plane of shear.
 * @source von Mises' criterion on the stress area
 */
export function boltUse_ratio(size: BoltSize, of: BoltClass, pull_N: number, shear_N: number): number {
  const pulled = Math.max(0, pull_N);
  return Math.hypot(pulled, Math.sqrt(3) * shear_N) / boltProof_N(size, of);
}

/** Of its proof load, to which a bolt is tightened that is taken out again. @source common practice (Shigley) */
const TIGHTENED = 0.75;
/** Torque by pull and diameter of a dry, plated thread. @source common practice (Shigley: 0.2) */
const NUT_FACTOR = 0.2;
/** The torque that tightens a bolt to three quarters of its proof load, dry [N m]. */
export const tightening_Nm = (size: BoltSize, of: BoltClass): number =>
  NUT_FACTOR * TIGHTENED * boltProof_N(size, of) * BOLTS[size].diameter_m;

/** Of a thread's length, what its roots take up at the bolt's outer diameter. @source ISO 68-1, basic profile: 7/8 */
const ROOT_SHARE = 7 / 8;
/** A wire insert's thread in the metal round it is wider than the bolt by so much. @source common practice */
const INSERT_WIDER = 1.25;

/**
 * Pull at which the thread that holds a bolt gives [N]; Infinity for a nut,
 * which is as strong as its bolt, and undefined where a table has none.
 *
 * @param thickness_m of what it is cut in or screwed into
 * @source ISO 68-1's basic profile sheared at its major diameter; wood: EN 1995-1-1, 8.7.2 (from memory), along its
 * grain's worst way
 */
export function threadHolds_N(
  held: BoltHeld,
  size: BoltSize,
  stock: MountStock,
  thickness_m: number,
): number | undefined {
  const { diameter_m } = BOLTS[size];
  const { yield_Pa, density_kgPerM3 } = MOUNT_STOCKS[stock];
  const sheared = (d: number): number => ROOT_SHARE * Math.PI * d * thickness_m * SHEAR_SHARE * yield_Pa;
  switch (held) {
    case 'nut':
      return Infinity;
    case 'tapped':
      return sheared(diameter_m);
    case 'insert':
      return sheared(INSERT_WIDER * diameter_m);
    case 'rivet-nut': {
      const row = RIVET_NUTS.find((one) => one.size === size);
      // In thinner sheet its collar pulls through the sheet before it lets go.
      return row && Math.min(row.pull_N, Math.PI * row.flange_m * thickness_m * SHEAR_SHARE * yield_Pa);
    }
    case 'wood-screw':
      // 20e-6 ρ² N/mm² over diameter and length in the wood, in mm.
      return isWood(stock) ? 20e-6 * density_kgPerM3 ** 2 * (1e3 * diameter_m) * (1e3 * thickness_m) : undefined;
  }
}

/**
 * Sideways force at which a bolt's hole in a plate gives: pressed longer, or torn out to the edge [N].
 *
 * @param edge_m from the bolt's middle to the edge it is pulled towards
 * @source metal: EN 1993-1-8 table 3.4, k1 = 2.5 and alpha_b = e1 / 3 d0, at most 1; plywood: EN 1995-1-1 (8.20);
 * hardwood: (8.16); fibreglass as metal, as ISO 12215-5's ultimate tensile stress, from memory
 */
export function bearing_N(stock: MountStock, thickness_m: number, size: BoltSize, edge_m: number): number {
  const { diameter_m: d, hole_m } = BOLTS[size];
  const { breaks_Pa, density_kgPerM3 } = MOUNT_STOCKS[stock];
  const mm = 1e3 * d;
  const edge_ratio = Math.min(1, edge_m / (3 * hole_m));
  if (stock === 'plywood')
    return 0.11 * (1 - 0.01 * mm) * density_kgPerM3 * mm ** -0.3 * MPA * d * thickness_m * edge_ratio;
  if (stock === 'hardwood') return 0.082 * (1 - 0.01 * mm) * density_kgPerM3 * MPA * d * thickness_m * edge_ratio;
  const k1 = stock === 'fibreglass' ? 1 : 2.5;
  return (k1 * edge_ratio * breaks_Pa * d * thickness_m) / JOINT_FACTOR;
}

/** Washers are so much wider than their bolt. @source common practice: large washers on wood and fibreglass */
const WASHER_WIDE = 3;
/** Pressed across its grain or layers: stress that it bears under a washer [Pa]. */
const ACROSS_PA: Partial<Readonly<Record<MountStock, number>>> = { plywood: 4 * MPA, hardwood: 5 * MPA };

/**
 * Pull at which a washer goes through what it lies on [N].
 * @source wood: EN 1995-1-1, 8.5.2: three times what it bears across its grain, under the washer; sheet: sheared round
 * the washer
 */
export function pullThrough_N(stock: MountStock, thickness_m: number, size: BoltSize): number {
  const { diameter_m, hole_m, flats_m } = BOLTS[size];
  const across = ACROSS_PA[stock];
  const washer_m = across || stock === 'fibreglass' ? WASHER_WIDE * diameter_m : 1.1 * flats_m;
  if (across) return 3 * across * (Math.PI / 4) * (washer_m ** 2 - hole_m ** 2);
  return Math.PI * washer_m * thickness_m * SHEAR_SHARE * MOUNT_STOCKS[stock].yield_Pa;
}

/** How much of a weld's own strength counts. @source EN 1993-1-8 table 4.1 for S235; others taken whole */
const weldShare = (stock: MountStock): number => (stock === 'mild-steel' ? 0.8 : 1);

/**
 * Force that a fillet weld bears, whichever way it pulls [N]; undefined for what is not welded.
 * @source EN 1993-1-8, 4.5.3.3 (simplified): breaking stress over root 3, beta w and gamma M2, on throat by length; of
 * aluminium what is left beside a weld
 */
export function weld_N(stock: MountStock, throat_m: number, length_m: number): number | undefined {
  const { beside } = MOUNT_STOCKS[stock];
  return beside && ((beside.breaks_Pa * SHEAR_SHARE) / (weldShare(stock) * JOINT_FACTOR)) * throat_m * length_m;
}

/**
 * Force on the end of a flat arm at which it takes a bend for good [N].
 * @source elastic beams: yield x b t^2 / 6 / arm
 */
export function armBends_N(yield_Pa: number, width_m: number, thickness_m: number, arm_m: number): number {
  return (yield_Pa * width_m * thickness_m ** 2) / (6 * arm_m);
}

/** Stiffness of a flat arm at its end, clamped at the other [N/m]. @source elastic beams: 3 E I / L^3 */
export const armStiffness_NPerM = (modulus_Pa: number, width_m: number, thickness_m: number, arm_m: number): number =>
  (modulus_Pa * width_m * thickness_m ** 3) / (4 * arm_m ** 3);

/** Pull at which a strap takes a stretch for good, beside a hole in it [N]. */
export const strapHolds_N = (stock: MountStock, width_m: number, thickness_m: number, hole_m: number): number =>
  MOUNT_STOCKS[stock].yield_Pa * Math.max(0, width_m - hole_m) * thickness_m;

/** By the longer side over the shorter: stress under a load in the middle. */
const PLATE = {
  ratio: [1, 1.2, 1.4, 1.6, 1.8, 2, Infinity],
  beta: [0.435, 0.65, 0.789, 0.875, 0.927, 0.958, 1],
} as const;
const POISSON = 0.3;

/** A panel that rests on its four edges, pressed or pulled in its middle on a small round place. */
export type PressedPanel = {
  readonly long_m: number;
  readonly short_m: number;
  readonly thickness_m: number;
  /** Of the place that is pressed. */ readonly radius_m: number;
};

function betaOf({ long_m, short_m }: PressedPanel): number {
  const ratio = Math.max(1, long_m / short_m);
  const next = PLATE.ratio.findIndex((each) => each >= ratio);
  if (next <= 0) return PLATE.beta[0];
  const [low, high] = [PLATE.ratio[next - 1]!, PLATE.ratio[next]!];
  // Beyond the table it tends to the last as one over the ratio does.
  const t = high === Infinity ? 1 - low / ratio : (ratio - low) / (high - low);
  return PLATE.beta[next - 1]! + t * (PLATE.beta[next]! - PLATE.beta[next - 1]!);
}

/**
 * Greatest bending stress of a panel under a force on a small place in its middle [Pa].
 * @source Roark's Formulas for Stress and Strain, table 11.4 case 1b (all edges simply supported, load on a small
 * concentric circle), from memory; a radius smaller than half the thickness counts as more
 */
export function pressed_Pa(panel: PressedPanel, force_N: number): number {
  const { short_m: b, thickness_m: t, radius_m } = panel;
  const small = radius_m < 0.5 * t ? Math.sqrt(1.6 * radius_m ** 2 + t ** 2) - 0.675 * t : radius_m;
  const r = Math.min(small, b / 2);
  return ((3 * force_N) / (2 * Math.PI * t ** 2)) * ((1 + POISSON) * Math.log((2 * b) / (Math.PI * r)) + betaOf(panel));
}
