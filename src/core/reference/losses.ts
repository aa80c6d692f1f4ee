import { sourced, type Sourced } from './provenance';

/**
 * Two-K loss coefficients: K = K1 / Re + Kinf (1 + 1 / D), D in inches.
 * They hold from creeping flow to fully turbulent, which is what small fuel
 * lines need; a single K from a handbook for water pipes does not.
 */
export type FittingKey =
  | 'elbow-90'
  | 'elbow-90-long'
  | 'elbow-45'
  | 'bend-180'
  | 'tee-through'
  | 'tee-branch'
  | 'ball-valve'
  | 'gate-valve'
  | 'globe-valve'
  | 'needle-valve'
  | 'entrance-sharp'
  | 'entrance-inward'
  | 'exit'
  | 'banjo'
  | 'swivel'
  | 'bulkhead'
  | 'reducer'
  | 'barb-step'
  | 'check-swing'
  | 'check-lift';

export type FittingRow = Sourced & {
  readonly key: FittingKey;
  readonly name: string;
  readonly k1: number;
  readonly kInfinity: number;
  /** True where Kinf carries the 1/D size term; entrances and exits do not. */
  readonly sized: boolean;
  /** Three-K: K = K1 / Re + Ki (1 + Kd / D^0.3), D in inches. */
  readonly threeK?: Sourced & { readonly k1: number; readonly ki: number; readonly kd: number };
};

const HOOPER = sourced(
  'from memory',
  'W. B. Hooper, "The two-K method predicts head losses in pipe fittings", Chemical Engineering, 24 Aug. 1981',
);

const DARBY = sourced(
  'from memory',
  'R. Darby, Chemical Engineering Fluid Mechanics, 2nd ed. (2001), table 7-3, threaded fittings',
);

const row = (key: FittingKey, name: string, k1: number, kInfinity: number, sized = true): FittingRow => ({
  key,
  name,
  k1,
  kInfinity,
  sized,
  ...HOOPER,
});
const both = (
  key: FittingKey,
  name: string,
  k1: number,
  kInfinity: number,
  three: readonly [k1: number, ki: number, kd: number],
): FittingRow => ({ ...row(key, name, k1, kInfinity), threeK: { k1: three[0], ki: three[1], kd: three[2], ...DARBY } });

export const FITTINGS: Readonly<Record<FittingKey, FittingRow>> = {
  'elbow-90': both('elbow-90', '90° elbow, screwed', 800, 0.4, [800, 0.14, 4.0]),
  'elbow-90-long': both('elbow-90-long', '90° bend, long radius', 800, 0.2, [800, 0.071, 4.2]),
  'elbow-45': both('elbow-45', '45° elbow', 500, 0.2, [500, 0.071, 4.2]),
  'bend-180': both('bend-180', '180° bend, screwed', 1000, 0.6, [1000, 0.23, 4.0]),
  'tee-through': both('tee-through', 'tee, straight through', 200, 0.1, [200, 0.091, 4.0]),
  'tee-branch': both('tee-branch', 'tee, round the corner', 500, 0.7, [500, 0.274, 4.0]),
  'ball-valve': both('ball-valve', 'ball valve, full bore, open', 300, 0.1, [300, 0.017, 3.5]),
  'gate-valve': both('gate-valve', 'gate valve, full bore, open', 300, 0.1, [300, 0.037, 3.9]),
  'globe-valve': both('globe-valve', 'globe valve, open', 1500, 4, [1500, 1.7, 3.6]),
  'needle-valve': both('needle-valve', 'angle or needle valve, open', 1000, 2, [1000, 0.69, 4.0]),
  'entrance-sharp': row('entrance-sharp', 'sharp flush inlet', 160, 0.5, false),
  'entrance-inward': row('entrance-inward', 'inlet of a tube standing in the tank', 160, 1, false),
  banjo: {
    key: 'banjo',
    name: 'banjo (through the bolt and its cross holes)',
    k1: 1000,
    kInfinity: 2.4,
    sized: false,
    ...sourced(
      'common practice',
      'two turns and a pair of holes that are narrower than the line: a 90° turn, an inlet and an outlet, added up',
    ),
  },
  swivel: row('swivel', 'swivel or union, straight', 200, 0.05),
  bulkhead: row('bulkhead', 'bulkhead fitting, straight through', 200, 0.05),
  reducer: {
    key: 'reducer',
    name: 'reducer to half the area (on the narrow side)',
    k1: 160,
    kInfinity: 0.25,
    sized: false,
    ...sourced(
      'derived',
      'sudden contraction, 0.5 (1 - area ratio), at half the area: Borda-Carnot with Weisbach’s factor',
    ),
  },
  exit: row('exit', 'outlet into a tank or bowl', 0, 1, false),
  'barb-step': {
    key: 'barb-step',
    name: 'hose barb (bore steps down and up)',
    k1: 300,
    kInfinity: 0.8,
    sized: false,
    ...sourced(
      'common practice',
      'sudden contraction and expansion to 0.8 of the bore, Borda-Carnot: 0.5 (1 - b²)/b⁴ + (1/b² - 1)², rounded',
    ),
  },
  'check-swing': both('check-swing', 'swing check valve, open', 1500, 1.5, [1500, 0.46, 4.0]),
  'check-lift': both('check-lift', 'lift check valve, open', 2000, 10, [2000, 2.85, 3.8]),
};

/** The schools of reckoning small fittings. */
export const LOSS_METHODS = ['two-k', 'three-k'] as const;
export type LossMethod = (typeof LOSS_METHODS)[number];

/** A fitting's K's by a method; the two-K ones where the third is not known. */
export function fittingKs(
  key: FittingKey,
  method: LossMethod,
): { readonly k1: number; readonly kInfinity: number; readonly sized: boolean; readonly kd?: number } {
  const { k1, kInfinity, sized, threeK } = FITTINGS[key];
  return method === 'three-k' && threeK
    ? { k1: threeK.k1, kInfinity: threeK.ki, sized: true, kd: threeK.kd }
    : { k1, kInfinity, sized };
}

/** Absolute roughness of a line's inside [m]. */
export type RoughnessKey = 'drawn-tube' | 'hose' | 'steel-pipe' | 'plastic';

export const ROUGHNESS: Readonly<
  Record<RoughnessKey, Sourced & { readonly name: string; readonly roughness_m: number }>
> = {
  'drawn-tube': {
    name: 'drawn tube',
    roughness_m: 1.5e-6,
    ...sourced('from memory', 'L. F. Moody, Trans. ASME 66 (1944): drawn tubing 0.000005 ft'),
  },
  hose: {
    name: 'rubber hose',
    roughness_m: 10e-6,
    ...sourced('common practice', 'smooth rubber 0.006 to 0.07 mm in handbooks; low end for extruded fuel hose'),
  },
  'steel-pipe': {
    name: 'steel pipe',
    roughness_m: 45.7e-6,
    ...sourced('from memory', 'L. F. Moody, Trans. ASME 66 (1944): commercial steel 0.00015 ft'),
  },
  plastic: {
    name: 'plastic tube',
    roughness_m: 1.5e-6,
    ...sourced('from memory', 'taken as drawn tubing, Moody 1944'),
  },
};
