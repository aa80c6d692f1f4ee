import { INCH_M } from '../units/units';
import { LINE_SIZES, type LineKind } from './lineSizes';
import type { RoughnessKey } from './losses';
import { sourced, type Sourced } from './provenance';

/**
 * Lines as they are bought by the metre: what a size table offers and what a bend, a support or a grommet is judged by.
 */
export type LineStockRow = Sourced & {
  readonly key: string;
  readonly kind: LineKind;
  readonly name: string;
  /** The series that it belongs to: sizes are chosen within one. */
  readonly series: string;
  readonly bore_m: number;
  readonly outside_m: number;
  /** Tightest bend, to the middle of the line, that neither kinks nor hurts it. */
  readonly bend_m: number;
  readonly pressure_Pa: number;
  readonly wall: RoughnessKey;
  /** Row of the table of what fuel does to what it touches. */
  readonly material: string;
};

export type LineSeries = Sourced & { readonly key: string; readonly name: string; readonly kind: LineKind };

const MM = 1e-3;
const BAR = 1e5;

export const LINE_SERIES: readonly LineSeries[] = [
  {
    key: 'hose-push',
    name: 'fuel hose, slipped over barbs (SAE J30 R7)',
    kind: 'hose',
    ...sourced('from memory', 'SAE J30: R7 for 50 psi, outside a tank only'),
  },
  {
    key: 'hose-injection',
    name: 'injection hose (SAE J30 R9)',
    kind: 'hose',
    ...sourced('from memory', 'SAE J30: R9 for 100 psi, barrier inside'),
  },
  {
    key: 'hose-marine',
    name: 'fire-resistant marine hose (ISO 7840 / SAE J1527 A1)',
    kind: 'hose',
    ...sourced('from memory', 'ISO 7840, SAE J1527: fire test of two and a half minutes'),
  },
  {
    key: 'hose-fill',
    name: 'filler hose, over necks (SAE J1527 A2 / ISO 7840)',
    kind: 'hose',
    ...sourced('from memory', 'SAE J1527, ISO 7840: filler hose by the outside of the neck'),
  },
  {
    key: 'hose-dash',
    name: 'PTFE hose with dash ends (SAE J517 100R14)',
    kind: 'hose',
    ...sourced('from memory', 'SAE J517, 100R14'),
  },
  {
    key: 'tube-steel',
    name: 'steel or stainless tube, metric',
    kind: 'tube',
    ...sourced('from memory', 'EN 10305-4: sizes'),
  },
  {
    key: 'tube-dash',
    name: 'steel or stainless tube, dash',
    kind: 'tube',
    ...sourced('derived', 'dash = outside diameter in 1/16 in (SAE J514)'),
  },
  {
    key: 'tube-aluminium',
    name: 'aluminium fuel tube',
    kind: 'tube',
    ...sourced('common practice', 'coils of 3003 or 5052 with a wall of 0.049 in'),
  },
  {
    key: 'tube-copper-nickel',
    name: 'copper-nickel tube',
    kind: 'tube',
    ...sourced('from memory', 'DIN 74234 and BS EN 12449: wall 0.7 to 1 mm'),
  },
  {
    key: 'tube-nylon',
    name: 'nylon tube (PA 12)',
    kind: 'tube',
    ...sourced('from memory', 'DIN 73378: sizes of tube for vehicles'),
  },
  { key: 'pipe-40', name: 'pipe, schedule 40', kind: 'pipe', ...sourced('from memory', 'ASME B36.10M, schedule 40') },
];

type Row = readonly [name: string, bore_m: number, outside_m: number, bend_m: number];

function series(
  key: string,
  rows: readonly Row[],
  pressure_Pa: number,
  wall: RoughnessKey,
  material: string,
  source: Sourced,
): LineStockRow[] {
  const { kind } = LINE_SERIES.find((each) => each.key === key)!;
  return rows.map(([name, bore_m, outside_m, bend_m]) => ({
    key: `${key}-${name
      .replace(/ x /g, 'x')
      .replace(/[^0-9a-z]+/gi, '-')
      .replace(/^-|-$/g, '')}`,
    kind,
    name,
    series: key,
    bore_m,
    outside_m,
    bend_m,
    pressure_Pa,
    wall,
    material,
    ...source,
  }));
}

const inch = (name: string, bore: number, outside: number, bend: number): Row => [
  name,
  bore * INCH_M,
  outside * INCH_M,
  bend * INCH_M,
];
const mm = (name: string, bore: number, outside: number, bend: number): Row => [
  name,
  bore * MM,
  outside * MM,
  bend * MM,
];

const HOSES: readonly Row[] = [
  mm('5 mm (3/16)', 4.8, 10.5, 50),
  mm('6 mm (1/4)', 6.4, 12.7, 75),
  mm('8 mm (5/16)', 7.9, 14.3, 75),
  mm('10 mm (3/8)', 9.5, 15.9, 100),
  mm('13 mm (1/2)', 12.7, 19.5, 125),
  mm('16 mm (5/8)', 15.9, 23, 150),
  mm('19 mm (3/4)', 19.1, 27, 180),
  mm('25 mm (1)', 25.4, 34, 230),
  mm('32 mm (1 1/4)', 31.8, 42, 280),
  mm('38 mm (1 1/2)', 38.1, 49, 330),
];
const smallHoses = HOSES.slice(1, 6);
/** Common practice: a hand bender's radius is about two and a half outside diameters, to the middle. */
const BENDER = 2.5;
const tube = (name: string, outside_mm: number, wall_mm: number): Row =>
  mm(name, outside_mm - 2 * wall_mm, outside_mm, BENDER * outside_mm);

export const LINE_STOCK: readonly LineStockRow[] = [
  ...series(
    'hose-push',
    HOSES,
    3.4 * BAR,
    'hose',
    '30r7',
    sourced('from memory', 'SAE J30: inside diameters and tolerances; bends and outsides of usual makes'),
  ),
  ...series(
    'hose-injection',
    smallHoses,
    6.9 * BAR,
    'hose',
    '30r9',
    sourced('from memory', 'SAE J30: inside diameters, 100 psi; bends and outsides of usual makes'),
  ),
  ...series(
    'hose-marine',
    HOSES.slice(1).map(([name, bore, outside, bend]): Row => [name, bore, outside + 4 * MM, bend * 1.1]),
    3 * BAR,
    'hose',
    'iso7840',
    sourced('from memory', 'ISO 7840: inside diameters; bends and outsides of usual makes'),
  ),
  ...series(
    'hose-fill',
    [
      mm('32 mm (1 1/4)', 31.8, 44, 160),
      mm('38 mm (1 1/2)', 38.1, 51, 190),
      mm('51 mm (2)', 50.8, 64, 255),
      mm('60 mm (2 3/8)', 60.3, 74, 300),
    ],
    1 * BAR,
    'hose',
    'iso7840',
    sourced(
      'from memory',
      'SAE J1527 A2: inside diameters of filler hose; wire in it, bends of five diameters: common practice',
    ),
  ),
  ...series(
    'hose-dash',
    [
      inch('-4', 0.188, 0.312, 2),
      inch('-5', 0.25, 0.375, 3),
      inch('-6', 0.313, 0.44, 4),
      inch('-8', 0.406, 0.54, 5.25),
      inch('-10', 0.5, 0.64, 6.5),
      inch('-12', 0.625, 0.77, 7.75),
      inch('-16', 0.875, 1.03, 9),
    ],
    70 * BAR,
    'plastic',
    'ptfe',
    sourced('from memory', 'SAE J517, 100R14: inside diameters and bends; lowest pressure of the row'),
  ),
  ...series(
    'tube-steel',
    [
      tube('6 x 1', 6, 1),
      tube('8 x 1', 8, 1),
      tube('10 x 1', 10, 1),
      tube('12 x 1', 12, 1),
      tube('15 x 1.5', 15, 1.5),
      tube('18 x 1.5', 18, 1.5),
      tube('22 x 1.5', 22, 1.5),
      tube('28 x 2', 28, 2),
    ],
    100 * BAR,
    'drawn-tube',
    'stainless',
    sourced(
      'from memory',
      'EN 10305-4: outside diameters and walls; bends by a hand bender of 2.5 diameters, common practice',
    ),
  ),
  ...series(
    'tube-dash',
    LINE_SIZES.filter(({ kind }) => kind === 'tube').map(({ name, bore_m, outside_m }): Row => [
      name,
      bore_m,
      outside_m!,
      BENDER * outside_m!,
    ]),
    100 * BAR,
    'drawn-tube',
    'stainless',
    sourced(
      'derived',
      'dash = outside diameter in 1/16 in (SAE J514); bends by a hand bender of 2.5 diameters, common practice',
    ),
  ),
  ...series(
    'tube-aluminium',
    [
      inch('5/16', 0.2145, 0.3125, 1),
      inch('3/8', 0.277, 0.375, 1.25),
      inch('1/2', 0.402, 0.5, 1.75),
      inch('5/8', 0.527, 0.625, 2.5),
    ],
    20 * BAR,
    'drawn-tube',
    'aluminium',
    sourced(
      'common practice',
      'coils of 3003 with a wall of 0.049 in; bends of three diameters and more, since it work-hardens',
    ),
  ),
  ...series(
    'tube-copper-nickel',
    [tube('4.75 x 0.7', 4.75, 0.7), tube('6 x 0.7', 6, 0.7), tube('8 x 0.9', 8, 0.9), tube('10 x 1', 10, 1)],
    100 * BAR,
    'drawn-tube',
    'copper',
    sourced(
      'from memory',
      'DIN 74234: outside diameters and walls; bends by a hand bender of 2.5 diameters, common practice',
    ),
  ),
  ...series(
    'tube-nylon',
    [
      mm('4 x 1', 2, 4, 25),
      mm('6 x 1', 4, 6, 40),
      mm('8 x 1', 6, 8, 55),
      mm('10 x 1', 8, 10, 75),
      mm('12 x 1.5', 9, 12, 90),
    ],
    15 * BAR,
    'plastic',
    'nylon',
    sourced('from memory', 'DIN 73378: outside diameters, walls and least bends'),
  ),
  ...series(
    'pipe-40',
    LINE_SIZES.filter(({ kind }) => kind === 'pipe').map(({ name, bore_m, outside_m }): Row => [
      name,
      bore_m,
      outside_m!,
      5 * outside_m!,
    ]),
    10 * BAR,
    'steel-pipe',
    'mild-steel',
    sourced('from memory', 'ASME B36.10M, schedule 40; bends of five diameters, common practice'),
  ),
];

/** A kind of line by its key; undefined where there is none. */
export const lineStock = (key: string): LineStockRow | undefined => LINE_STOCK.find((row) => row.key === key);

/** The series that a line is taken to be of until one is chosen. */
export const USUAL_SERIES: Readonly<Record<LineKind, string>> = {
  hose: 'hose-push',
  tube: 'tube-steel',
  pipe: 'pipe-40',
};

/** The size of a series whose bore comes nearest. */
export function nearestStock(seriesKey: string, bore_m: number): LineStockRow {
  const rows = LINE_STOCK.filter((row) => row.series === seriesKey);
  return rows.reduce((best, row) => (Math.abs(row.bore_m - bore_m) < Math.abs(best.bore_m - bore_m) ? row : best));
}

/** Furthest apart that a line's holders may stand, up to an outside diameter [m]. */
export const LINE_SUPPORTS: readonly (Sourced & {
  readonly kind: LineKind;
  readonly upTo_m: number;
  readonly spacing_m: number;
})[] = [
  {
    kind: 'hose',
    upTo_m: 1,
    spacing_m: 0.36,
    ...sourced('from memory', 'ABYC H-33: fuel lines held every 14 in; taken for hose everywhere'),
  },
  { kind: 'tube', upTo_m: 0.008, spacing_m: 0.5, ...sourced('common practice', 'thin tube every half metre') },
  {
    kind: 'tube',
    upTo_m: 0.014,
    spacing_m: 0.75,
    ...sourced('common practice', 'tube of 10 or 12 mm every three quarters of a metre'),
  },
  { kind: 'tube', upTo_m: 1, spacing_m: 1, ...sourced('common practice', 'wider tube every metre') },
  { kind: 'pipe', upTo_m: 1, spacing_m: 1.5, ...sourced('common practice', 'pipe every metre and a half') },
];

/** Furthest apart that the holders of a line may stand [m]. */
export const supportSpacing_m = (kind: LineKind, outside_m: number): number =>
  LINE_SUPPORTS.find((row) => row.kind === kind && outside_m <= row.upTo_m)!.spacing_m;

/** Grommets for a line through sheet: the hole cut, by the hole in the rubber [m]. */
export const GROMMETS: readonly (Sourced & {
  readonly name: string;
  readonly holds_m: number;
  readonly hole_m: number;
})[] = (
  [
    [4, 8],
    [6, 10],
    [8, 13],
    [10, 16],
    [12, 18],
    [14, 20],
    [16, 22],
    [20, 27],
    [25, 33],
    [32, 41],
    [38, 48],
    [50, 62],
  ] as const
).map(([holds, hole]) => ({
  name: `${holds} mm`,
  holds_m: holds * MM,
  hole_m: hole * MM,
  ...sourced('common practice', 'usual ring grommets; the rubber may be up to a tenth tighter than the line'),
}));

/** How much tighter than the line the rubber of a grommet may be. */
const GROMMET_STRETCH = 1.1;

/** The smallest grommet that takes a line; undefined over the largest. */
export const grommetFor = (outside_m: number) => GROMMETS.find(({ holds_m }) => holds_m * GROMMET_STRETCH >= outside_m);
