import { sourced, type Sourced } from './provenance';

/** What usually stands outside on a port of each role: the fitting with its hose end, before anything turns aside. */
export type StandingRow = Sourced & {
  readonly role: 'filler' | 'vent' | 'feed' | 'return' | 'sender' | 'drain' | 'spare';
  readonly what: string;
  /** Over the face [m]. */
  readonly height_m: number;
  /** Wider than the bore by this [m]; never narrower than `least_m`. */
  readonly widerBy_m: number;
  readonly least_m: number;
};

export const STANDING: readonly StandingRow[] = [
  {
    role: 'filler',
    what: 'neck with hose and clamp',
    height_m: 0.06,
    widerBy_m: 0.016,
    least_m: 0.03,
    ...sourced('common practice', 'a hose wants about 40 mm of neck and room for the clamp screw'),
  },
  {
    role: 'vent',
    what: 'barbed elbow with hose',
    height_m: 0.04,
    widerBy_m: 0.012,
    least_m: 0.022,
    ...sourced('common practice', 'lids are set about 40 mm below what lies over them for such fittings'),
  },
  {
    role: 'feed',
    what: 'fitting with hose end',
    height_m: 0.045,
    widerBy_m: 0.016,
    least_m: 0.026,
    ...sourced('common practice', 'a screwed elbow of hose size 10 mm stands about 45 mm tall'),
  },
  {
    role: 'return',
    what: 'fitting with hose end',
    height_m: 0.045,
    widerBy_m: 0.016,
    least_m: 0.026,
    ...sourced('common practice', 'a screwed elbow of hose size 10 mm stands about 45 mm tall'),
  },
  {
    role: 'sender',
    what: 'flange with terminals',
    height_m: 0.03,
    widerBy_m: 0.016,
    least_m: 0.07,
    ...sourced(
      'common practice',
      'a five-hole sender flange is about 70 mm across; terminals and boots stand up 30 mm',
    ),
  },
  {
    role: 'drain',
    what: 'plug',
    height_m: 0.018,
    widerBy_m: 0.014,
    least_m: 0.03,
    ...sourced('common practice', 'a hexagon plug in a welded boss'),
  },
  {
    role: 'spare',
    what: 'plug',
    height_m: 0.018,
    widerBy_m: 0.014,
    least_m: 0.03,
    ...sourced('common practice', 'a hexagon plug in a welded boss'),
  },
];

/** What each way of measuring is good for: the half-width within which it lies about 95 times in 100 [m]. */
export type MeasuringRow = Sourced & {
  readonly way: 'tape' | 'template' | 'guess';
  readonly name: string;
  readonly spread_m: number;
};

export const MEASURING: readonly MeasuringRow[] = [
  { way: 'tape', name: 'tape', spread_m: 0.001, ...sourced('common practice', 'a steel tape read to the millimetre') },
  {
    way: 'template',
    name: 'template',
    spread_m: 0.003,
    ...sourced('common practice', 'card traced along a panel and laid on the sheet'),
  },
  {
    way: 'guess',
    name: 'guess',
    spread_m: 0.01,
    ...sourced('common practice', 'by eye, from a drawing or from memory'),
  },
];

export const TAPE_SPREAD_M = MEASURING.find((row) => row.way === 'tape')!.spread_m;
