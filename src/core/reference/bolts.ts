import { sourced, type Sourced } from './provenance';

/** Sizes of bolts that hold tanks, and their classes. */
export const BOLT_SIZES = [
  'M5',
  'M6',
  'M8',
  'M10',
  'M12',
  'M16',
  '1/4-20',
  '5/16-18',
  '3/8-16',
  '7/16-14',
  '1/2-13',
  '5/8-11',
] as const;
export type BoltSize = (typeof BOLT_SIZES)[number];

export type BoltSizeRow = Sourced & {
  readonly diameter_m: number;
  readonly pitch_m: number;
  /** Clearance hole, and across the flats of its head [m]. */
  readonly hole_m: number;
  readonly flats_m: number;
};

const METRIC = 'ISO 261: pitch; ISO 273 medium: hole; ISO 4014: across flats';
const INCH = 'ASME B1.1: threads an inch; ASME B18.2.8 normal: hole; ASME B18.2.1: across flats';
const INCH_M = 0.0254;
const metric = (d: number, pitch: number, hole: number, flats: number): BoltSizeRow => ({
  diameter_m: d / 1000,
  pitch_m: pitch / 1000,
  hole_m: hole / 1000,
  flats_m: flats / 1000,
  ...sourced('from memory', METRIC),
});
const inch = (d: number, perInch: number, hole: number, flats: number): BoltSizeRow => ({
  diameter_m: d * INCH_M,
  pitch_m: INCH_M / perInch,
  hole_m: hole * INCH_M,
  flats_m: flats * INCH_M,
  ...sourced('from memory', INCH),
});

export const BOLTS: Readonly<Record<BoltSize, BoltSizeRow>> = {
  M5: metric(5, 0.8, 5.5, 8),
  M6: metric(6, 1, 6.6, 10),
  M8: metric(8, 1.25, 9, 13),
  M10: metric(10, 1.5, 11, 16),
  M12: metric(12, 1.75, 13.5, 18),
  M16: metric(16, 2, 17.5, 24),
  '1/4-20': inch(0.25, 20, 9 / 32, 7 / 16),
  '5/16-18': inch(0.3125, 18, 11 / 32, 1 / 2),
  '3/8-16': inch(0.375, 16, 13 / 32, 9 / 16),
  '7/16-14': inch(0.4375, 14, 15 / 32, 5 / 8),
  '1/2-13': inch(0.5, 13, 9 / 16, 3 / 4),
  '5/8-11': inch(0.625, 11, 11 / 16, 15 / 16),
};

export const BOLT_CLASSES = ['4.6', '8.8', '10.9', 'A2-70', 'grade-2', 'grade-5', 'grade-8', '18-8'] as const;
export type BoltClass = (typeof BOLT_CLASSES)[number];

export type BoltClassRow = Sourced & {
  readonly name: string;
  /** Stress that it comes back from [Pa]. */ readonly proof_Pa: number;
  readonly note?: string;
};

const MPA = 1e6;
const KSI = 6.894757e6;
export const BOLT_CLASS_ROWS: Readonly<Record<BoltClass, BoltClassRow>> = {
  '4.6': { name: '4.6', proof_Pa: 225 * MPA, ...sourced('from memory', 'ISO 898-1, proof stress') },
  '8.8': { name: '8.8', proof_Pa: 580 * MPA, ...sourced('from memory', 'ISO 898-1, proof stress up to M16') },
  '10.9': { name: '10.9', proof_Pa: 830 * MPA, ...sourced('from memory', 'ISO 898-1, proof stress') },
  'A2-70': {
    name: 'stainless A2-70',
    proof_Pa: 450 * MPA,
    note: 'Stainless galls: grease its thread.',
    ...sourced('from memory', 'ISO 3506-1, stress at 0.2 % permanent strain'),
  },
  'grade-2': { name: 'grade 2', proof_Pa: 55 * KSI, ...sourced('from memory', 'SAE J429, proof stress up to 3/4 in') },
  'grade-5': { name: 'grade 5', proof_Pa: 85 * KSI, ...sourced('from memory', 'SAE J429, proof stress up to 1 in') },
  'grade-8': { name: 'grade 8', proof_Pa: 120 * KSI, ...sourced('from memory', 'SAE J429, proof stress') },
  '18-8': {
    name: 'stainless 18-8',
    proof_Pa: 40 * KSI,
    note: 'Stainless galls: grease its thread.',
    ...sourced('common practice', '18-8 bolts are mostly sold without a promise: taken at about 40 ksi'),
  },
};

/** What a bolt's thread is held by. */
export const BOLT_HELD = ['nut', 'tapped', 'insert', 'rivet-nut', 'wood-screw'] as const;
export type BoltHeld = (typeof BOLT_HELD)[number];

/** Rivet nuts: what they hold along the bolt before they pull out of sheet that is thick enough for them. */
export type RivetNutRow = Sourced & { readonly size: BoltSize; readonly pull_N: number; readonly flange_m: number };
const RIVET_NUTS_OF = 'makers of steel flat-head rivet nuts state about so much in steel sheet';
export const RIVET_NUTS: readonly RivetNutRow[] = (
  [
    ['M5', 4.0e3, 0.01],
    ['M6', 6.0e3, 0.013],
    ['M8', 9.0e3, 0.016],
    ['M10', 11.0e3, 0.019],
    ['1/4-20', 6.0e3, 0.013],
    ['5/16-18', 9.0e3, 0.016],
    ['3/8-16', 11.0e3, 0.019],
  ] as const
).map(([size, pull_N, flange_m]) => ({ size, pull_N, flange_m, ...sourced('common practice', RIVET_NUTS_OF) }));
