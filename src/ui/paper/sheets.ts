import type { CutSpread, FaceSheet, GaugeResult, Influence, LinesList } from '@/core/answers';
import { standsAs } from '@/core/components';
import { correctionTable, type CorrectionTable } from '@/core/gauge';
import type { Outcome } from '@/core/outcome';
import { valueAt, wordsAt, type Known, type SystemDocument } from '@/core/plan';
import { faceDrawing, figureRoom, type Block, type PaperKey } from '@/core/reports';
import type { Finding } from '@/core/rules';
import type { StrappingRow } from '@/core/tank';
import { formatQuantity, inReaderUnits, messageText, type Reader, type Role } from '@/core/units';
import { knownText } from '../fields/knownText';
import { pathWords } from '../measure/pathWords';
import { fromWords, toolSteps } from '../ports/sheetWords';
import type { Sides } from '../state/sides';

/** How quantities are written on a sheet. */
export type Write = (value: number, role: Role, digits?: number) => string;
export const writing =
  (reader: Reader): Write =>
  (value, role, digits) =>
    formatQuantity(value, role, { reader, ...(digits === undefined ? {} : { digits }) }).text;

/** So much of a page a face may take; its chart begins below it. */
const FACE_SHARE = 0.68;

/** Each face that has holes, to scale, with where each hole goes and how it is made. */
export function holesSheet(sheets: readonly FaceSheet[], paper: PaperKey, write: Write, sides: Sides): Block[] {
  const room = figureRoom(paper);
  return sheets
    .filter(({ ports }) => ports.length > 0)
    .flatMap((sheet): Block[] => {
      const { drawing, mmPerM } = faceDrawing(sheet, {
        title: sides(sheet.name),
        room: { width_mm: room.width_mm, height_mm: room.height_mm * FACE_SHARE },
        length: (value) => write(value, 'tape'),
        isPaper: true,
      });
      return [
        { kind: 'heading', text: sides(sheet.name) },
        {
          kind: 'figure',
          drawing,
          caption: `Scale 1 : ${Math.round(1000 / mmPerM)}, seen from outside. Centres are measured on the outside of the finished sheet, square to each edge.`,
        },
        {
          kind: 'table',
          columns: [
            { title: '#', share: 0.5, align: 'right', isBold: true },
            { title: 'port', share: 2.2, isBold: true },
            { title: 'centre', share: 2.4 },
            { title: 'hole', share: 1, isBold: true },
            { title: 'how it is made', share: 3.4 },
            { title: 'done', share: 0.7 },
          ],
          rows: sheet.ports.map((port, i) => [
            `${i + 1}`,
            port.part ? `${port.name}\n${port.part}` : port.name,
            port.fromEdges.map((edge) => `${write(edge.distance_m, 'tape')} from ${fromWords(sheet, edge)}`).join('\n'),
            `⌀ ${write(port.hole_m, 'tape')}`,
            toolSteps(port, (value) => write(value, 'bore')),
            '',
          ]),
        },
      ];
    });
}

const CAUTION_HOLES =
  'Drill, saw and deburr before the tank has ever held fuel: the vapour of a used tank explodes. Chips left inside end in the pump.';

/** The caution stands on the sheet that goes to the bench. */
export const holesCaution: Block = { kind: 'text', text: CAUTION_HOLES, isBold: true };

/** How long pickups are cut and where senders hang. */
export function cuttingSheet(
  system: SystemDocument,
  t: number,
  cuts: readonly CutSpread[],
  write: Write,
  reader: Reader,
): Block[] {
  const tank = system.tanks[t]!;
  const portName = (id: string): string => tank.ports.find((port) => port.id === id)?.name ?? '';
  return [
    { kind: 'heading', text: `Pickups of ${tank.name}` },
    cuts.length === 0
      ? { kind: 'text', text: 'None that is cut.' }
      : {
          kind: 'table',
          columns: [
            { title: 'pickup', share: 2, isBold: true },
            { title: 'in port', share: 1.6 },
            { title: 'cut to', share: 1.2, isBold: true },
            { title: 'as sizes may be off', share: 2 },
            { title: 'its end off the floor', share: 2 },
            { title: 'measured', share: 1.2 },
          ],
          rows: cuts.map((cut) => {
            const pickup = tank.pickups.find(({ id }) => id === cut.id)!;
            return [
              pickup.name,
              portName(pickup.port),
              write(cut.cut_m, 'tape'),
              `${write(cut.shortest_m, 'tape')} to ${write(cut.longest_m, 'tape')}`,
              `${write(Math.max(0, cut.lowestEnd_m), 'tape')} to ${write(cut.highestEnd_m, 'tape')}${cut.lowestEnd_m < 0 ? ', or strikes it: cut long, try, then trim' : ''}`,
              '',
            ];
          }),
          isForm: true,
        },
    { kind: 'heading', text: 'Senders' },
    ...(tank.senders.length === 0 ? [{ kind: 'text' as const, text: 'None.' }] : []),
    ...tank.senders.flatMap((sender, s): Block[] => [
      { kind: 'text', text: `${sender.name}, in ${portName(sender.port)}`, isBold: true },
      {
        kind: 'table',
        columns: [
          { title: 'size', share: 2 },
          { title: 'planned', share: 1.4, isBold: true },
          { title: 'measured', share: 1.2 },
        ],
        rows: Object.entries(sender).flatMap(([key, value]) => {
          const words = wordsAt(system, ['tanks', t, 'senders', s, key]);
          return words && isKnown(value) ? [[words.label, knownText(value, words.role, reader), '']] : [];
        }),
        isForm: true,
      },
    ]),
  ];
}

const isKnown = (value: unknown): value is Known =>
  typeof value === 'object' && value !== null && 'origin' in value && 'value' in value;

/** What to buy and what to cut. */
export function partsSheet({ parts, cuts, totals, spanners_m }: LinesList, write: Write): Block[] {
  return [
    { kind: 'heading', text: 'To cut, ends included' },
    {
      kind: 'table',
      columns: [
        { title: 'line', share: 2.4, isBold: true },
        { title: 'of', share: 3 },
        { title: 'cut to', share: 1.2, align: 'right', isBold: true },
        { title: 'done', share: 0.7 },
      ],
      rows: cuts.map(({ name, stock, cut_m }) => [name, stock, write(cut_m, 'tape'), '']),
    },
    ...totals.map(({ stock, total_m, pieces }): Block => ({
      kind: 'text',
      text: `${write(total_m, 'run')} of ${stock}, in ${pieces} ${pieces === 1 ? 'piece' : 'pieces'}`,
    })),
    { kind: 'heading', text: 'To buy' },
    {
      kind: 'table',
      columns: [
        { title: '', share: 0.6, align: 'right', isBold: true },
        { title: 'part', share: 3, isBold: true },
        { title: 'where', share: 3 },
        { title: 'got', share: 0.6 },
      ],
      rows: parts.map(({ name, count, where }) => [`${count} ×`, name, where.join('; '), '']),
    },
    ...(spanners_m.length > 0
      ? [{ kind: 'text' as const, text: `Spanners: ${spanners_m.map((size) => write(size, 'bore')).join(', ')}` }]
      : []),
  ];
}

/** How each valve stands in the state that is set. */
export function valvesTable(system: SystemDocument): Block[] {
  const rows = system.components.flatMap((part) => (standsAs(part) === '' ? [] : [[part.name, standsAs(part), '']]));
  return rows.length === 0
    ? []
    : [
        { kind: 'heading', text: 'Valves and pumps as they are set here' },
        {
          kind: 'table',
          columns: [
            { title: 'part', share: 3, isBold: true },
            { title: 'stands', share: 2 },
            { title: 'checked', share: 1 },
          ],
          rows,
        },
      ];
}

/** Points that a programmable sender or gauge is taught, from the plan. */
export function correctionSheet(
  gauge: GaugeResult,
  name: string,
  { count, placed }: { readonly count: number; readonly placed: 'best' | 'even' },
  write: Write,
): Block[] {
  const { curve, signal } = gauge;
  return [
    { kind: 'heading', text: name },
    ...pointsTable(
      correctionTable(curve.points, count, placed),
      signal,
      curve.points.at(-1)!.volume_m3,
      'It is planned: teach it anew from pours once the tank is built.',
      write,
    ),
  ];
}

/** Points to teach, with room to tick each, and how well the gauge then shows; what else is to be said of them. */
export function pointsTable(
  table: Outcome<CorrectionTable>,
  signal: 'resistance' | 'voltage',
  holds_m3: number,
  note: string,
  write: Write,
): Block[] {
  if (!table.ok) return [{ kind: 'text', text: table.error.detail, tone: 'bad' }];
  return [
    {
      kind: 'table',
      columns: [
        { title: 'point', share: 1, align: 'right' },
        { title: 'sender gives', share: 2, align: 'right', isBold: true },
        { title: 'show', share: 2, align: 'right', isBold: true },
        { title: 'in the tank', share: 2, align: 'right' },
        { title: 'taught', share: 1.4, align: 'right' },
      ],
      rows: table.value.points.map(({ reading, shown_ratio }, i) => [
        `${i + 1}`,
        write(reading, signal, 4),
        write(shown_ratio, 'share'),
        write(shown_ratio * holds_m3, 'tankVolume'),
        '',
      ]),
    },
    {
      kind: 'text',
      text: `Taught so, it is off by no more than ${write(table.value.worst_ratio, 'share')} where the sender moves, vehicle level. ${note}`,
    },
  ];
}

const ABREAST = 3;

/** Depth and volume, several columns side by side, down each first. */
export function strappingSheet(rows: readonly StrappingRow[], name: string, standing: string, write: Write): Block[] {
  const tall = Math.ceil(rows.length / ABREAST);
  return [
    { kind: 'heading', text: `Strapping table of ${name}` },
    { kind: 'text', text: `${standing}. Depth is the liquid’s at its deepest.` },
    {
      kind: 'table',
      columns: Array.from({ length: ABREAST }).flatMap(() => [
        { title: 'depth', share: 1, align: 'right' as const },
        { title: 'volume', share: 1.2, align: 'right' as const, isBold: true },
      ]),
      rows: Array.from({ length: tall }, (_, i) =>
        Array.from({ length: ABREAST }, (__, k) => rows[k * tall + i]).flatMap((row) =>
          row ? [write(row.depth_m, 'tape', 4), write(row.volume_m3, 'tankVolume')] : ['', ''],
        ),
      ),
    },
  ];
}

const SEVERITIES = { stop: 'STOP', warn: 'Warn', note: 'Note' } as const;

/** All that the rules say, worst first, with room to tick what is done. */
export function findingsSheet(
  findings: readonly Finding[],
  open: { readonly onTheWay: readonly string[]; readonly failed: readonly string[]; readonly notJudged: number },
  reader: Reader,
): Block[] {
  const unsure = [
    ...(open.onTheWay.length > 0 ? [`Still being worked out: ${open.onTheWay.join(', ')}.`] : []),
    ...open.failed.map((each) => `Not worked out: ${each}.`),
    ...(open.notJudged > 0 ? [`${open.notJudged} rules could not be asked; that they are silent says nothing.`] : []),
  ];
  return [
    { kind: 'heading', text: 'Findings' },
    ...unsure.map((text): Block => ({ kind: 'text', text, isBold: true })),
    findings.length === 0
      ? { kind: 'text', text: unsure.length > 0 ? 'None by what could be judged.' : 'None at these conditions.' }
      : {
          kind: 'table',
          columns: [
            { title: '', share: 0.8, isBold: true },
            { title: 'what', share: 4 },
            { title: 'what to do', share: 3.4 },
            { title: 'done', share: 0.7 },
          ],
          rows: findings.map(({ severity, title, what, mend }) => [
            SEVERITIES[severity],
            `${title}\n${messageText(what, reader)}`,
            inReaderUnits(mend, reader),
            '',
          ]),
        },
  ];
}

/** What is still assumed, the most telling first, with blanks for what the tape says. */
export function measureSheet(system: SystemDocument, influences: readonly Influence[], reader: Reader): Block[] {
  const assumed = influences.filter(({ origin, path }) => origin === 'assumed' && valueAt(system, path) !== undefined);
  return [
    { kind: 'heading', text: 'To be measured' },
    assumed.length === 0
      ? { kind: 'text', text: 'Nothing is assumed any more.' }
      : { kind: 'text', text: 'The most telling first. Note how closely each could be read.' },
    ...(assumed.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            columns: [
              { title: '#', share: 0.5, align: 'right' as const },
              { title: 'of', share: 1.8, isBold: true },
              { title: 'what', share: 2.8 },
              { title: 'assumed', share: 1.8 },
              { title: 'measured', share: 1.6 },
              { title: '±', share: 0.8 },
            ],
            rows: assumed.map((influence, i) => {
              const words = pathWords(system, influence.path);
              return [`${i + 1}`, words.owner, words.label, knownText(influence, words.role, reader), '', ''];
            }),
            isForm: true,
          },
        ]),
  ];
}
