import type { CalibrationData } from '@/core/answers';
import type { CalibrationDocument, poursOf } from '@/core/plan';
import type { Block } from '@/core/reports';
import { POUR_SPREADS } from '@/core/reference/senders';
import type { Reader } from '@/core/units';
import type { Placed } from '../gauge/taughtPoints';
import { explanations, FLAG_WORDS, readingText, STATE_WORDS } from '../gauge/calibrationWords';
import type { Sides } from '../state/sides';
import { pointsTable, type Write } from './sheets';

/** Empty lines at the end, to go on with a pencil; a log without pours is a form of so many. */
const EMPTY_LINES = 6;
const FORM_LINES = 20;

export type PoursLog = {
  readonly calibration: Pick<CalibrationDocument, 'name' | 'pitch_deg' | 'roll_deg' | 'start_m3'>;
  /** What is read. */ readonly instrument: string;
  readonly log: ReturnType<typeof poursOf>;
  readonly data: CalibrationData | undefined;
  /** How points to teach are placed. */ readonly placed: Placed;
};

/** A log of pours as it stands, what it says of the plan and what to teach the gauge from it, with room to go on. */
export function poursSheet(
  { calibration, instrument, log, data, placed }: PoursLog,
  write: Write,
  reader: Reader,
  sides: Sides,
): Block[] {
  const lineOf = new Map(data?.lines.map((line) => [line.id, line]));
  const degrees = (value_deg: number): string => write((value_deg * Math.PI) / 180, 'slope');
  return [
    { kind: 'heading', text: `${calibration.name} (${instrument})` },
    {
      kind: 'text',
      text: 'Outdoors, away from flames, the tank and cans bonded to each other; or with water before the tank has ever held fuel, and dry it well after.',
      isBold: true,
    },
    {
      kind: 'text',
      text: `${sides('Pitch during calibration, nose up')}: ${degrees(calibration.pitch_deg)}. ${sides('Roll during calibration, starboard down')}: ${degrees(calibration.roll_deg)}. In it at the start: ${write(calibration.start_m3, 'tankVolume')}.`,
    },
    ...(data?.simulated
      ? [
          {
            kind: 'text' as const,
            text: 'Lines of this log come from the simulated rig, not from a real tank.',
            isBold: true,
          },
        ]
      : []),
    {
      kind: 'table',
      isForm: true,
      columns: [
        { title: '#', share: 0.5, align: 'right', isBold: true },
        { title: 'poured', share: 1.3, align: 'right' },
        { title: 'by', share: 1.6 },
        { title: 'in the tank', share: 1.3, align: 'right', isBold: true },
        { title: 'read', share: 1.3, align: 'right', isBold: true },
        { title: 'counts as', share: 2.4 },
      ],
      rows: [
        ...log.map(({ id, now }, i) => {
          const line = lineOf.get(id);
          return [
            `${i + 1}`,
            write(now.added_m3, 'tankVolume'),
            POUR_SPREADS[now.way].name,
            line ? write(line.volume_m3, 'tankVolume') : '',
            readingText(now.reading, reader),
            [
              STATE_WORDS[now.state],
              ...(line?.flags ?? [])
                .filter((flag) => flag !== 'struck' && flag !== now.state)
                .map((flag) => FLAG_WORDS[flag]),
            ].join('; '),
          ];
        }),
        ...Array.from({ length: log.length === 0 ? FORM_LINES : EMPTY_LINES }, (_, i) => [`${log.length + i + 1}`]),
      ],
    },
    ...(data ? found(data, placed, write, reader) : []),
  ];
}

function found(data: CalibrationData, placed: Placed, write: Write, reader: Reader): Block[] {
  if (!data.measured.ok) return [{ kind: 'text', text: data.measured.error.detail }];
  return [
    { kind: 'heading', text: 'Why it does not read as planned' },
    ...explanations(data, reader).map((text): Block => ({ kind: 'text', text })),
    ...(data.channel === 'resistance' || data.channel === 'voltage'
      ? [
          { kind: 'heading' as const, text: 'What to teach the gauge, from these pours' },
          ...pointsTable(data.tables[placed], data.channel, data.holds_m3, '', write),
        ]
      : []),
  ];
}
