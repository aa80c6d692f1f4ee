import { sourced, type Sourced } from './provenance';

/**
 * Two-K loss coefficients: K = K1 / Re + Kinf (1 + 1 / D), D in inches.
 * They hold from creeping flow to fully turbulent, which is what small fuel
 * lines need; a single K from a handbook for water pipes does not.
 */
export type FittingKey =
  | 'elbow-90' | 'elbow-90-long' | 'elbow-45' | 'bend-180' | 'tee-through' | 'tee-branch'
  | 'ball-valve' | 'gate-valve' | 'globe-valve' | 'needle-valve' | 'entrance-sharp' | 'entrance-inward' | 'exit' | 'barb-step' | 'check-swing' | 'check-lift';

export type FittingRow = Sourced & {
  readonly key: FittingKey;
  readonly name: string;
  readonly k1: number;
  readonly kInfinity: number;
  /** True where Kinf carries the 1/D size term; entrances and exits do not. */
  readonly sized: boolean;
};

const HOOPER = sourced('from memory', 'W. B. Hooper, "The two-K method predicts head losses in pipe fittings", Chemical Engineering, 24 Aug. 1981');

const row = (key: FittingKey, name: string, k1: number, kInfinity: number, sized = true): FittingRow => ({ key, name, k1, kInfinity, sized, ...HOOPER });

export const FITTINGS: Readonly<Record<FittingKey, FittingRow>> = {
  'elbow-90': row('elbow-90', '90° elbow, screwed', 800, 0.4),
  'elbow-90-long': row('elbow-90-long', '90° bend, long radius', 800, 0.2),
  'elbow-45': row('elbow-45', '45° elbow', 500, 0.2),
  'bend-180': row('bend-180', '180° bend, screwed', 1000, 0.6),
  'tee-through': row('tee-through', 'tee, straight through', 200, 0.1),
  'tee-branch': row('tee-branch', 'tee, round the corner', 500, 0.7),
  'ball-valve': row('ball-valve', 'ball valve, full bore, open', 300, 0.1),
  'gate-valve': row('gate-valve', 'gate valve, full bore, open', 300, 0.1),
  'globe-valve': row('globe-valve', 'globe valve, open', 1500, 4),
  'needle-valve': row('needle-valve', 'angle or needle valve, open', 1000, 2),
  'entrance-sharp': row('entrance-sharp', 'sharp flush inlet', 160, 0.5, false),
  'entrance-inward': row('entrance-inward', 'inlet of a tube standing in the tank', 160, 1, false),
  exit: row('exit', 'outlet into a tank or bowl', 0, 1, false),
  'barb-step': {
    key: 'barb-step', name: 'hose barb (bore steps down and up)', k1: 300, kInfinity: 0.8, sized: false,
    ...sourced('common practice', 'sudden contraction and expansion to 0.8 of the bore, Borda-Carnot: 0.5 (1 - b²)/b⁴ + (1/b² - 1)², rounded') },
  'check-swing': row('check-swing', 'swing check valve, open', 1500, 1.5),
  'check-lift': row('check-lift', 'lift check valve, open', 2000, 10),
};

/** Absolute roughness of a line's inside [m]. */
export type RoughnessKey = 'drawn-tube' | 'hose' | 'steel-pipe' | 'plastic';

export const ROUGHNESS: Readonly<Record<RoughnessKey, Sourced & { readonly name: string; readonly roughness_m: number }>> = {
  'drawn-tube': { name: 'drawn tube', roughness_m: 1.5e-6, ...sourced('from memory', 'L. F. Moody, Trans. ASME 66 (1944): drawn tubing 0.000005 ft') },
  hose: { name: 'rubber hose', roughness_m: 10e-6, ...sourced('common practice', 'smooth rubber 0.006 to 0.07 mm in handbooks; low end for extruded fuel hose') },
  'steel-pipe': { name: 'steel pipe', roughness_m: 45.7e-6, ...sourced('from memory', 'L. F. Moody, Trans. ASME 66 (1944): commercial steel 0.00015 ft') },
  plastic: { name: 'plastic tube', roughness_m: 1.5e-6, ...sourced('from memory', 'taken as drawn tubing, Moody 1944') },
};
