import { sourced, type Sourced } from './provenance';

export type ThreadSystem = 'npt' | 'bsp-taper' | 'bsp-parallel' | 'metric' | 'flare-37' | 'o-ring-boss' | 'coarse';

/** What closes a joint of a system. */
export type ThreadSystemRow = Sourced & {
  readonly system: ThreadSystem;
  readonly name: string;
  /** Of a form that is alike on both sides; a buttress thread is not. */
  readonly flank_deg?: 55 | 60;
  /** Change of diameter along the thread; 0 for parallel ones. */
  readonly taper_ratio: number;
  readonly seal: string;
  /** What tells it from others of about the same size. */
  readonly tell: string;
};

export const THREAD_SYSTEMS: Readonly<Record<ThreadSystem, ThreadSystemRow>> = {
  npt: {
    system: 'npt',
    name: 'NPT pipe thread',
    flank_deg: 60,
    taper_ratio: 1 / 16,
    seal: 'sealant or tape on the thread',
    tell: 'It narrows by 1 mm in 16: lay a straight edge along it. Flanks at 60°, crests cut flat.',
    ...sourced('from memory', 'ASME B1.20.1: form, taper 1 in 16 on the diameter'),
  },
  'bsp-taper': {
    system: 'bsp-taper',
    name: 'British pipe thread, taper (R)',
    flank_deg: 55,
    taper_ratio: 1 / 16,
    seal: 'sealant or tape on the thread',
    tell: 'It narrows by 1 mm in 16. Flanks at 55°, crests round: a 60° gauge rocks in it.',
    ...sourced('from memory', 'ISO 7-1: form, taper 1 in 16 on the diameter'),
  },
  'bsp-parallel': {
    system: 'bsp-parallel',
    name: 'British pipe thread, parallel (G)',
    flank_deg: 55,
    taper_ratio: 0,
    seal: 'bonded washer or O-ring under the shoulder',
    tell: 'Parallel, flanks at 55°, a flat shoulder for a washer.',
    ...sourced('from memory', 'ISO 228-1: form'),
  },
  metric: {
    system: 'metric',
    name: 'metric thread',
    flank_deg: 60,
    taper_ratio: 0,
    seal: 'copper or bonded washer under the shoulder, or an O-ring',
    tell: 'Parallel, flanks at 60°, whole millimetres and a pitch in half or quarter millimetres.',
    ...sourced('from memory', 'ISO 261 and ISO 68-1: sizes and form'),
  },
  'flare-37': {
    system: 'flare-37',
    name: '37° flare (dash size)',
    flank_deg: 60,
    taper_ratio: 0,
    seal: 'the cone itself, metal on metal; never sealant',
    tell: 'A cone of 37° on its nose, no groove for a ring.',
    ...sourced('from memory', 'SAE J514: threads and cone'),
  },
  'o-ring-boss': {
    system: 'o-ring-boss',
    name: 'O-ring boss (dash size)',
    flank_deg: 60,
    taper_ratio: 0,
    seal: 'an O-ring in the chamfer of the port',
    tell: 'An O-ring behind the thread, no cone on its nose; the port has a chamfer.',
    ...sourced('from memory', 'SAE J1926-1: threads and port'),
  },
  coarse: {
    system: 'coarse',
    name: 'coarse cap thread',
    taper_ratio: 0,
    seal: 'a flat gasket in the cap or under its rim, of a rubber for the liquid',
    tell: 'Four to six millimetres a turn, one flank steep and one slanting; moulded in plastic.',
    ...sourced('from memory', 'DIN 6063-2 and closures of plastic drums: buttress threads'),
  },
};

/** One size of thread. */
export type ThreadRow = Sourced & {
  readonly system: ThreadSystem;
  readonly name: string;
  /** Outside diameter; of a taper thread at the plane where its gauge ring stops, within a turn [m]. */
  readonly major_m: number;
  readonly pitch_m: number;
  /** Hole to drill before the tap, without a reamer [m]. */
  readonly tapDrill_m: number;
  /** As the drill is called where it has a name of its own. */
  readonly drill?: string;
  /** By hand for a taper thread; usual full thread for a parallel one [m]. */
  readonly engagement_m: number;
};

const INCH = 0.0254;
const MM = 1e-3;

const pipe = (
  system: 'npt',
  rows: readonly (readonly [string, number, number, number, string, number])[],
  source: string,
): ThreadRow[] =>
  rows.map(([name, major_in, perInch, drill_in, drill, hand_in]) => ({
    system,
    name,
    major_m: major_in * INCH,
    pitch_m: INCH / perInch,
    tapDrill_m: drill_in * INCH,
    drill,
    engagement_m: hand_in * INCH,
    ...sourced('from memory', source),
  }));

/** Size, outside diameter of the pipe [in], turns an inch, drill [in] and its name, engagement by hand [in]. */
const NPT = pipe(
  'npt',
  [
    ['1/16 NPT', 0.3125, 27, 0.246, 'D', 0.16],
    ['1/8 NPT', 0.405, 27, 0.339, 'R', 0.1615],
    ['1/4 NPT', 0.54, 18, 0.4375, '7/16', 0.2278],
    ['3/8 NPT', 0.675, 18, 0.5781, '37/64', 0.24],
    ['1/2 NPT', 0.84, 14, 0.7188, '23/32', 0.32],
    ['3/4 NPT', 1.05, 14, 0.9219, '59/64', 0.339],
    ['1 NPT', 1.315, 11.5, 1.1563, '1 5/32', 0.4],
    ['1 1/4 NPT', 1.66, 11.5, 1.5, '1 1/2', 0.42],
    ['1 1/2 NPT', 1.9, 11.5, 1.7344, '1 47/64', 0.42],
    ['2 NPT', 2.375, 11.5, 2.2188, '2 7/32', 0.436],
  ],
  'ASME B1.20.1: diameter, pitch, hand engagement; drills of the usual tap charts',
);

/** Size, outside diameter [mm], turns an inch, drills for G and R [mm], gauge length of R [mm]. */
const BSP_SIZES = [
  ['1/8', 9.728, 28, 8.8, 8.4, 4],
  ['1/4', 13.157, 19, 11.8, 11.2, 6],
  ['3/8', 16.662, 19, 15.25, 14.75, 6.4],
  ['1/2', 20.955, 14, 19, 18.25, 8.2],
  ['3/4', 26.441, 14, 24.5, 23.75, 9.5],
  ['1', 33.249, 11, 30.75, 30, 10.4],
  ['1 1/4', 41.91, 11, 39.5, 38.5, 12.7],
  ['1 1/2', 47.803, 11, 45, 44.5, 12.7],
  ['2', 59.614, 11, 57, 56, 15.9],
] as const;
const BSP: ThreadRow[] = BSP_SIZES.flatMap(([size, major, perInch, drillG, drillR, gauge]) => [
  {
    system: 'bsp-parallel' as const,
    name: `G ${size}`,
    major_m: major * MM,
    pitch_m: INCH / perInch,
    tapDrill_m: drillG * MM,
    engagement_m: 1.5 * gauge * MM,
    ...sourced('from memory', 'ISO 228-1: diameter and pitch; drills of the usual tap charts'),
  },
  {
    system: 'bsp-taper' as const,
    name: `R ${size}`,
    major_m: major * MM,
    pitch_m: INCH / perInch,
    tapDrill_m: drillR * MM,
    engagement_m: gauge * MM,
    ...sourced('from memory', 'ISO 7-1: diameter, pitch and gauge length; drills of the usual tap charts'),
  },
]);

const METRIC: ThreadRow[] = (
  [
    [4, 0.7],
    [5, 0.8],
    [6, 1],
    [8, 1.25],
    [8, 1],
    [10, 1.5],
    [10, 1.25],
    [10, 1],
    [12, 1.75],
    [12, 1.5],
    [12, 1.25],
    [12, 1],
    [14, 1.5],
    [16, 1.5],
    [18, 1.5],
    [20, 1.5],
    [22, 1.5],
    [24, 1.5],
    [26, 1.5],
    [27, 2],
    [30, 2],
    [30, 1.5],
    [33, 2],
    [36, 2],
    [42, 2],
    [45, 1.5],
  ] as const
).map(([major, pitch]) => ({
  system: 'metric',
  name: `M${major} x ${pitch}`,
  major_m: major * MM,
  pitch_m: pitch * MM,
  tapDrill_m: (major - pitch) * MM,
  engagement_m: major * MM,
  ...sourced('from memory', 'ISO 261: diameters and pitches; drill by diameter less pitch, as ISO 2306 rounds it'),
}));

/** Dash, thread [in], turns an inch, drill [in] and its name; the same threads serve flares and O-ring bosses. */
const DASHES = [
  [2, '5/16-24', 5 / 16, 24, 0.272, 'I'],
  [3, '3/8-24', 3 / 8, 24, 0.332, 'Q'],
  [4, '7/16-20', 7 / 16, 20, 0.3906, '25/64'],
  [5, '1/2-20', 1 / 2, 20, 0.4531, '29/64'],
  [6, '9/16-18', 9 / 16, 18, 0.5156, '33/64'],
  [8, '3/4-16', 3 / 4, 16, 0.6875, '11/16'],
  [10, '7/8-14', 7 / 8, 14, 0.8125, '13/16'],
  [12, '1 1/16-12', 17 / 16, 12, 0.9844, '63/64'],
  [16, '1 5/16-12', 21 / 16, 12, 1.2344, '1 15/64'],
  [20, '1 5/8-12', 13 / 8, 12, 1.5469, '1 35/64'],
  [24, '1 7/8-12', 15 / 8, 12, 1.7969, '1 51/64'],
  [32, '2 1/2-12', 5 / 2, 12, 2.4219, '2 27/64'],
] as const;
const DASH_THREADS: ThreadRow[] = DASHES.flatMap(([dash, thread, major, perInch, drill_in, drill]) =>
  (['flare-37', 'o-ring-boss'] as const).map((system): ThreadRow => ({
    system,
    name: `-${dash} ${system === 'flare-37' ? 'flare' : 'O-ring boss'} (${thread})`,
    major_m: major * INCH,
    pitch_m: INCH / perInch,
    tapDrill_m: drill_in * INCH,
    drill,
    engagement_m: major * INCH * 0.75,
    ...sourced(
      'from memory',
      system === 'flare-37' ? 'SAE J514, with threads of ASME B1.1' : 'SAE J1926-1, with threads of ASME B1.1',
    ),
  })),
);

/** Openings of bought plastic vessels: outside diameter and pitch [mm]. They are moulded, and tapped by nobody. */
const COARSE: ThreadRow[] = (
  [
    [56, 4, 'the 2 in bung of plastic drums, one of two in use'],
    [60, 6, 'the outlet of crate tanks (DIN 6063-2)'],
    [70, 6, 'the 2 in bung of plastic drums, the other'],
  ] as const
).map(([major, pitch, where]) => ({
  system: 'coarse',
  name: `S${major} x ${pitch}`,
  major_m: major * MM,
  pitch_m: pitch * MM,
  tapDrill_m: (major - pitch) * MM,
  engagement_m: 2.5 * pitch * MM,
  ...sourced('from memory', `${where}; measure the one at hand`),
}));

export const THREADS: readonly ThreadRow[] = [...NPT, ...BSP, ...METRIC, ...DASH_THREADS, ...COARSE];
