import type { AlloyKey } from './alloys';
import { sourced, type Sourced } from './provenance';

/** Inside sizes [m]. */
export type VesselBody =
  | { readonly form: 'box'; readonly length_m: number; readonly width_m: number; readonly height_m: number }
  | {
      readonly form: 'round';
      readonly axis: 'x' | 'z';
      readonly diameter_m: number;
      readonly shell_m: number;
      readonly ends: 'flat' | 'elliptical';
    };

/** A vessel that can be bought, to start a tank from. Sizes are inside; the one at hand is measured. */
export type VesselRow = Sourced & {
  readonly key: string;
  readonly name: string;
  /** What it is sold as [m³]. */ readonly nominal_m3: number;
  readonly alloy: AlloyKey;
  readonly thickness_m: number;
  readonly body: VesselBody;
  /** Openings that it has, large one first [m, inside]. */ readonly openings_m: readonly number[];
  readonly note: string;
};

const upright = (diameter_m: number, shell_m: number, ends: 'flat' | 'elliptical' = 'flat'): VesselBody => ({
  form: 'round',
  axis: 'z',
  diameter_m,
  shell_m,
  ends,
});
const lying = (diameter_m: number, shell_m: number): VesselBody => ({
  form: 'round',
  axis: 'x',
  diameter_m,
  shell_m,
  ends: 'flat',
});
const box = (length_m: number, width_m: number, height_m: number): VesselBody => ({
  form: 'box',
  length_m,
  width_m,
  height_m,
});

const FOOT = 'Its last litres stay at the foot, below any standpipe.';

export const VESSELS: readonly VesselRow[] = [
  {
    key: 'drum-200',
    name: 'steel drum, 200 L',
    nominal_m3: 0.2,
    alloy: 'mild-steel',
    thickness_m: 0.001,
    body: upright(0.5715, 0.851),
    openings_m: [0.05, 0.019],
    note: `Bungs of 2 in and 3/4 in, their threads coarse and their own. ${FOOT}`,
    ...sourced('from memory', 'tight-head steel drums: 22 1/2 in inside, 33 1/2 in high; ISO 15750 for the openings'),
  },
  {
    key: 'drum-60',
    name: 'steel drum, 60 L',
    nominal_m3: 0.06,
    alloy: 'mild-steel',
    thickness_m: 0.0009,
    body: upright(0.37, 0.58),
    openings_m: [0.05, 0.019],
    note: `Bungs of 2 in and 3/4 in. ${FOOT}`,
    ...sourced('common practice', 'drums of 60 L as sold; measure the one at hand'),
  },
  {
    key: 'can-20',
    name: 'steel can, 20 L',
    nominal_m3: 0.02,
    alloy: 'mild-steel',
    thickness_m: 0.0009,
    body: box(0.335, 0.155, 0.41),
    openings_m: [0.04],
    note: 'Rounded edges take a little off; its one opening must fill, vent and feed.',
    ...sourced('common practice', 'cans of 20 L as sold; measure the one at hand'),
  },
  {
    key: 'keg-50',
    name: 'stainless keg, 50 L',
    nominal_m3: 0.05,
    alloy: 'stainless-304',
    thickness_m: 0.0015,
    body: upright(0.385, 0.302, 'elliptical'),
    openings_m: [0.05],
    note: 'Domed both ends; one opening in the top. Buy it: a keg that was not sold to you is not yours.',
    ...sourced('common practice', 'kegs of 50 L: some 385 mm inside; measure the one at hand'),
  },
  {
    key: 'crate-1000',
    name: 'plastic crate tank, 1000 L',
    nominal_m3: 1,
    alloy: 'hdpe',
    thickness_m: 0.002,
    body: box(1.14, 0.94, 0.98),
    openings_m: [0.14, 0.05],
    note: 'A bottle in a cage: for diesel only where it is listed for it, and out of the sun. Its valve stands at the foot.',
    ...sourced('common practice', 'crate tanks on a pallet of 1.2 by 1.0 m; measure the one at hand'),
  },
  {
    key: 'tube-4-in',
    name: 'stainless tube, 4 in, welded caps',
    nominal_m3: 0.007,
    alloy: 'stainless-304',
    thickness_m: 0.002,
    body: lying(0.0976, 1),
    openings_m: [],
    note: 'Cut to the length that is needed, with flat caps let in.',
    ...sourced('from memory', 'welded tube of 101.6 by 2.0 mm, EN 10217-7'),
  },
  {
    key: 'pipe-110',
    name: 'PVC pipe, 110 mm, glued caps',
    nominal_m3: 0.008,
    alloy: 'pvc',
    thickness_m: 0.0032,
    body: lying(0.1036, 1),
    openings_m: [],
    note: 'Cut to the length that is needed; each cap takes a little.',
    ...sourced('from memory', 'pipe of 110 by 3.2 mm, EN 1401'),
  },
  {
    key: 'pipe-4-in',
    name: 'ABS pipe, 4 in, glued caps',
    nominal_m3: 0.008,
    alloy: 'abs',
    thickness_m: 0.006,
    body: lying(0.1023, 1),
    openings_m: [],
    note: 'Cut to the length that is needed; each cap takes a little.',
    ...sourced('from memory', 'schedule 40 pipe: 4.026 in inside, ASTM D2661'),
  },
];

/** A vessel by its key. */
export const vesselOf = (key: string): VesselRow | undefined => VESSELS.find((row) => row.key === key);
