import { sourced } from './provenance';

/** Open-cell foam as it is put into tanks, 10 to 20 pores an inch. */
export const FOAM = {
  /** Of the space it fills, taken by what it is made of. */
  solid_ratio: 0.03,
  solidSpread_ratio: 0.01,
  /** Cut so much larger than the space [m]. */
  over_m: 0.03,
  overSpread_m: 0.005,
  /** Kept free round tubes, pumps and floats [m]. */
  clear_m: 0.02,
  /** To so much of its width a piece is squeezed while it is pushed through an opening. */
  squeezed_ratio: 0.5,
  ...sourced(
    'common practice',
    'cut 25 to 38 mm taller than the inside; a few per cent of the volume; a hand squeezes it to half',
  ),
} as const;

/** How easily liquid goes through it: the most that such foam lets through, for the least that it slows. */
export const FOAM_LETS = {
  permeability_m2: 2e-7,
  ...sourced('from memory', 'measured of open-cell foams of 10 to 20 pores an inch: some 1e-7 to 2e-7 m²'),
} as const;
