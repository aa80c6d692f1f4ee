'use client';

import { Box, chakra } from '@chakra-ui/react';
import { RotateCcw } from 'lucide-react';
import { useRef, useState } from 'react';
import { isElectric } from '@/core/components';
import { limitsAt, valueAt, type ConsumerDocument, type Path, type SystemDocument } from '@/core/plan';
import {
  entryText,
  formatQuantity,
  fromSI,
  roleUnit,
  ROLES,
  toSI,
  unitById,
  type Reader,
  type Role,
} from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { TextEntry } from '../fields/TextEntry';
import {
  applyEdit,
  beginGesture,
  endGesture,
  openDocument,
  setValueNumbersFirst,
  useEditor,
  useValue,
  useValueNow,
} from '../state/editor';
import { useNarrow } from '../parts/useNarrow';
import { useReader } from '../state/reader';
import { useSides, type Sides } from '../state/sides';
import type { Acts } from '../workspace/tasks';

type ControlProps = {
  readonly label: string;
  readonly path: Path;
  readonly role: Role;
  /** Limits of the slider where the full range would make it too coarse. */
  readonly slide?: readonly [number, number];
  readonly step: number;
  readonly ends?: readonly [string, string];
};

const KEY = 'conditions';

/** How much the first consumer is asked for, as its trade says it. */
const DUTY_WORDS: Readonly<Record<ConsumerDocument['kind'], string>> = {
  'diesel-engine': 'Engine duty',
  'petrol-injection': 'Engine duty',
  'petrol-carburettor': 'Engine duty',
  heater: 'Heater output',
  generator: 'Generator load',
  nozzle: 'Flow setting',
};

type Entry = ControlProps & { readonly group: 'liquid' | 'flow' | 'other' };

/** What each kind of task is changed by: how the liquid stands, what flows as well, or nothing to speak of. */
const SHOWN: Readonly<Record<Acts, readonly Entry['group'][]>> = {
  nothing: [],
  liquid: ['liquid'],
  flow: ['liquid', 'flow'],
};

const dutyOf = (consumer: SystemDocument['consumers'][number]['kind']): Entry => ({
  group: 'flow',
  label: DUTY_WORDS[consumer],
  path: [KEY, 'duty_ratio'],
  role: 'share',
  step: 0.01,
  ends: ['idle', 'full load'],
});
const voltageOf = (wired: boolean): Entry => ({
  group: 'flow',
  label: wired ? 'Battery voltage' : 'Pump voltage',
  path: [KEY, 'pumpVoltage_V'],
  role: 'voltage',
  slide: [8, 16],
  step: 0.1,
});

/** One set of conditions that acts on every view at once: what acts on the open task, and the rest in a line. */
export function ConditionsPanel({ acts }: { readonly acts: Acts }) {
  // With its wires known, a pump gets what they leave of the battery's.
  const wired = useValue(({ components }) =>
    components.some((part) => part.kind === 'pump' && part.wiring !== undefined),
  );
  const consumer = useValue(({ consumers }) => consumers[0]?.kind);
  const isDriven = useValue(({ components }) => components.some((part) => part.kind === 'pump' && isElectric(part)));
  const conditions = useValue((system) => system.conditions);
  // One text, so that an edit of a tank does not draw all controls again.
  const names = useValue((system) => system.tanks.map((tank) => `${tank.id}=${tank.name}`).join('\n')).split('\n');
  const reader = useReader();
  const sides = useSides();
  const narrow = useNarrow();
  const [open, setOpen] = useState(false);
  const reset = (): void =>
    applyEdit('stand level', (current) => ({
      ...current,
      conditions: {
        ...current.conditions,
        pitch_deg: 0,
        roll_deg: 0,
        accelerationForward_mPerS2: 0,
        accelerationPort_mPerS2: 0,
        accelerationUp_mPerS2: 0,
      },
    }));
  const entries: readonly Entry[] = [
    ...conditions.fills.map((fill, index): Entry => ({
      group: 'liquid',
      label:
        names.length > 1
          ? `Fill, ${names.find((name) => name.startsWith(`${fill.tank}=`))?.slice(fill.tank.length + 1)}`
          : 'Fill',
      path: [KEY, 'fills', index, 'fill_ratio'],
      role: 'share',
      step: 0.01,
      ends: ['empty', 'brim'],
    })),
    ...OF_ALL,
    // What nothing of the plan depends on is not asked.
    ...(consumer === undefined ? [] : [dutyOf(consumer)]),
    ...(isDriven ? [voltageOf(wired)] : []),
  ];
  const shown = open ? entries : entries.filter(({ group }) => !narrow && SHOWN[acts].includes(group));
  const folded = entries.filter((entry) => !shown.includes(entry));
  // A phone has room for how it stands, and for whatever else is not at rest.
  const told = narrow
    ? folded.filter(
        ({ group, path }) => group === 'liquid' || (group === 'other' && valueAt({ conditions }, path) !== 0),
      )
    : folded;
  const rest = told.map((entry) => conditionWords(entry, conditions, reader, sides)).join(' · ');
  return (
    <Box
      as="section"
      aria-label="Conditions"
      bg="panel"
      borderWidth="1px"
      borderColor="rule"
      borderRadius="lg"
      px="3"
      py={{ base: '0', lg: '1' }}
      mb={{ base: '2', lg: '4' }}
      className="no-print"
      data-testid="conditions"
    >
      <Box display="flex" justifyContent="space-between" alignItems="center" gap="3">
        <chakra.button
          type="button"
          onClick={() => setOpen(!open)}
          aria-expanded={open}
          textAlign="left"
          minH="36px"
          flex="1"
          minW="0"
          cursor="pointer"
          whiteSpace="nowrap"
          overflow="hidden"
          textOverflow="ellipsis"
          title={rest === '' ? undefined : rest}
        >
          <Box as="span" fontWeight="700">
            {open ? '▾' : '▸'} Conditions
          </Box>
          {rest !== '' && (
            <Box as="span" fontSize="sm" color="soft" ml="3" data-testid="conditions-folded">
              {rest}
            </Box>
          )}
        </chakra.button>
        <chakra.button
          type="button"
          onClick={reset}
          display="flex"
          alignItems="center"
          gap="1"
          fontSize="sm"
          color="accent"
          minH="40px"
          px="1"
          whiteSpace="nowrap"
          cursor="pointer"
        >
          <RotateCcw size={15} aria-hidden />
          Reset
          <Box as="span" srOnly={narrow && !open}>
            to level
          </Box>
        </chakra.button>
      </Box>
      {shown.length > 0 && (
        <Box
          display="grid"
          gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 190px), 1fr))"
          columnGap="5"
          rowGap="1"
          pb="1"
          alignItems="start"
        >
          {shown.map((entry) => (
            <Control key={entry.path.join('.')} {...entry} />
          ))}
        </Box>
      )}
    </Box>
  );
}

const OF_ALL: readonly Entry[] = [
  {
    group: 'liquid',
    label: 'Pitch',
    path: [KEY, 'pitch_deg'],
    role: 'slope',
    slide: [-30, 30],
    step: 0.5,
    ends: ['nose down', 'nose up'],
  },
  {
    group: 'liquid',
    label: 'Roll',
    path: [KEY, 'roll_deg'],
    role: 'slope',
    slide: [-30, 30],
    step: 0.5,
    ends: ['port down', 'starboard down'],
  },
  {
    group: 'other',
    label: 'Forward',
    path: [KEY, 'accelerationForward_mPerS2'],
    role: 'acceleration',
    slide: [-12, 12],
    step: 0.1,
    ends: ['braking', 'speeding up'],
  },
  {
    group: 'other',
    label: 'To port',
    path: [KEY, 'accelerationPort_mPerS2'],
    role: 'acceleration',
    slide: [-12, 12],
    step: 0.1,
    ends: ['turning right', 'turning left'],
  },
  {
    group: 'flow',
    label: 'Fuel temp.',
    path: [KEY, 'fuelTemperature_K'],
    role: 'temperature',
    slide: [243.15, 333.15],
    step: 1,
  },
  { group: 'flow', label: 'Altitude', path: [KEY, 'altitude_m'], role: 'run', slide: [0, 4000], step: 50 },
];

/** A condition that is not acting here, in a word and a number. */
function conditionWords(
  { label, path, role }: Entry,
  conditions: SystemDocument['conditions'],
  reader: Reader,
  sides: Sides,
): string {
  const value = inSI(valueAt({ conditions }, path) as number, role);
  return `${sides(label)} ${formatQuantity(value, role, { reader }).text}`;
}

const isAngle = (role: Role): boolean => role === 'slope';
const inDocument = (si: number, role: Role): number => (isAngle(role) ? (si * 180) / Math.PI : si);
const inSI = (value: number, role: Role): number => (isAngle(role) ? (value * Math.PI) / 180 : value);

function Control({ label, path, role, slide, step, ends }: ControlProps) {
  const sides = useSides();
  const reader = useReader();
  const value = useValueNow((system) => valueAt(system, path) as number);
  const before = useRef<SystemDocument>(undefined);
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  const { min, max } = limitsAt(openDocument(), path);
  const [low, high] = slide ?? [min, max];
  const put = (next: number): void =>
    setValueNumbersFirst(label, path, Number(Math.min(max, Math.max(min, next)).toPrecision(10)));

  const begin = (): void => {
    if (before.current) return;
    before.current = useEditor.getState().system;
    beginGesture();
  };
  const end = (): void => {
    if (!before.current) return;
    endGesture(before.current, label);
    before.current = undefined;
  };
  const enter = (text: string) => {
    const read = readEntry(text, role, reader, { min, max });
    if (read.ok) put(read.value);
    return read.ok ? { ok: true as const } : read;
  };
  const nudge = (steps: number): void =>
    put(inDocument(toSI(roundTo(fromSI(inSI(value, role), unit)) + steps * stepFor(role), unit), role));

  return (
    <Box pb="2px" data-path={path.join('.')}>
      <Box display="flex" alignItems="center" justifyContent="space-between" gap="2">
        <Box fontWeight="600" lineHeight="1.15">
          {sides(label)}
        </Box>
        <Box width="112px" flexShrink="0">
          <TextEntry
            label={sides(label)}
            hideLabel
            value={entryText(inSI(value, role), role, reader)}
            unit={unit.symbol}
            onEnter={enter}
            onStep={nudge}
          />
        </Box>
      </Box>
      <chakra.input
        type="range"
        aria-label={`${sides(label)}, slider`}
        aria-valuetext={formatQuantity(inSI(value, role), role, { reader }).text}
        min={low}
        max={high}
        step={step}
        value={Math.min(high, Math.max(low, value))}
        onPointerDown={begin}
        onPointerUp={end}
        onPointerCancel={end}
        onBlur={end}
        onChange={(event) => put(Number(event.target.value))}
        width="100%"
        height="24px"
        display="block"
        accentColor="var(--chakra-colors-accent)"
        cursor="pointer"
      />
      {ends && (
        <Box display="flex" justifyContent="space-between" fontSize="xs" color="soft" lineHeight="1">
          <span>{sides(ends[0])}</span>
          <span>{sides(ends[1])}</span>
        </Box>
      )}
    </Box>
  );
}

const stepFor = (role: Role): number => (role === 'voltage' || role === 'acceleration' ? 0.1 : role === 'run' ? 50 : 1);
const roundTo = (value: number): number => Number(value.toFixed(2));
