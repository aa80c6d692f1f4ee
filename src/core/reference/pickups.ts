import { sourced, type Sourced } from './provenance';

/** What hangs on the lower end of a pickup. */
export type StrainerRow = Sourced & {
  readonly key: 'none' | 'sock' | 'mesh';
  readonly name: string;
  /** How far the inlet lies below the end of the tube [m]. */
  readonly below: number;
  /** Width of it about the tube [m]. */
  readonly diameter: number;
};

export const STRAINER_ROWS: readonly StrainerRow[] = [
  {
    key: 'none',
    name: 'open end, cut at a slant',
    below: 0,
    diameter: 0,
    ...sourced('common practice', 'a slanted end cannot seal itself against the floor'),
  },
  {
    key: 'sock',
    name: 'sock',
    below: 0.012,
    diameter: 0.05,
    ...sourced('common practice', 'a sock of about 50 mm lies on the floor some 12 mm under the tube it is pushed on'),
  },
  {
    key: 'mesh',
    name: 'mesh cup',
    below: 0.02,
    diameter: 0.03,
    ...sourced('common practice', 'a cup of about 30 mm stands 20 mm beyond its tube'),
  },
];

/** In-tank pumps with their holder, and the hose of a pickup that lies free. */
export const PUMP_BODY = {
  diameter: 0.06,
  ...sourced('common practice', 'a pump of 38 to 43 mm with its holder and hose'),
};
/** The end of a hose cannot be cut nearer than this to what was meant; a tube nearer than that [m]. */
export const CUT_SPREAD = {
  tube: 0.0005,
  hose: 0.003,
  ...sourced('common practice', 'a tube sawn and filed to half a millimetre; a hose cut with a knife'),
};
/** A pickup keeps this far from a sender's arm and float, and from a baffle [m]. */
export const PICKUP_KEEP = {
  arm: 0.01,
  baffle: 0.008,
  ...sourced('common practice', 'tubes spring and floats wander by some millimetres'),
};
