import { nextHexagon } from './portParts';
import { sourced, type Sourced, type Status } from './provenance';
import { THREAD_SYSTEMS, THREADS, type ThreadSystem } from './threads';

/** What two ends are joined by. */
export const JOIN_SYSTEMS = [
  'npt',
  'bsp-taper',
  'bsp-parallel',
  'metric',
  'flare-37',
  'o-ring-boss',
  'coarse',
  'barb',
  'quick',
  'flange',
  'weld',
] as const;
export type JoinSystem = (typeof JOIN_SYSTEMS)[number];

/** Male is what goes in: a male thread, a barb, a tube stub, the plain nose of a quick connector. */
export type Join = { readonly system: JoinSystem; readonly size: string; readonly side: 'male' | 'female' };

export type JoinSystemRow = Sourced & {
  readonly system: JoinSystem;
  readonly name: string;
  /** What makes it tight, and what does not. */ readonly seal: string;
  readonly male: string;
  readonly female: string;
  readonly sizes: readonly string[];
};

const HOSE_SIZES = ['3/16', '1/4', '5/16', '3/8', '1/2', '5/8', '3/4', '1', '1 1/4', '1 1/2', '2', '2 3/8'] as const;
/** Bore of the hose that goes over a barb [mm]. */
const HOSE_BORES_MM = [4.8, 6.4, 7.9, 9.5, 12.7, 15.9, 19.1, 25.4, 31.8, 38.1, 50.8, 60.3] as const;

const sizeOf = (system: ThreadSystem, name: string): string =>
  system === 'flare-37' || system === 'o-ring-boss'
    ? name.split(' ')[0]!
    : system === 'metric' || system === 'coarse'
      ? name
      : name.replace(/ NPT$|^[RG] /, '');
const threadSizes = (system: ThreadSystem): string[] =>
  THREADS.filter((row) => row.system === system).map((row) => sizeOf(system, row.name));
const thread = (system: ThreadSystem, name: string, male: string, female: string): JoinSystemRow => ({
  system,
  name,
  male,
  female,
  seal: THREAD_SYSTEMS[system].seal,
  sizes: threadSizes(system),
  source: THREAD_SYSTEMS[system].source,
  status: THREAD_SYSTEMS[system].status,
});

export const JOINS: Readonly<Record<JoinSystem, JoinSystemRow>> = {
  npt: thread('npt', 'NPT', 'male thread', 'female thread'),
  'bsp-taper': thread('bsp-taper', 'BSP taper (R)', 'male thread', 'female thread'),
  'bsp-parallel': thread('bsp-parallel', 'BSP parallel (G)', 'male thread', 'female thread'),
  metric: thread('metric', 'metric', 'male thread', 'female thread'),
  'flare-37': thread('flare-37', '37° flare', 'male cone', 'swivel nut'),
  'o-ring-boss': thread('o-ring-boss', 'O-ring boss', 'male with O-ring', 'port'),
  coarse: thread('coarse', 'coarse cap thread', 'male thread', 'female thread'),
  barb: {
    system: 'barb',
    name: 'hose on a barb',
    male: 'barb',
    female: 'hose',
    seal: 'a smooth-band clamp over the barb',
    sizes: HOSE_SIZES,
    ...sourced('from memory', 'SAE J30: inside diameters of hose; J2044 for barbs of the same sizes'),
  },
  quick: {
    system: 'quick',
    name: 'quick connector',
    male: 'plain nose',
    female: 'connector',
    seal: 'its own O-rings and clip; pull on it to be sure that it has locked',
    sizes: ['5/16', '3/8'],
    ...sourced('from memory', 'SAE J2044: 5/16 and 3/8 in noses'),
  },
  flange: {
    system: 'flange',
    name: 'flange',
    male: 'flange',
    female: 'flange',
    seal: 'a gasket under even compression',
    sizes: ['2-bolt', '3-bolt', '4-bolt'],
    ...sourced('common practice', 'pump and carburettor flanges; match the bolt circle of the part at hand'),
  },
  weld: {
    system: 'weld',
    name: 'weld',
    male: 'stub',
    female: 'socket',
    seal: 'the weld, leak-tested; never on a line or tank that has held fuel and is not made safe',
    sizes: ['6 mm', '8 mm', '10 mm', '12 mm', '16 mm', '19 mm', '25 mm'],
    ...sourced('common practice', 'tube stubs by outside diameter'),
  },
};

const joinKey = (system: string, size: string): string => `${system} ${size}`;
const THREAD_OF = new Map(THREADS.map((row) => [joinKey(row.system, sizeOf(row.system, row.name)), row]));
/** The thread of a join; undefined of what is no thread. */
export const threadOfJoin = ({ system, size }: Pick<Join, 'system' | 'size'>): (typeof THREADS)[number] | undefined =>
  THREAD_OF.get(joinKey(system, size));

/** The join of a thread by its name in the table of threads. */
export function joinOfThread(name: string, side: Join['side']): Join | undefined {
  const row = THREADS.find((each) => each.name === name);
  return row && { system: row.system, size: sizeOf(row.system, row.name), side };
}

/** The hose or barb size whose bore comes nearest. */
export function hoseSize(bore_m: number): string {
  const nearest = HOSE_BORES_MM.reduce(
    (best, mm, i) => (Math.abs(mm - bore_m * 1e3) < Math.abs(HOSE_BORES_MM[best]! - bore_m * 1e3) ? i : best),
    0,
  );
  return HOSE_SIZES[nearest]!;
}

/**
 * By how much a hose's bore is stretched over the next larger barb; undefined where the barb is no barb, or another
 * than the next. Further than that no hose goes.
 */
export function stretch_ratio(hose: Join, barb: Join): number | undefined {
  if (hose.system !== 'barb' || barb.system !== 'barb' || hose.side !== 'female' || barb.side !== 'male')
    return undefined;
  const [from, to] = [hose, barb].map(({ size }) => HOSE_SIZES.indexOf(size as (typeof HOSE_SIZES)[number]));
  return from! >= 0 && to === from! + 1 ? HOSE_BORES_MM[to]! / HOSE_BORES_MM[from!]! - 1 : undefined;
}

export const FORMS = ['straight', '45', '90'] as const;
export type Form = (typeof FORMS)[number];

export type AdapterRow = Sourced & {
  readonly key: string;
  readonly name: string;
  readonly form: Form;
  readonly a: Join;
  readonly b: Join;
  /** Narrowest bore through it [m]. */
  readonly bore_m: number;
  /** Of the hexagon that is held or turned [m]; none where it has none. */
  readonly acrossFlats_m?: number;
};

const MM = 1e-3;
/**
 * Common practice: the way through a male thread is six tenths of it, through a barb three quarters of the hose's bore.
 */
const THREAD_BORE = 0.6;
export const BARB_BORE = 0.78;

/** The bore through one end of a fitting [m]. */
export function joinBore_m({ system, size }: Join): number {
  const row = threadOfJoin({ system, size });
  if (row) return row.major_m * THREAD_BORE;
  if (system === 'barb')
    return HOSE_BORES_MM[HOSE_SIZES.indexOf(size as (typeof HOSE_SIZES)[number])]! * MM * BARB_BORE;
  if (system === 'quick') return size === '3/8' ? 6.9 * MM : 5.6 * MM;
  return system === 'weld' ? (Number.parseFloat(size) - 2) * MM : 10 * MM;
}

/** The hexagon of a joint's end, from its thread [m]; undefined where no spanner is used. */
export function joinHexagon_m(join: Join): number | undefined {
  const row = threadOfJoin(join);
  // A moulded cap is turned by hand, or by the wrench of its drum.
  if (row?.system === 'coarse') return undefined;
  return row && nextHexagon(row.major_m * (join.side === 'female' ? 1.25 : 1.1));
}

/** An end in words: "1/4 NPT male thread", "-6 37° flare swivel nut", "3/8 in barb". */
export function joinWords({ system, size, side }: Join): string {
  const { name, male, female } = JOINS[system];
  const end = side === 'male' ? male : female;
  if (system === 'barb') return `${size} in ${end}`;
  if (system === 'metric' || system === 'coarse') return `${size} ${end}`;
  return system === 'bsp-taper' || system === 'bsp-parallel'
    ? `${system === 'bsp-taper' ? 'R' : 'G'} ${size} ${end}`
    : `${size} ${name} ${end}`;
}

const SHORT: Readonly<Record<JoinSystem, string>> = {
  npt: 'npt',
  'bsp-taper': 'r',
  'bsp-parallel': 'g',
  metric: '',
  'flare-37': 'flare',
  'o-ring-boss': 'orb',
  coarse: '',
  barb: 'barb',
  quick: 'quick',
  flange: 'flange',
  weld: 'weld',
};
const short = ({ system, size, side }: Join): string =>
  `${SHORT[system]}${size}-${side === 'male' ? 'm' : 'f'}`
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-/, '');

function adapter(a: Join, b: Join, form: Form, why: string, status: Status = 'common practice'): AdapterRow {
  const flats = [a, b].flatMap((join) => joinHexagon_m(join) ?? []);
  const formWords = form === 'straight' ? '' : ` ${form}°`;
  return {
    key: `${short(a)}-${short(b)}${form === 'straight' ? '' : `-${form}`}`,
    name: `${joinWords(a)} to ${joinWords(b)}${formWords}`,
    form,
    a,
    b,
    bore_m: Math.min(joinBore_m(a), joinBore_m(b)),
    ...(flats.length > 0 ? { acrossFlats_m: Math.max(...flats) } : {}),
    ...sourced(status, why),
  };
}

const male = (system: JoinSystem, size: string): Join => ({ system, size, side: 'male' });
const female = (system: JoinSystem, size: string): Join => ({ system, size, side: 'female' });

type Pairs = readonly (readonly [string, readonly string[]])[];

const each = (
  pairs: Pairs,
  forms: readonly Form[],
  a: (size: string) => Join,
  b: (size: string) => Join,
  why: string,
): AdapterRow[] =>
  pairs.flatMap(([first, others]) =>
    others.flatMap((other) => forms.map((form) => adapter(a(first), b(other), form, why))),
  );

const neighbours = (sizes: readonly string[]): Pairs =>
  sizes.map((size, i) => [size, sizes.slice(Math.max(0, i - 2), i)] as const);
const nextUp = (sizes: readonly string[]): Pairs =>
  sizes.slice(0, -1).map((size, i) => [size, [sizes[i + 1]!]] as const);
const same = (sizes: readonly string[]): Pairs => sizes.map((size) => [size, [size]] as const);

const PIPES = ['1/8', '1/4', '3/8', '1/2', '3/4', '1', '1 1/4', '1 1/2', '2'] as const;
const DASHES = ['-3', '-4', '-6', '-8', '-10', '-12', '-16', '-20', '-24', '-32'] as const;
const PIPE_TO_DASH: Pairs = [
  ['1/8', ['-3', '-4', '-6']],
  ['1/4', ['-4', '-6', '-8']],
  ['3/8', ['-6', '-8', '-10']],
  ['1/2', ['-8', '-10', '-12']],
  ['3/4', ['-10', '-12', '-16']],
  ['1', ['-12', '-16']],
  ['1 1/4', ['-16', '-20']],
  ['1 1/2', ['-20', '-24']],
  ['2', ['-24', '-32']],
];
const PIPE_TO_HOSE: Pairs = [
  ['1/8', ['3/16', '1/4', '5/16']],
  ['1/4', ['1/4', '5/16', '3/8']],
  ['3/8', ['5/16', '3/8', '1/2']],
  ['1/2', ['3/8', '1/2', '5/8', '3/4']],
  ['3/4', ['1/2', '5/8', '3/4', '1']],
  ['1', ['3/4', '1', '1 1/4']],
  ['1 1/4', ['1', '1 1/4', '1 1/2']],
  ['1 1/2', ['1 1/4', '1 1/2', '2']],
  ['2', ['1 1/2', '2']],
];
const METRIC_TO_DASH: Pairs = [
  ['M10 x 1', ['-3', '-4']],
  ['M12 x 1.5', ['-4', '-6']],
  ['M14 x 1.5', ['-6']],
  ['M16 x 1.5', ['-6', '-8']],
  ['M18 x 1.5', ['-6', '-8']],
  ['M22 x 1.5', ['-8', '-10']],
];
const METRIC_TO_HOSE: Pairs = [
  ['M10 x 1', ['3/16', '1/4']],
  ['M12 x 1.5', ['1/4', '5/16']],
  ['M14 x 1.5', ['5/16', '3/8']],
  ['M16 x 1.5', ['3/8', '1/2']],
  ['M18 x 1.5', ['3/8', '1/2']],
  ['M22 x 1.5', ['1/2', '5/8']],
];
const DASH_TO_HOSE: Pairs = [
  ['-3', ['3/16']],
  ['-4', ['1/4']],
  ['-6', ['5/16', '3/8']],
  ['-8', ['3/8', '1/2']],
  ['-10', ['1/2', '5/8']],
  ['-12', ['3/4']],
  ['-16', ['1']],
  ['-20', ['1 1/4']],
  ['-24', ['1 1/2']],
  ['-32', ['2']],
];
/** What is made for the openings of drums and crate tanks. */
const COARSE_TO_PIPE: Pairs = [
  ['S56 x 4', ['3/4', '2']],
  ['S60 x 6', ['3/4', '1', '2']],
  ['S70 x 6', ['3/4', '2']],
];
const COARSE_TO_HOSE: Pairs = [['S60 x 6', ['3/4', '1', '2']]];
const ALL_FORMS = FORMS;
const TURNED: readonly Form[] = ['straight', '90'];

/** Adapters that any hydraulics or fuel-hose counter keeps. */
export const ADAPTERS: readonly AdapterRow[] = [
  ...each(
    same(PIPES),
    TURNED,
    (size) => male('npt', size),
    (size) => male('npt', size),
    'pipe nipples and elbows',
  ),
  ...each(
    same(PIPES),
    ['straight'],
    (size) => female('npt', size),
    (size) => female('npt', size),
    'pipe couplings',
  ),
  ...each(
    same(PIPES),
    ALL_FORMS,
    (size) => female('npt', size),
    (size) => male('npt', size),
    'street elbows and extensions',
  ),
  ...each(
    neighbours(PIPES),
    ['straight'],
    (size) => male('npt', size),
    (size) => female('npt', size),
    'reducing bushings',
  ),
  ...each(
    neighbours(PIPES),
    ['straight'],
    (size) => female('npt', size),
    (size) => female('npt', size),
    'reducing couplings',
  ),
  ...each(
    PIPE_TO_DASH,
    ALL_FORMS,
    (size) => male('npt', size),
    (size) => male('flare-37', size),
    'pipe to flare adapters',
  ),
  ...each(
    PIPE_TO_DASH,
    ['straight'],
    (size) => female('npt', size),
    (size) => male('flare-37', size),
    'female pipe to flare adapters',
  ),
  ...each(
    PIPE_TO_HOSE,
    TURNED,
    (size) => male('npt', size),
    (size) => male('barb', size),
    'pipe to hose barbs',
  ),
  ...each(
    PIPE_TO_HOSE,
    ['straight'],
    (size) => female('npt', size),
    (size) => male('barb', size),
    'female pipe to hose barbs',
  ),
  ...each(
    same(PIPES),
    TURNED,
    (size) => male('bsp-parallel', size),
    (size) => female('npt', size),
    'British to American pipe thread',
  ),
  ...each(
    same(PIPES),
    ['straight'],
    (size) => female('bsp-parallel', size),
    (size) => male('npt', size),
    'British to American pipe thread',
  ),
  ...each(
    same(PIPES),
    ['straight'],
    (size) => male('bsp-taper', size),
    (size) => female('npt', size),
    'British to American pipe thread',
  ),
  ...each(
    PIPE_TO_DASH,
    TURNED,
    (size) => male('bsp-parallel', size),
    (size) => male('flare-37', size),
    'British pipe to flare adapters',
  ),
  ...each(
    PIPE_TO_HOSE,
    TURNED,
    (size) => male('bsp-parallel', size),
    (size) => male('barb', size),
    'British pipe to hose barbs',
  ),
  ...each(
    PIPE_TO_HOSE,
    TURNED,
    (size) => male('bsp-taper', size),
    (size) => male('barb', size),
    'British pipe to hose barbs',
  ),
  ...each(
    METRIC_TO_DASH,
    TURNED,
    (size) => male('metric', size),
    (size) => male('flare-37', size),
    'metric to flare adapters',
  ),
  ...each(
    METRIC_TO_HOSE,
    TURNED,
    (size) => male('metric', size),
    (size) => male('barb', size),
    'metric to hose barbs; with a banjo bolt where it must turn',
  ),
  ...each(
    same(DASHES),
    TURNED,
    (size) => male('flare-37', size),
    (size) => male('flare-37', size),
    'flare unions',
  ),
  ...each(
    neighbours(DASHES),
    ['straight'],
    (size) => male('flare-37', size),
    (size) => male('flare-37', size),
    'flare reducers',
  ),
  ...each(
    same(DASHES),
    ALL_FORMS,
    (size) => female('flare-37', size),
    (size) => male('flare-37', size),
    'swivel elbows: they let a hose leave without a kink',
  ),
  ...each(
    neighbours(DASHES),
    ['straight'],
    (size) => female('flare-37', size),
    (size) => male('flare-37', size),
    'swivel reducers',
  ),
  ...each(
    same(DASHES),
    TURNED,
    (size) => male('o-ring-boss', size),
    (size) => male('flare-37', size),
    'O-ring boss to flare',
  ),
  ...each(
    neighbours(DASHES),
    ['straight'],
    (size) => male('o-ring-boss', size),
    (size) => male('flare-37', size),
    'O-ring boss to smaller flare',
  ),
  ...each(
    nextUp(DASHES),
    ['straight'],
    (size) => male('o-ring-boss', size),
    (size) => male('flare-37', size),
    'O-ring boss to the next larger flare',
  ),
  ...each(
    DASH_TO_HOSE,
    ALL_FORMS,
    (size) => female('flare-37', size),
    (size) => male('barb', size),
    'push-on hose ends',
  ),
  ...each(
    [
      ['5/16', ['-6']],
      ['3/8', ['-6', '-8']],
    ],
    ['straight'],
    (size) => female('quick', size),
    (size) => male('flare-37', size),
    'quick connector to flare',
  ),
  ...each(
    [
      ['5/16', ['5/16', '3/8']],
      ['3/8', ['3/8', '1/2']],
    ],
    TURNED,
    (size) => female('quick', size),
    (size) => male('barb', size),
    'quick connector to hose barb',
  ),
  ...each(
    [
      ['-6', ['5/16', '3/8']],
      ['-8', ['3/8']],
    ],
    ['straight'],
    (size) => female('flare-37', size),
    (size) => male('quick', size),
    'flare to the nose of a quick connector',
  ),
  ...each(
    COARSE_TO_PIPE,
    ['straight'],
    (size) => male('coarse', size),
    (size) => female('npt', size),
    'bungs of plastic drums with a pipe thread in them',
  ),
  ...each(
    COARSE_TO_PIPE,
    ['straight'],
    (size) => female('coarse', size),
    (size) => male('bsp-parallel', size),
    'adapters of crate-tank outlets',
  ),
  ...each(
    COARSE_TO_HOSE,
    ['straight'],
    (size) => female('coarse', size),
    (size) => male('barb', size),
    'hose ends of crate-tank outlets',
  ),
  ...each(
    same(HOSE_SIZES),
    TURNED,
    (size) => male('barb', size),
    (size) => male('barb', size),
    'hose joiners',
  ),
  ...each(
    neighbours(HOSE_SIZES),
    ['straight'],
    (size) => male('barb', size),
    (size) => male('barb', size),
    'stepped hose joiners',
  ),
];

/** An adapter by its key. */
export const adapterRow = (key: string): AdapterRow | undefined => ADAPTERS.find((row) => row.key === key);
