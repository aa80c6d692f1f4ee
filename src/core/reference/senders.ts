import { sourced, type Sourced } from './provenance';

/** What a level sender gives at empty and at full, as such ranges are called. */
export type SenderRangeRow = Sourced & {
  readonly key: string;
  readonly name: string;
  readonly output: 'resistance' | 'voltage';
  /** At empty, half and full [ohm or V]. */
  readonly empty: number;
  readonly half?: number;
  readonly full: number;
  /** Half-width of what new ones differ by, of the span. */
  readonly tolerance_ratio: number;
};

const range = (
  key: string,
  name: string,
  output: SenderRangeRow['output'],
  empty: number,
  full: number,
  tolerance_ratio: number,
  where: string,
  half?: number,
): SenderRangeRow => ({
  key,
  name,
  output,
  empty,
  full,
  tolerance_ratio,
  ...(half === undefined ? {} : { half }),
  ...sourced('from memory', where),
});

export const SENDER_RANGES: readonly SenderRangeRow[] = [
  range(
    '240-33',
    '240–33 Ω',
    'resistance',
    240,
    33,
    0.05,
    'many North American universal senders and gauges; half about 103',
    103,
  ),
  range('0-90', '0–90 Ω', 'resistance', 0, 90, 0.05, 'many road vehicles of the 1960s to 1990s'),
  range('73-10', '73–10 Ω', 'resistance', 73, 10, 0.05, 'many road vehicles until the 1980s; half about 23', 23),
  range('16-158', '16–158 Ω', 'resistance', 16, 158, 0.05, 'many road vehicles from the late 1980s'),
  range('10-180', '10–180 Ω', 'resistance', 10, 180, 0.05, 'usual in Europe'),
  range('0-180', '0–180 Ω', 'resistance', 0, 180, 0.05, 'usual in Europe, tube senders'),
  range('0-190', '0–190 Ω', 'resistance', 0, 190, 0.05, 'European boats'),
  range('0-30', '0–30 Ω', 'resistance', 0, 30, 0.05, 'road vehicles until the mid 1960s'),
  range('90-0', '90–0 Ω', 'resistance', 90, 0, 0.05, 'the reverse of 0–90'),
  range('0.5-4.5V', '0.5–4.5 V', 'voltage', 0.5, 4.5, 0.02, 'electronic senders on a 5 V supply'),
  range('0-5V', '0–5 V', 'voltage', 0, 5, 0.02, 'electronic senders; zero cannot be told from a broken wire'),
  range('0.25-4.75V', '0.25–4.75 V', 'voltage', 0.25, 4.75, 0.02, 'electronic senders on a 5 V supply'),
];

/** Senders as they are made and cut. */
export const SENDER_MAKE = {
  /** Lengths in which arms are set or cut, and pivots are set on their bracket [m]. */
  armStep: 0.005,
  pivotStep: 0.005,
  shortestArm: 0.05,
  longestArm: 0.4,
  /** Of the wire of an arm [m]. */
  armDiameter: 0.003,
  /** Kept free all round float and arm [m]. */
  keep: 0.004,
  /** Steps in which an arm is bent by hand. */
  bendStep_deg: 5,
  mostBend_deg: 60,
  /** Contacts of a tube sender with reeds stand so far apart [m]. */
  reedStep: 0.021,
  ...sourced(
    'common practice',
    'universal senders: brackets and arms with marks, wire of 3 mm, reeds some 20 mm apart, float about half under',
  ),
};

/** A float sits so deep, as a share of its height. */
export const FLOAT_IMMERSION = {
  ratio: 0.5,
  spread: 0.15,
  ...sourced('common practice', 'closed-cell floats sit about half under in fuel; deeper as they soak'),
};

/**
 * What each way of telling how much was poured is good for: half-width within which it lies 95 times in 100, as a
 * share.
 */
export const POUR_SPREADS: Readonly<
  Record<'can' | 'meter' | 'scale' | 'drawn-off', Sourced & { readonly name: string; readonly ratio: number }>
> = {
  can: {
    name: 'can or jug',
    ratio: 0.01,
    ...sourced('common practice', 'a can filled to its mark, and what stays in it'),
  },
  meter: {
    name: 'meter',
    ratio: 0.01,
    ...sourced('common practice', 'transfer meters are sold as good to one in a hundred'),
  },
  scale: {
    name: 'scale',
    ratio: 0.003,
    ...sourced('common practice', 'weighed before and after; the density is good to about three in a thousand'),
  },
  'drawn-off': { name: 'drawn off', ratio: 0.01, ...sourced('common practice', 'let out into a can with a mark') },
};
