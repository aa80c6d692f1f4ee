import { grommetFor, LINE_SERIES } from '../../reference/lineStock';
import { joinOfItem, joinOfLine, itemsOf, openEnds, stockOf, type Item, type Circuits } from '../../plan/circuits';
import { kindOf, type EndName } from '../../components';
import type { LineDocument } from '../../plan/schema';
import { adapterChains, mismatch, placeChain, sealOf, spannersOf, type AdapterChain } from '../../fittings';
import { adapterRow, joinWords, stretch_ratio, type AdapterRow, type Join } from '../../reference/joins';

/**
 * Mates: as it is, or through its adapters. Broken: what is there does not go together. Unsaid: nobody has said how an
 * end is made.
 */
export type JointState = 'mates' | 'broken' | 'unsaid';

/** Where a line meets a part; or a part a part, where they are screwed together. */
export type Joint = {
  readonly line: string;
  readonly lineName: string;
  readonly at: 'from' | 'to';
  readonly part: string;
  readonly partName: string;
  readonly end: EndName;
  readonly near: Join | undefined;
  readonly far: Join | undefined;
  readonly adapters: readonly AdapterRow[];
  readonly state: JointState;
  readonly why?: string;
  /** Where its hose could be stretched over a barb that is one size too large, or is: by so much. */
  readonly stretch_ratio?: number;
  readonly isStretched?: boolean;
  /** What makes each of its joints tight, from the line on. */
  readonly seals: readonly string[];
  readonly spanners_m: readonly number[];
};

/** Every joint of every line. A line of no length that only joins two parts has one. */
export function jointsOf(system: Circuits): Joint[] {
  const items = new Map(itemsOf(system).map((item) => [item.id, item]));
  // What is held into an opening is joined to nothing.
  const loose = new Set(system.components.flatMap((part) => (part.kind === 'receiver' ? [part.id] : [])));
  return system.lines.flatMap((line) =>
    line.kind === 'direct'
      ? loose.has(line.to.item) || loose.has(line.from.item)
        ? []
        : [jointAt(items, line, 'to')]
      : (['from', 'to'] as const).map((at) => jointAt(items, line, at)),
  );
}

function jointAt(items: ReadonlyMap<string, Item>, line: LineDocument, at: 'from' | 'to'): Joint {
  const { item: part, end, adapters: keys } = line[at];
  const item = items.get(part);
  const other = items.get(line.from.item);
  const near = line.kind === 'direct' ? other && joinOfItem(other, line.from.end) : joinOfLine(line, at);
  const far = item && joinOfItem(item, end);
  const adapters = keys.flatMap((key) => adapterRow(key) ?? []);
  const base = { line: line.id, lineName: line.name, at, part, partName: item?.name ?? part, end, near, far, adapters };
  if (!near || !far) return { ...base, state: 'unsaid', seals: [], spanners_m: [] };
  const stretch = adapters.length === 0 ? stretch_ratio(near, far) : undefined;
  if (stretch !== undefined && line[at].stretched)
    return {
      ...base,
      state: 'mates',
      stretch_ratio: stretch,
      isStretched: true,
      seals: [sealOf(near, far)],
      spanners_m: [],
    };
  const placed = placeChain(near, far, adapters);
  if (!placed) {
    const why =
      adapters.length === 0
        ? mismatch(near, far)!
        : 'The adapters that are put down do not lie between these two ends.';
    return {
      ...base,
      state: 'broken',
      why,
      ...(stretch === undefined ? {} : { stretch_ratio: stretch }),
      seals: [],
      spanners_m: [],
    };
  }
  const ends = [near, ...placed.flatMap(({ near: one, far: two }) => [one, two]), far];
  const seals = Array.from({ length: ends.length / 2 }, (_, i) => sealOf(ends[2 * i]!, ends[2 * i + 1]!));
  return { ...base, state: 'mates', seals, spanners_m: spannersOf([near, far], adapters) };
}

/**
 * Chains of adapters that would mend a joint, best first; none where nothing known joins its ends, or an end is unsaid.
 */
export const mendsOf = ({ near, far }: Pick<Joint, 'near' | 'far'>): AdapterChain[] =>
  near && far ? adapterChains(near, far) : [];

export type PartsRow = {
  readonly what: 'part' | 'adapter' | 'hose end' | 'clamp' | 'holder' | 'grommet' | 'pump electrics';
  readonly name: string;
  readonly count: number;
  readonly where: readonly string[];
};

export type CutRow = {
  readonly line: string;
  readonly name: string;
  readonly stock: string;
  /** To cut, ends included [m]. */ readonly cut_m: number;
  readonly ends: readonly string[];
};

export type StockTotal = { readonly stock: string; readonly total_m: number; readonly pieces: number };

export type LinesList = {
  readonly parts: readonly PartsRow[];
  readonly cuts: readonly CutRow[];
  readonly totals: readonly StockTotal[];
  readonly spanners_m: readonly number[];
  readonly openEnds: readonly { readonly item: string; readonly name: string; readonly end: EndName }[];
};

/** Common practice: a hose goes 25 mm over its barb, a flare takes up 3 mm of tube. */
const OVER_BARB_M = 0.025;
const FLARE_M = 0.003;

/**
 * Parts list and cut list of all circuits.
 * @param joints of the same system
 */
export function linesList(system: Circuits, joints: readonly Joint[]): LinesList {
  const direct = new Set(system.lines.filter(({ kind }) => kind === 'direct').map(({ id }) => id));
  const ofLines = joints.filter(({ line }) => !direct.has(line));
  const rows = [
    ...partRows(system),
    ...adapterRows(joints),
    ...endRows(ofLines),
    ...clampRows(ofLines),
    ...holderRows(system),
    ...grommetRows(system),
    ...wiringRows(system),
  ];
  const cuts = cutRows(system);
  const byStock = new Map<string, CutRow[]>();
  for (const cut of cuts) byStock.set(cut.stock, [...(byStock.get(cut.stock) ?? []), cut]);
  const names = new Map(itemsOf(system).map(({ id, name }) => [id, name]));
  return {
    parts: merged(rows),
    cuts,
    totals: [...byStock].map(([stock, of]) => ({
      stock,
      total_m: of.reduce((sum, { cut_m }) => sum + cut_m, 0),
      pieces: of.length,
    })),
    spanners_m: [...new Set(joints.flatMap(({ spanners_m }) => spanners_m))].sort((a, b) => a - b),
    openEnds: openEnds(system).map(({ item, end }) => ({ item, end, name: names.get(item) ?? item })),
  };
}

type Single = Omit<PartsRow, 'count'> & { readonly count?: number };

/** Rows of one kind and name become one, counted. */
function merged(rows: readonly Single[]): PartsRow[] {
  const found = new Map<string, PartsRow>();
  for (const row of rows) {
    const key = `${row.what} ${row.name}`;
    const other = found.get(key);
    found.set(key, {
      what: row.what,
      name: row.name,
      count: (other?.count ?? 0) + (row.count ?? 1),
      where: [...new Set([...(other?.where ?? []), ...row.where])],
    });
  }
  return [...found.values()];
}

const partRows = ({ components }: Circuits): Single[] =>
  components.filter((part) => !kindOf(part).isEndPoint).map(({ name }) => ({ what: 'part', name, where: [] }));
const adapterRows = (joints: readonly Joint[]): Single[] =>
  joints.flatMap(({ adapters, lineName, partName }) =>
    adapters.map(({ name }): Single => ({ what: 'adapter', name, where: [`${lineName}, at ${partName}`] })),
  );

/** Ends that are put on a line by themselves: swivel nuts, threads; a hose on a barb needs none. */
const endRows = (joints: readonly Joint[]): Single[] =>
  joints.flatMap(({ near, lineName }) =>
    near && near.system !== 'barb' ? [{ what: 'hose end' as const, name: joinWords(near), where: [lineName] }] : [],
  );

/** A clamp wherever hose lies over a barb: at the line's end, and at every barb of an adapter that it takes. */
const clampRows = (joints: readonly Joint[]): Single[] =>
  joints.flatMap(({ near, lineName }) =>
    near?.system === 'barb' && near.side === 'female'
      ? [{ what: 'clamp' as const, name: `clamp for ${near.size} in hose`, where: [lineName] }]
      : [],
  );

function holderRows({ lines }: Circuits): Single[] {
  return lines.flatMap((line): Single[] => {
    const stock = stockOf(line);
    const spacing = line.held_m?.value;
    if (!stock || !spacing) return [];
    const count = Math.max(0, Math.ceil(line.length_m.value / spacing) - 1);
    return count > 0
      ? [
          {
            what: 'holder',
            name: `holder for ${stock.name}, ${millimetres(stock.outside_m)} outside`,
            where: [line.name],
            count,
          },
        ]
      : [];
  });
}

const millimetres = (value_m: number): string => `${Math.round(value_m * 1e3)} mm`;

const grommetRows = ({ lines }: Circuits): Single[] =>
  lines.flatMap((line) =>
    line.passes.flatMap(({ name }): Single[] => {
      const stock = stockOf(line);
      const grommet = stock && grommetFor(stock.outside_m);
      return grommet
        ? [
            {
              what: 'grommet',
              name: `grommet ${grommet.name}, hole ${millimetres(grommet.hole_m)}`,
              where: [`${line.name}, through ${name}`],
            },
          ]
        : [];
    }),
  );

const wiringRows = ({ components }: Circuits): Single[] =>
  components.flatMap((part): Single[] => {
    if (part.kind !== 'pump' || !part.wiring) return [];
    const { fuse_A, relay } = part.wiring;
    return [
      ...(fuse_A === undefined
        ? []
        : [{ what: 'pump electrics' as const, name: `fuse ${fuse_A} A with its holder`, where: [part.name] }]),
      ...(relay ? [{ what: 'pump electrics' as const, name: 'relay', where: [part.name] }] : []),
    ];
  });

function cutRows(system: Circuits): CutRow[] {
  return system.lines.flatMap((line): CutRow[] => {
    const stock = stockOf(line);
    if (!stock) return [];
    const ends = (['from', 'to'] as const).map((at) => joinOfLine(line, at)!);
    const more = ends.reduce(
      (sum, { system: of }) =>
        sum + (of === 'barb' ? OVER_BARB_M : of === 'flare-37' && line.kind === 'tube' ? FLARE_M : 0),
      0,
    );
    return [
      {
        line: line.id,
        name: line.name,
        stock: `${LINE_SERIES.find(({ key }) => key === stock.series)!.name}, ${stock.name}`,
        cut_m: line.length_m.value + more,
        ends: ends.map(joinWords),
      },
    ];
  });
}
