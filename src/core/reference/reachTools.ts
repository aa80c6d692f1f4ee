import { sourced, type Sourced } from './provenance';

/**
 * One simple solid of a tool. Its frame: z away from what it works on along
 * the fastener's axis, x along the handle [m].
 */
export type ToolPart =
  | {
      readonly kind: 'rod';
      readonly from: readonly [number, number, number];
      readonly to: readonly [number, number, number];
      readonly radius: number;
    }
  | {
      readonly kind: 'block';
      readonly from: readonly [number, number, number];
      readonly to: readonly [number, number, number];
    };

/** Tools of one size; spanners and sockets come by the size of their hexagon. */
export type FixedToolKey =
  'driver' | 'short-driver' | 'hand' | 'bent-hand' | 'nozzle' | 'tig-torch' | 'filler-rod' | 'wire-gun' | 'eye';
export type ToolKey = FixedToolKey | 'ring-spanner' | 'cranked-spanner' | 'socket' | 'long-socket';

export type ToolRow = Sourced & {
  readonly key: FixedToolKey;
  readonly name: string;
  readonly parts: readonly ToolPart[];
};

/** A spanner and a socket for one size of hexagon [m]. */
export type SpannerRow = Sourced & {
  readonly acrossFlats: number;
  /** Overall, from the middle of the jaw. */
  readonly length: number;
  readonly headDiameter: number;
  readonly thickness: number;
  readonly socketDiameter: number;
  readonly socketLength: number;
};

const LENGTHS = 'ISO 7738 combination spanners, ISO 3318 heads, ISO 2725-1 sockets: greatest sizes, rounded up';
const hexagon = (
  acrossFlats: number,
  length: number,
  headDiameter: number,
  thickness: number,
  socketDiameter: number,
  socketLength: number,
): SpannerRow => ({
  acrossFlats,
  length,
  headDiameter,
  thickness,
  socketDiameter,
  socketLength,
  ...sourced('from memory', LENGTHS),
});

export const SPANNERS: readonly SpannerRow[] = [
  hexagon(0.007, 0.11, 0.018, 0.005, 0.011, 0.025),
  hexagon(0.008, 0.12, 0.02, 0.0055, 0.0125, 0.025),
  hexagon(0.01, 0.14, 0.024, 0.006, 0.015, 0.028),
  hexagon(0.013, 0.17, 0.03, 0.007, 0.019, 0.03),
  hexagon(0.016, 0.2, 0.036, 0.008, 0.023, 0.038),
  hexagon(0.017, 0.21, 0.038, 0.0085, 0.025, 0.038),
  hexagon(0.019, 0.23, 0.042, 0.009, 0.027, 0.038),
  hexagon(0.022, 0.26, 0.048, 0.01, 0.031, 0.04),
  hexagon(0.024, 0.28, 0.052, 0.011, 0.034, 0.042),
  hexagon(0.027, 0.31, 0.058, 0.012, 0.038, 0.045),
  hexagon(0.03, 0.34, 0.064, 0.0125, 0.042, 0.048),
  hexagon(0.032, 0.36, 0.068, 0.013, 0.045, 0.05),
  hexagon(0.036, 0.4, 0.077, 0.014, 0.05, 0.052),
  hexagon(0.041, 0.45, 0.087, 0.015, 0.056, 0.055),
  hexagon(0.046, 0.5, 0.097, 0.016, 0.062, 0.06),
  hexagon(0.055, 0.56, 0.115, 0.018, 0.074, 0.065),
];

/** Fingers about a handle: so wide across it, and so far below and above its middle [m]. */
export const GRIP = {
  width: 0.07,
  along: 0.09,
  below: 0.012,
  above: 0.05,
  ...sourced('common practice', 'fingertips under a spanner, knuckles over it'),
};

/**
 * A jaw set 15° to its handle is turned over for the next bite, and a twelve-sided ring moves on by 30°: either needs
 * 30°.
 */
export const SPANNER_SWING_DEG = 30;
/** Rise of a ring spanner's handle from its head. */
export const CRANK_DEG = 15;
/** A ratchet of 36 teeth, its slack and a hexagon's. */
export const RATCHET_SWING_DEG = 18;

export const RATCHET = {
  headDiameter: 0.036,
  headHeight: 0.032,
  handle: 0.2,
  handleWidth: 0.022,
  extension: 0.125,
  extensionDiameter: 0.014,
  ...sourced('common practice', 'a 3/8 inch square ratchet with a short extension'),
};

export const TOOLS: readonly ToolRow[] = [
  {
    key: 'driver',
    name: 'screwdriver',
    ...sourced('common practice', 'a blade of 100 mm, a handle of 90 mm and the fist round it'),
    parts: [
      { kind: 'rod', from: [0, 0, 0.002], to: [0, 0, 0.1], radius: 0.003 },
      { kind: 'rod', from: [0, 0, 0.1], to: [0, 0, 0.19], radius: 0.016 },
      { kind: 'rod', from: [0, 0, 0.13], to: [0, 0, 0.22], radius: 0.045 },
    ],
  },
  {
    key: 'short-driver',
    name: 'stubby screwdriver',
    ...sourced('common practice', 'a blade of 25 mm, a handle of 50 mm held in the fingers'),
    parts: [
      { kind: 'rod', from: [0, 0, 0.002], to: [0, 0, 0.025], radius: 0.003 },
      { kind: 'rod', from: [0, 0, 0.025], to: [0, 0, 0.075], radius: 0.016 },
      { kind: 'rod', from: [0, 0, 0.05], to: [0, 0, 0.095], radius: 0.04 },
    ],
  },
  {
    key: 'hand',
    name: 'hand',
    ...sourced(
      'from memory',
      'MIL-STD-1472, least openings for one hand: flat 100 x 55 mm to the wrist, arm to the elbow 100 x 115 mm',
    ),
    parts: [
      { kind: 'block', from: [-0.045, -0.0125, 0], to: [0.045, 0.0125, 0.09] },
      { kind: 'block', from: [-0.05, -0.0275, 0.08], to: [0.05, 0.0275, 0.19] },
      { kind: 'rod', from: [0, 0, 0.18], to: [0, 0, 0.45], radius: 0.05 },
    ],
  },
  {
    // Laid flat over the place, the fingers bent down to it: z to the fingertips' place, x along the arm.
    key: 'bent-hand',
    name: 'hand, fingers bent',
    ...sourced(
      'common practice',
      'the same hand with its fingers bent square: fingertips reach 50 mm down from the palm',
    ),
    parts: [
      { kind: 'rod', from: [0, 0, 0.001], to: [0, 0, 0.045], radius: 0.012 },
      { kind: 'block', from: [-0.012, -0.045, 0.03], to: [0.1, 0.045, 0.055] },
      { kind: 'block', from: [0.08, -0.05, 0.02], to: [0.19, 0.05, 0.075] },
      { kind: 'rod', from: [0.18, 0, 0.055], to: [0.45, 0, 0.055], radius: 0.05 },
    ],
  },
  {
    key: 'nozzle',
    name: 'nozzle and hand',
    ...sourced(
      'common practice',
      'a hand nozzle: collar over the neck, body at 50° to its spout, the hand on it, the hose beyond',
    ),
    parts: [
      { kind: 'rod', from: [0, 0, 0.003], to: [0, 0, 0.07], radius: 0.028 },
      { kind: 'rod', from: [0, 0, 0.06], to: [0.153, 0, 0.189], radius: 0.035 },
      { kind: 'rod', from: [0.046, 0, 0.099], to: [0.138, 0, 0.176], radius: 0.055 },
      { kind: 'rod', from: [0.153, 0, 0.189], to: [0.25, 0, 0.21], radius: 0.016 },
    ],
  },
  {
    key: 'tig-torch',
    name: 'TIG torch',
    ...sourced(
      'common practice',
      'a small air-cooled torch with a short cap: electrode 9 mm out, handle at 70°, the hand from 60 mm on',
    ),
    parts: [
      { kind: 'rod', from: [0, 0, 0.009], to: [0, 0, 0.035], radius: 0.007 },
      { kind: 'rod', from: [0, 0, 0.035], to: [0, 0, 0.085], radius: 0.013 },
      { kind: 'rod', from: [0, 0, 0.055], to: [0.188, 0, 0.123], radius: 0.015 },
      { kind: 'rod', from: [0.056, 0, 0.075], to: [0.15, 0, 0.11], radius: 0.045 },
    ],
  },
  {
    key: 'filler-rod',
    name: 'filler rod',
    ...sourced('common practice', 'the hand feeds it from 150 mm behind its end'),
    parts: [
      { kind: 'rod', from: [0, 0, 0.004], to: [0, 0, 0.3], radius: 0.0015 },
      { kind: 'rod', from: [0, 0, 0.15], to: [0, 0, 0.24], radius: 0.04 },
    ],
  },
  {
    key: 'wire-gun',
    name: 'wire-feed gun',
    ...sourced('common practice', 'nozzle 12 mm off, a neck bent 45°, the handle beyond it'),
    parts: [
      { kind: 'rod', from: [0, 0, 0.012], to: [0, 0, 0.07], radius: 0.011 },
      { kind: 'rod', from: [0, 0, 0.07], to: [0.05, 0, 0.12], radius: 0.011 },
      { kind: 'rod', from: [0.05, 0, 0.12], to: [0.23, 0, 0.17], radius: 0.02 },
      { kind: 'rod', from: [0.07, 0, 0.125], to: [0.17, 0, 0.153], radius: 0.05 },
    ],
  },
  {
    key: 'eye',
    name: 'sight',
    ...sourced('common practice', 'a gauge is read from about 450 mm'),
    parts: [
      { kind: 'rod', from: [0, 0, 0.004], to: [0, 0, 0.45], radius: 0.008 },
      { kind: 'rod', from: [0, 0, 0.45], to: [0, 0, 0.65], radius: 0.1 },
    ],
  },
];

/** A tool of one size by its key. */
export const toolRow = (key: FixedToolKey): ToolRow => TOOLS.find((row) => row.key === key)!;

/** The spanner for a hexagon, the next larger where there is none of its size; undefined beyond the largest. */
export const spannerFor = (acrossFlats_m: number): SpannerRow | undefined =>
  SPANNERS.find((row) => row.acrossFlats >= acrossFlats_m - 2e-4);
