import { sourced, type Sourced } from './provenance';

/** How hard a load is thrown each way. */
export const SHOCK_KINDS = [
  'road',
  'trailer',
  'off-road',
  'boat',
  'fast-boat',
  'snow',
  'competition',
  'carried',
] as const;
export type ShockKind = (typeof SHOCK_KINDS)[number];

/**
 * Accelerations that the tank is thrown with, in standard gravities: forward as
 * the vehicle stops, and so on; down with its own weight counted in, up beyond it.
 */
export type ShockRow = Sourced & {
  readonly name: string;
  readonly fore_g: number;
  readonly aft_g: number;
  readonly side_g: number;
  readonly up_g: number;
  readonly down_g: number;
  /** What to say of it. */ readonly note: string;
};

const FATIGUE = 'Shocks come by the million: a part that just bears one cracks in a season, hence the factor.';
export const SHOCKS: Readonly<Record<ShockKind, ShockRow>> = {
  road: {
    name: 'road vehicle',
    fore_g: 0.8,
    aft_g: 0.5,
    side_g: 0.5,
    up_g: 0.2,
    down_g: 2,
    note: `What holds cargo on a highway must bear this; a crash is many times more. ${FATIGUE}`,
    ...sourced(
      'from memory',
      '49 CFR 393.102 (0.8 g fore, 0.5 g aft and sideways, a fifth of the weight upward); down: common practice',
    ),
  },
  trailer: {
    name: 'trailer',
    fore_g: 0.8,
    aft_g: 0.5,
    side_g: 0.5,
    up_g: 0.5,
    down_g: 3,
    note: `Trailers have hard springs and jump. ${FATIGUE}`,
    ...sourced('from memory', '49 CFR 393.102 along and across; up and down: common practice'),
  },
  'off-road': {
    name: 'off the road',
    fore_g: 2,
    aft_g: 1.5,
    side_g: 1.5,
    up_g: 1,
    down_g: 4,
    note: `A wheel in a hole stops the vehicle, and it lands on four. ${FATIGUE}`,
    ...sourced('common practice', 'chassis builders take 3 to 4 g down and 1.5 to 2 g along and across'),
  },
  boat: {
    name: 'boat at displacement speed',
    fore_g: 1,
    aft_g: 0.5,
    side_g: 0.7,
    up_g: 0.5,
    down_g: 2,
    note: `Rolling to 45 degrees is 0.7 g to the side. ${FATIGUE}`,
    ...sourced('common practice', 'heel of 45 degrees; grounding and seas forward'),
  },
  'fast-boat': {
    name: 'planing boat',
    fore_g: 2,
    aft_g: 1,
    side_g: 1,
    up_g: 1,
    down_g: 4,
    note: `A hull that leaves the water lands hard, and stuffs its bow. ${FATIGUE}`,
    ...sourced('common practice', 'small planing craft are designed for 3 to 6 g down at the tank'),
  },
  snow: {
    name: 'tracked or snow vehicle',
    fore_g: 2,
    aft_g: 1,
    side_g: 1.5,
    up_g: 1,
    down_g: 4,
    note: `Moguls lift it and drop it, and it may roll. ${FATIGUE}`,
    ...sourced('common practice', 'as off the road'),
  },
  competition: {
    name: 'competition',
    fore_g: 4,
    aft_g: 2,
    side_g: 3,
    up_g: 2,
    down_g: 4,
    note: `The event’s own rules decide, and may ask for many times more. ${FATIGUE}`,
    ...sourced('common practice', 'a hard landing and a kerb; rulebooks state their own'),
  },
  carried: {
    name: 'carried, stood down, on a bench',
    fore_g: 0.5,
    aft_g: 0.5,
    side_g: 0.5,
    up_g: 0,
    down_g: 1.5,
    note: 'A knock and a hard set-down, no driving.',
    ...sourced('common practice', 'what hands and a cart do'),
  },
};

/** How much more than the worst shock the weakest part is to bear. */
export const FACTOR_SCHOOLS = ['cargo', 'builder', 'fatigue'] as const;
export type FactorSchool = (typeof FACTOR_SCHOOLS)[number];
export type FactorRow = Sourced & { readonly name: string; readonly factor: number; readonly because: string };
export const FACTORS: Readonly<Record<FactorSchool, FactorRow>> = {
  cargo: {
    name: '1.5: lashed for a trip',
    factor: 1.5,
    because: 'What is checked before each trip may be nearer to its limit.',
    ...sourced('common practice', 'margin to the stress that it comes back from'),
  },
  builder: {
    name: '2: removable straps and bolts',
    factor: 2,
    because: 'Loads are guessed, and parts are bought without papers.',
    ...sourced('common practice', 'margin to the stress that it comes back from'),
  },
  fatigue: {
    name: '3: welded, shaken for years',
    factor: 3,
    because: 'Welds and bends crack at a third of what they bear once.',
    ...sourced('common practice', 'about the endurance of welded details against their yield'),
  },
};
