import {
  GOES_WORDS,
  holds,
  mountList,
  SHOCK_CASES,
  shocksOf,
  thrownIn,
  type FitDrawing,
  type Mounts,
  type Stands,
} from '@/core/answers';
import { norm } from '@/core/geometry';
import { tightening_Nm } from '@/core/mounts';
import type { MountDocument, SystemDocument } from '@/core/plan';
import { figureRoom, spaceDrawing, type Block, type PaperKey } from '@/core/reports';
import { BOLT_CLASS_ROWS } from '@/core/reference/bolts';
import { MOUNT_STOCKS, PAD_ROWS } from '@/core/reference/mountStock';
import type { Reader } from '@/core/units';
import { factorText } from '../mounts/factors';
import { fillHead } from '../mounts/fillHead';
import { CASE_HEADS, countedWords, HELD_WORDS, KIND_WORDS, partHead } from '../mounts/mountWords';
import { viewWords } from '../parts/words';
import type { Sides } from '../state/sides';
import { writing, type Write } from './sheets';

/**
 * What holds a tank, for the bench: where each mount goes, its bolts and their torque, and what they were worked out
 * for.
 */
export function mountsSheet(
  system: SystemDocument,
  t: number,
  { mounts, seen, stands }: { readonly mounts: Mounts; readonly seen: FitDrawing; readonly stands: Stands | undefined },
  paper: PaperKey,
  reader: Reader,
  sides: Sides,
): Block[] {
  const write = writing(reader);
  const tank = system.tanks[t]!;
  const shell = mounts.shells.find(({ tanks }) => tanks.includes(t));
  const own = system.mounts.filter((mount) => mount.tank === tank.id);
  const room = figureRoom(paper);
  const { drawing, numbered } = spaceDrawing(seen, {
    title: `${tank.name} with what holds it`,
    room: { width_mm: room.width_mm, height_mm: room.height_mm * DRAWN_SHARE },
    isNarrow: false,
    viewNames: viewWords(system.vehicle.kind),
    length: (value) => write(value, 'tape'),
  });
  const numberOf = (id: string): string => {
    const at = numbered.findIndex((one) => one.id === id);
    return at < 0 ? '' : `${at + 1}`;
  };
  return [
    { kind: 'text', text: CAUTION, isBold: true },
    { kind: 'heading', text: `What holds ${tank.name}` },
    {
      kind: 'figure',
      drawing,
      caption: `${numbered[0] ? '1 is the tank. ' : ''}Places are those of the middle of each mount, from the vehicle’s datum.`,
    },
    {
      kind: 'table',
      columns: [
        { title: '#', share: 0.5, align: 'right', isBold: true },
        { title: 'mount', share: 2, isBold: true },
        { title: sides('from aft, from starboard, height'), share: 2.2 },
        { title: 'made of', share: 2.6 },
        { title: 'bolts, and torque', share: 2.6 },
        { title: 'done', share: 0.7 },
      ],
      rows: own.map((mount) => [
        numberOf(mount.id),
        `${mount.name}\n${KIND_WORDS[mount.kind].toLowerCase()}`,
        [mount.x_m, mount.y_m, mount.z_m].map(({ value }) => write(value, 'tape')).join(', '),
        madeWords(mount, write),
        boltWords(mount, write),
        '',
      ]),
    },
    ...boughtBlocks(system, own, shell?.strapWays_m ?? {}, write),
    ...(shell
      ? ([
          { kind: 'heading', text: 'What it was worked out for' },
          {
            kind: 'text',
            text: `Filled to its limit it weighs ${write(shell.load.mass_kg, 'mass')}, ${countedWords(shell.tanks.map((i) => system.tanks[i]!))}; ${mounts.needed} times is wanted of the weakest part. ${VERDICT[String(holds(shell, mounts.needed))]}`,
          },
          {
            kind: 'table',
            columns: [
              { title: 'when it is', share: 2 },
              { title: 'thrown with', share: 1.4, align: 'right' },
              { title: 'held', share: 4 },
            ],
            rows: SHOCK_CASES.map((shock) => {
              const held = shell.cases[shock];
              return [
                sides(CASE_HEADS[shock]),
                write(norm(thrownIn(shocksOf(system), shock)) * shell.load.mass_kg, 'force'),
                held.held === undefined
                  ? `not known: ${held.why}`
                  : !held.held
                    ? sides(`no: it ${GOES_WORDS[held.goes]}`)
                    : held.creeps === undefined
                      ? 'yes'
                      : sides(`by friction alone; shaken, it ${GOES_WORDS[held.creeps]}`),
              ];
            }),
          },
          {
            kind: 'table',
            columns: [
              { title: 'what gives first', share: 3, isBold: true },
              { title: 'factor', share: 1, align: 'right' },
              { title: 'asked', share: 1.2, align: 'right' },
              { title: 'bears', share: 1.2, align: 'right' },
              { title: 'when', share: 2 },
            ],
            rows: shell.parts
              .slice(0, WEAKEST)
              .map((use) => [
                `${system.mounts[use.mount]?.name}: ${partHead(use.part, system.mounts[use.mount]?.kind)}`,
                use.factor === undefined ? 'not known' : `${factorText(use.factor)} ×`,
                write(use.demand_N, 'force'),
                use.capacity_N === undefined ? '–' : write(use.capacity_N, 'force'),
                sides(CASE_HEADS[use.shock]),
              ]),
          },
        ] satisfies Block[])
      : []),
    ...(stands ? weightBlocks(system, stands, write, sides) : []),
  ];
}

/** What full and empty tanks do to what the vehicle stands on. */
function weightBlocks(system: SystemDocument, stands: Stands, write: Write, sides: Sides): Block[] {
  const axles = system.stance?.axles ?? [];
  const hitch = system.stance?.hitch;
  const of = (load: number, rating: number | undefined): string =>
    `${write(load, 'load')}${rating === undefined ? '' : ` of ${write(rating, 'load')}`}`;
  const lean = (angle: number, way: readonly [string, string]): string =>
    `${write(Math.abs(angle), 'slope')} ${way[angle > 0 ? 0 : 1]}`;
  const onWheels: Block = {
    kind: 'table',
    columns: [
      { title: 'tanks', share: 2, isBold: true },
      ...axles.map(({ name }) => ({ title: name, share: 2, align: 'right' as const })),
      ...(hitch ? [{ title: 'coupling', share: 2, align: 'right' as const }] : []),
      { title: 'in all', share: 2, align: 'right' as const },
    ],
    rows: stands.cases.map((each) => {
      const head = fillHead(system, each);
      const blank = [...axles, ...(hitch ? [hitch] : []), 0];
      if (!each.wheels?.ok) return [head, ...blank.map(() => 'not known')];
      const { axles: loads, hitch_kg, total_kg, lifts } = each.wheels.value;
      if (lifts.length > 0) return [head, ...blank.map((_, i) => (i === 0 ? 'a wheel lifts' : 'not known'))];
      return [
        head,
        ...loads.map(({ load_kg }, a) => of(load_kg, axles[a]!.rating_kg?.value)),
        ...(hitch_kg === undefined ? [] : [of(hitch_kg, hitch?.rating_kg?.value)]),
        of(total_kg, system.stance?.rating_kg?.value),
      ];
    }),
  };
  const lies: Block = {
    kind: 'table',
    columns: [
      { title: 'tanks', share: 2, isBold: true },
      { title: 'lists', share: 2, align: 'right' },
      { title: 'trims', share: 2, align: 'right' },
      { title: 'metacentric height', share: 2, align: 'right' },
    ],
    rows: stands.cases.map((each) => [
      fillHead(system, each),
      ...(each.afloat?.ok
        ? [
            lean(each.afloat.value.portDown_rad, ['to port', 'to starboard']),
            lean(each.afloat.value.bowDown_rad, ['by the bow', 'by the stern']),
            write(each.afloat.value.gm_m, 'tape'),
          ]
        : ['not known', 'not known', 'not known']),
    ]),
  };
  return [
    { kind: 'heading', text: sides('What the tanks do to the vehicle') },
    ...(axles.length > 0 ? [onWheels] : []),
    ...(system.stance?.hull ? [lies] : []),
  ];
}

/** What is bought and cut for them. */
function boughtBlocks(
  system: SystemDocument,
  own: readonly MountDocument[],
  strapWays_m: Readonly<Record<number, number>>,
  write: Write,
): Block[] {
  const { stock, pads, bolts } = mountList(
    own,
    Object.fromEntries(
      own.flatMap((mount, i): [number, number][] => {
        const way_m = strapWays_m[system.mounts.indexOf(mount)];
        return way_m === undefined ? [] : [[i, way_m]];
      }),
    ),
  );
  if (stock.length === 0) return [];
  const cut = (pieces: (typeof stock)[number]['pieces']): string =>
    pieces
      .map(
        ({ for: name, length_m }) =>
          `${length_m === undefined ? 'length not known' : write(length_m, 'tape')}, ${name}`,
      )
      .join('\n');
  return [
    { kind: 'heading', text: 'To buy and cut' },
    {
      kind: 'table',
      columns: [
        { title: 'what', share: 3, isBold: true },
        { title: 'section', share: 2 },
        { title: 'pieces', share: 3 },
      ],
      rows: [
        ...stock.map((row) => [
          MOUNT_STOCKS[row.stock].name,
          `${write(row.width_m, 'tape')} × ${write(row.thickness_m, 'thickness')}`,
          cut(row.pieces),
        ]),
        ...pads.map((row) => [
          PAD_ROWS[row.of].name,
          `${write(row.width_m, 'tape')} × ${write(row.thickness_m, 'thickness')}`,
          cut(row.pieces),
        ]),
        ...bolts.map((row) => [
          `${row.count} bolts ${row.size}`,
          BOLT_CLASS_ROWS[row.class].name,
          `in ${HELD_WORDS[row.held]}`,
        ]),
      ],
    },
    {
      kind: 'text',
      text: 'Straps with a foot at each end, lips turned up from the sheet; saw cuts, bends and what a ratchet or a turnbuckle takes are not counted.',
    },
  ];
}

const DRAWN_SHARE = 0.5;
/** So many of the weakest parts stand on the sheet. */
const WEAKEST = 5;
const CAUTION =
  'A tank that breaks loose kills. Where people ride with it, on a road or at sea, the rules in force and someone licensed decide what holds it. Weld only on a tank that never held fuel, or that was made safe.';
const VERDICT: Readonly<Record<string, string>> = {
  true: 'All of it is held and borne.',
  false: 'It does NOT hold as planned.',
  undefined: 'Whether it holds is not known: see below.',
};

function madeWords({ made, kind }: MountDocument, write: Write): string {
  if (!made) return 'not said';
  const sizes = [
    ...('length_m' in made ? [write(made.length_m.value, 'tape')] : []),
    ...('width_m' in made ? [write(made.width_m.value, 'tape')] : []),
    ...('circle_m' in made ? [`bolt circle ${write(made.circle_m.value, 'tape')}`] : []),
    write(made.thickness_m.value, 'thickness'),
  ].join(' × ');
  const pad =
    'pad' in made && made.pad.of !== 'none'
      ? `\n${PAD_ROWS[made.pad.of].name}, ${write(made.pad.thickness_m.value, 'thickness')}`
      : '';
  const weld =
    kind === 'tab' && made.weld
      ? `\nweld ${write(made.weld.length_m.value, 'tape')}, throat ${write(made.weld.throat_m.value, 'thickness')}`
      : '';
  const tight = kind === 'strap' ? `\npulled to ${write(made.tension_N.value, 'force')}` : '';
  return `${MOUNT_STOCKS[made.stock].name}, ${sizes}${pad}${weld}${tight}`;
}

function boltWords(mount: MountDocument, write: Write): string {
  const bolts = mount.made && 'bolts' in mount.made ? mount.made.bolts : undefined;
  if (!bolts) return mount.made ? 'none' : 'not said';
  return `${bolts.count} × ${bolts.size}, ${BOLT_CLASS_ROWS[bolts.class].name}${mount.kind === 'strap' ? ', each end' : ''}\nin ${HELD_WORDS[bolts.held]}, ${write(bolts.edge_m.value, 'tape')} from the edge\n${write(tightening_Nm(bolts.size, bolts.class), 'torque')}, dry`;
}
