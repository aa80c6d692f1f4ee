import { sourced, type Sourced } from './provenance';
import { THREADS, type ThreadSystem } from './threads';

export const PART_GROUPS = [
  'bung',
  'bulkhead',
  'tapped',
  'moulded',
  'neck',
  'tube',
  'grommet',
  'ring',
  'plate',
] as const;
export type PartGroup = (typeof PART_GROUPS)[number];

/** How a part is held to the sheet and made tight. */
export type PartJoin = 'weld' | 'nut' | 'screws' | 'push' | 'tapped' | 'moulded';

/**
 * A kind of part that goes into a hole of a tank. Heights are over the outside of the sheet, depths under its inside
 * [m].
 */
export type PortPartRow = Sourced & {
  readonly key: string;
  readonly name: string;
  readonly group: PartGroup;
  readonly join: PartJoin;
  /** To be cut in the sheet. */
  readonly hole: number;
  /** Of what lies on the sheet outside: boss, flange, washer or nut. */
  readonly cover: number;
  /** With what is screwed into it and its hose end, before anything turns aside. */
  readonly above: number;
  readonly below: number;
  readonly belowDiameter: number;
  readonly bore: number;
  /** Where the upper end of a tube that hangs in it is seated. */
  readonly seat: number;
  /** Name of a row of THREADS. */
  readonly thread?: string;
  /** Of the hexagon that is turned. */
  readonly acrossFlats?: number;
  readonly bolts?: {
    readonly count: number;
    readonly circle: number;
    readonly thread: string;
    /** Of each screw from the first, clockwise from outside, where they do not stand evenly [deg]. */
    readonly angles_deg?: readonly number[];
  };
  /** Thickest sheet that it takes. */
  readonly mostSheet?: number;
  /** How far the sheet under it may be out of flat for the seal to take it up. */
  readonly takesUp: number;
  readonly seal: string;
};

const MM = 1e-3;
const millimetres = (value_m: number): number => Math.ceil(value_m / MM - 1e-9) * MM;
const threadOf = (name: string) => THREADS.find((row) => row.name === name)!;

/** Hexagons that spanners are made for [m]; what is turned has the next one over its thread. */
const HEXAGONS = [10, 13, 16, 17, 19, 22, 24, 27, 30, 32, 36, 41, 46, 55, 65, 70, 75, 80, 85, 90].map(
  (size) => size * MM,
);
/** The hexagon next over a size [m]. */
export const nextHexagon = (over_m: number): number =>
  HEXAGONS.find((size) => size >= over_m - 1e-9) ?? HEXAGONS.at(-1)!;

/**
 * Common practice: a boss is half as wide again as its thread, its shoulder a quarter; a hose end stands one and a half
 * hexagons tall.
 */
const BOSS = 1.5;
const SHOULDER = 1.25;
const BUNG_ABOVE = 6 * MM;
const BUNG_BELOW = 8 * MM;
const HOSE_END = 1.5;

function bung(thread: string, key: string): PortPartRow {
  const { major_m, system } = threadOf(thread);
  const hexagon = nextHexagon(major_m * 1.1);
  return {
    key,
    name: `weld-in bung, ${thread}`,
    group: 'bung',
    join: 'weld',
    thread,
    hole: millimetres(major_m * SHOULDER),
    cover: millimetres(major_m * BOSS),
    above: BUNG_ABOVE + millimetres(HOSE_END * hexagon),
    below: BUNG_BELOW,
    belowDiameter: millimetres(major_m * SHOULDER),
    bore: Math.round((major_m * 0.6) / MM) * MM,
    seat: BUNG_ABOVE,
    acrossFlats: hexagon,
    takesUp: 1 * MM,
    seal: SEALS[system],
    ...sourced(
      'common practice',
      'bosses half as wide again as the thread, shoulder a quarter over it; hexagon the next over the thread: the part at hand decides',
    ),
  };
}

const SEALS: Readonly<Record<ThreadSystem, string>> = {
  npt: 'fuel-proof sealant on the taper thread',
  'bsp-taper': 'fuel-proof sealant on the taper thread',
  'bsp-parallel': 'bonded washer under the shoulder',
  metric: 'bonded or copper washer under the shoulder',
  'flare-37': 'metal to metal on the cone',
  'o-ring-boss': 'O-ring in the chamfer of the boss',
  coarse: 'the cap’s own flat gasket',
};

/** A thread cut in the wall itself, where that is thick enough. */
function tapped(thread: string, key: string): PortPartRow {
  const { major_m, tapDrill_m, system } = threadOf(thread);
  const hexagon = nextHexagon(major_m * 1.1);
  return {
    key,
    name: `${thread} tapped in the wall`,
    group: 'tapped',
    join: 'tapped',
    thread,
    hole: tapDrill_m,
    cover: millimetres(hexagon / Math.cos(Math.PI / 6)),
    above: millimetres(HOSE_END * hexagon),
    // A turn or two of what is screwed in comes through.
    below: 4 * MM,
    belowDiameter: tapDrill_m,
    bore: Math.round((major_m * 0.6) / MM) * MM,
    seat: 0,
    acrossFlats: hexagon,
    takesUp: 1 * MM,
    seal: SEALS[system],
    ...sourced('common practice', 'into thick walls and lids only; a bung where the sheet gives too few turns'),
  };
}

/** An opening that a bought plastic vessel has. */
function moulded(thread: string, key: string): PortPartRow {
  const { major_m, pitch_m, system } = threadOf(thread);
  return {
    key,
    name: `moulded opening, ${thread}`,
    group: 'moulded',
    join: 'moulded',
    thread,
    hole: major_m,
    cover: millimetres(major_m * SHOULDER),
    above: 0.03,
    below: millimetres(2.5 * pitch_m),
    belowDiameter: millimetres(major_m * 1.1),
    bore: millimetres(major_m - 2 * pitch_m),
    seat: 0,
    takesUp: 1 * MM,
    seal: SEALS[system],
    ...sourced('from memory', 'openings of plastic drums and crate tanks; measure the one at hand'),
  };
}

/** A fitting that passes through a plain hole and is held by a nut inside: clearance hole, washer, nut. */
function bulkhead(dash: number): PortPartRow {
  const thread = THREADS.find((row) => row.system === 'flare-37' && row.name.startsWith(`-${dash} `))!;
  const hexagon = nextHexagon(thread.major_m * 1.25);
  const washer = millimetres(hexagon * 1.25);
  return {
    key: `bulkhead-${dash}`,
    name: `bulkhead fitting, ${thread.name}`,
    group: 'bulkhead',
    join: 'nut',
    thread: thread.name,
    hole: Math.ceil((thread.major_m + 0.2 * MM) / (0.5 * MM)) * 0.5 * MM,
    cover: washer,
    above: millimetres(1.8 * hexagon),
    below: millimetres(0.6 * hexagon + 6 * MM),
    belowDiameter: millimetres(hexagon / Math.cos(Math.PI / 6)),
    bore: Math.round((thread.major_m * 0.62) / MM) * MM,
    seat: 0,
    acrossFlats: hexagon,
    mostSheet: 6 * MM,
    takesUp: 0.3 * MM,
    seal: 'bonded washers on both sides of the sheet',
    ...sourced(
      'common practice',
      'hole half a millimetre and less over the thread; nut inside, held by a second spanner: the part at hand decides',
    ),
  };
}

const neck = (outside_mm: number): PortPartRow => ({
  key: `neck-${outside_mm}`,
  name: `filler neck, ${outside_mm} mm tube`,
  group: 'neck',
  join: 'weld',
  hole: outside_mm * MM,
  cover: (outside_mm + 8) * MM,
  above: 0.06,
  below: 3 * MM,
  belowDiameter: outside_mm * MM,
  bore: (outside_mm - 3) * MM,
  seat: 0,
  takesUp: 5 * MM,
  seal: 'welded; hose with two clamps',
  ...sourced('common practice', 'a hose wants about 40 mm of neck and room for the clamp screw'),
});
const tube = (outside_mm: number): PortPartRow => ({
  key: `tube-${outside_mm}`,
  name: `tube welded through, ${outside_mm} mm`,
  group: 'tube',
  join: 'weld',
  hole: outside_mm * MM,
  cover: (outside_mm + 6) * MM,
  above: 0.035,
  below: 3 * MM,
  belowDiameter: outside_mm * MM,
  bore: (outside_mm - 2) * MM,
  seat: 0.035,
  takesUp: 5 * MM,
  seal: 'welded; hose with a clamp over a bead',
  ...sourced('common practice', 'a hose wants 25 to 35 mm of tube with a bead'),
});
const grommet = (hole_mm: number): PortPartRow => ({
  key: `grommet-${hole_mm}`,
  name: `rubber grommet, ${hole_mm} mm hole`,
  group: 'grommet',
  join: 'push',
  hole: hole_mm * MM,
  cover: (hole_mm + 8) * MM,
  above: 0.03,
  below: 8 * MM,
  belowDiameter: (hole_mm + 4) * MM,
  bore: Math.round(hole_mm * 0.4) * MM,
  seat: 0.03,
  mostSheet: 4 * MM,
  takesUp: 0.5 * MM,
  seal: 'the grommet, of fuel-proof rubber; for vents and plastic tanks',
  ...sourced('common practice', 'a lip of 4 mm all round; sizes differ by maker'),
});
const ring = (
  key: string,
  name: string,
  hole_mm: number,
  cover_mm: number,
  above_mm: number,
  below_mm: number,
  bolts: { count: number; circle_mm: number; thread: string; angles_deg?: readonly number[] },
  takesUp_mm: number,
  source: string,
  status: 'common practice' | 'from memory' = 'common practice',
  group: PartGroup = 'ring',
): PortPartRow => ({
  key,
  name,
  group,
  join: 'screws',
  hole: hole_mm * MM,
  cover: cover_mm * MM,
  above: above_mm * MM,
  below: below_mm * MM,
  belowDiameter: hole_mm * MM,
  bore: hole_mm * MM,
  seat: 0,
  bolts: {
    count: bolts.count,
    circle: bolts.circle_mm * MM,
    thread: bolts.thread,
    ...(bolts.angles_deg ? { angles_deg: bolts.angles_deg } : {}),
  },
  takesUp: takesUp_mm * MM,
  seal: 'gasket under even compression; screws sealed, or into blind bosses',
  ...sourced(status, source),
});

const PIPE_SIZES = ['1/8', '1/4', '3/8', '1/2', '3/4', '1', '1 1/4', '1 1/2', '2'] as const;
/** Larger pipe threads are cut in no tank's wall. */
const TAPPED_SIZES = PIPE_SIZES.slice(0, 6);
const METRIC_SIZES = [
  [10, 1],
  [12, 1.5],
  [14, 1.5],
  [16, 1.5],
  [18, 1.5],
  [22, 1.5],
  [24, 1.5],
  [27, 2],
  [33, 2],
  [42, 2],
] as const;
const keyOf = (size: string): string => size.replace(/[/ ]/g, '-');

export const PORT_PARTS: readonly PortPartRow[] = [
  ...PIPE_SIZES.map((size) => bung(`${size} NPT`, `bung-npt-${keyOf(size)}`)),
  ...PIPE_SIZES.map((size) => bung(`G ${size}`, `bung-g-${keyOf(size)}`)),
  ...METRIC_SIZES.map(([major, pitch]) => bung(`M${major} x ${pitch}`, `bung-m${major}`)),
  ...TAPPED_SIZES.map((size) => tapped(`${size} NPT`, `tapped-npt-${keyOf(size)}`)),
  ...TAPPED_SIZES.map((size) => tapped(`G ${size}`, `tapped-g-${keyOf(size)}`)),
  ...METRIC_SIZES.slice(0, 6).map(([major, pitch]) => tapped(`M${major} x ${pitch}`, `tapped-m${major}`)),
  ...(
    [
      [56, 4],
      [60, 6],
      [70, 6],
    ] as const
  ).map(([major, pitch]) => moulded(`S${major} x ${pitch}`, `moulded-s${major}`)),
  ...[4, 6, 8, 10, 12, 16, 20, 24, 32].map((dash) =>
    bung(
      THREADS.find((row) => row.system === 'o-ring-boss' && row.name.startsWith(`-${dash} `))!.name,
      `bung-orb-${dash}`,
    ),
  ),
  ...[4, 6, 8, 10, 12, 16, 20].map(bulkhead),
  ...[32, 38, 51, 60].map(neck),
  ...[6, 8, 10, 12, 16].map(tube),
  ...[12, 18, 22].map(grommet),
  ring(
    'sender-5',
    'sender ring, five screws on 54 mm',
    42,
    70,
    30,
    4,
    { count: 5, circle_mm: 54, thread: 'M5 x 0.8', angles_deg: [0, 73, 146, 214, 287] },
    1.5,
    'five-hole sender flanges: circle of 2 1/8 in; four gaps of 73° and one of 68°, so that it goes in one way: the flange at hand decides',
    'from memory',
  ),
  ring(
    'sender-6',
    'sender ring, six screws on 80 mm',
    60,
    96,
    30,
    4,
    { count: 6, circle_mm: 80, thread: 'M5 x 0.8' },
    1.5,
    'larger sender flanges; measure the one at hand',
  ),
  ring(
    'pump-ring',
    'pump module ring, eight screws on 134 mm',
    112,
    152,
    55,
    8,
    { count: 8, circle_mm: 134, thread: 'M6 x 1' },
    2,
    'modules with a flange of about 150 mm; measure the one at hand',
  ),
  ring(
    'clean-out-125',
    'clean-out plate, ten screws on 150 mm',
    125,
    172,
    14,
    6,
    { count: 10, circle_mm: 150, thread: 'M6 x 1' },
    3,
    'a hand goes through 125 mm; screws no further apart than 50 mm',
    'common practice',
    'plate',
  ),
  ring(
    'clean-out-150',
    'clean-out plate, twelve screws on 178 mm',
    150,
    200,
    14,
    6,
    { count: 12, circle_mm: 178, thread: 'M6 x 1' },
    3,
    'an arm goes through 150 mm; screws no further apart than 50 mm',
    'common practice',
    'plate',
  ),
];

/** A part that stands in a port, by its key. */
export const portPart = (key: string): PortPartRow => PORT_PARTS.find((row) => row.key === key)!;

/** What each kind of port is usually made of, first choice first. */
export const PARTS_FOR_ROLE: Readonly<
  Record<'filler' | 'vent' | 'feed' | 'return' | 'sender' | 'drain' | 'spare', readonly PartGroup[]>
> = {
  filler: ['neck', 'moulded'],
  vent: ['bung', 'bulkhead', 'tapped', 'tube', 'grommet'],
  feed: ['bung', 'bulkhead', 'tapped', 'tube', 'ring', 'moulded'],
  return: ['bung', 'bulkhead', 'tapped', 'tube'],
  sender: ['ring', 'bung', 'tapped'],
  drain: ['bung', 'tapped', 'moulded', 'plate'],
  spare: ['bung', 'tapped', 'ring', 'plate'],
};
