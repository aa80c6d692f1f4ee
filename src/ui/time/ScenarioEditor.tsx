'use client';

import { Box } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { SELECTED, standsAs } from '@/core/components';
import {
  entriesOf,
  firstEntry,
  setOf,
  settable,
  TIMED,
  withoutTimed,
  withTimed,
  withTimedChanged,
  type Scenario,
  type SystemDocument,
  type Timed,
  type TimedEntry,
} from '@/core/plan';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { useSystem } from '../state/editor';
import { ScenarioNumber, ScenarioTime } from './ScenarioFields';
import { OPENING_WORDS } from './timeWords';

const LIST_WORDS: Readonly<Record<Timed, string>> = {
  slopes: 'How it stands',
  temperatures: 'Temperature',
  duties: 'Consumers',
  volts: 'Voltage',
  sets: 'A valve, pump or selector',
  filters: 'A filter',
  openings: 'A vent or cap',
  pours: 'A nozzle',
};

type Put = (next: Scenario) => void;

/** All that a scenario begins with and sets, to be changed. */
export function ScenarioEditor({
  scenario,
  names,
  onPut,
}: {
  readonly scenario: Scenario;
  /** Of the others, which this one cannot have. */ readonly names: readonly string[];
  readonly onPut: Put;
}) {
  const system = useSystem();
  return (
    <Box display="grid" gap="4" data-testid="scenario-editor">
      <FieldGrid min="230px">
        <TextEntry
          label="Name of the scenario"
          value={scenario.name}
          onEnter={(text) =>
            names.includes(text.trim())
              ? { ok: false, message: 'Another scenario has that name.' }
              : readName(text, (name) => onPut({ ...scenario, name }))
          }
        />
        <ScenarioTime
          field="duration_s"
          value_s={scenario.duration_s}
          onPut={(duration_s) => onPut({ ...scenario, duration_s })}
        />
        {system.tanks.map((tank) => (
          <Begins key={tank.id} scenario={scenario} tank={tank} onPut={onPut} />
        ))}
      </FieldGrid>
      {entriesOf(scenario).map((entry) => (
        <EntryRow
          key={`${entry.list} ${entry.index}`}
          entry={entry}
          scenario={scenario}
          system={system}
          onPut={onPut}
        />
      ))}
      <AddEntry scenario={scenario} system={system} onPut={onPut} />
      <Switches scenario={scenario} system={system} onPut={onPut} />
    </Box>
  );
}

/** What a tank begins with, where the scenario says so. */
function Begins({
  scenario,
  tank: { id, name },
  onPut,
}: {
  readonly scenario: Scenario;
  readonly tank: SystemDocument['tanks'][number];
  readonly onPut: Put;
}) {
  const fill = scenario.fills.find(({ tank }) => tank === id);
  const others = scenario.fills.filter(({ tank }) => tank !== id);
  if (fill)
    return (
      <ScenarioNumber
        field="fill_ratio"
        label={`${name} begins with`}
        value={fill.fill_ratio}
        onPut={(fill_ratio) => onPut({ ...scenario, fills: [...others, { tank: id, fill_ratio }] })}
      />
    );
  return (
    <Select
      label={`${name} begins`}
      value="conditions"
      options={[
        { value: 'conditions', label: 'as the conditions have it' },
        { value: 'said', label: 'with a fill of its own' },
      ]}
      onChange={() => onPut({ ...scenario, fills: [...others, { tank: id, fill_ratio: 0.5 }] })}
    />
  );
}

function EntryRow({
  entry,
  scenario,
  system,
  onPut,
}: {
  readonly entry: TimedEntry;
  readonly scenario: Scenario;
  readonly system: SystemDocument;
  readonly onPut: Put;
}) {
  const { list, index, at_s } = entry;
  const change = (what: object): void => onPut(withTimedChanged(scenario, list, index, what));
  return (
    <Row title={LIST_WORDS[list]} onRemove={() => onPut(withoutTimed(scenario, list, index))}>
      <ScenarioTime field="at_s" value_s={at_s} onPut={(next) => change({ at_s: next })} />
      <EntryFields entry={entry} system={system} change={change} />
    </Row>
  );
}

function Row({
  title,
  onRemove,
  children,
}: {
  readonly title: string;
  readonly onRemove: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Box borderTopWidth="1px" borderColor="rule" pt="2" display="flex" gap="2" alignItems="start">
      <Box flex="1" minW="0">
        <Box fontWeight="650" fontSize="sm">
          {title}
        </Box>
        <FieldGrid min="170px">{children}</FieldGrid>
      </Box>
      <Box pt="8">
        <SquareButton label={`Remove: ${title}`} onClick={onRemove}>
          <Trash2 size={18} aria-hidden />
        </SquareButton>
      </Box>
    </Box>
  );
}

/** The fields of one entry beside its time. */
function EntryFields({
  entry: { list, entry },
  system,
  change,
}: {
  readonly entry: TimedEntry;
  readonly system: SystemDocument;
  readonly change: (what: object) => void;
}) {
  switch (list) {
    case 'slopes':
      return (
        <>
          <ScenarioNumber field="pitch_deg" value={entry.pitch_deg} onPut={(pitch_deg) => change({ pitch_deg })} />
          <ScenarioNumber field="roll_deg" value={entry.roll_deg} onPut={(roll_deg) => change({ roll_deg })} />
          <Select
            label="It gets there"
            value={entry.evenly ? 'evenly' : 'once'}
            options={[
              { value: 'once', label: 'at once' },
              { value: 'evenly', label: 'evenly from the one before' },
            ]}
            onChange={(how) => change({ evenly: how === 'evenly' })}
          />
        </>
      );
    case 'temperatures':
      return (
        <ScenarioNumber
          field="temperature_K"
          value={entry.temperature_K}
          onPut={(temperature_K) => change({ temperature_K })}
        />
      );
    case 'duties':
      return (
        <>
          <Select
            label="Consumers"
            value={entry.runs ? 'on' : 'off'}
            options={[
              { value: 'on', label: 'run' },
              { value: 'off', label: 'are off' },
            ]}
            onChange={(runs) => change({ runs: runs === 'on' })}
          />
          {entry.runs && (
            <ScenarioNumber
              field="duty_ratio"
              value={entry.duty_ratio}
              onPut={(duty_ratio) => change({ duty_ratio })}
            />
          )}
        </>
      );
    case 'volts':
      return <ScenarioNumber field="supply_V" value={entry.supply_V} onPut={(supply_V) => change({ supply_V })} />;
    case 'sets':
      return <SetFields entry={entry} system={system} change={change} />;
    case 'filters':
      return <FilterFields entry={entry} system={system} change={change} />;
    case 'openings':
      return <OpeningFields entry={entry} system={system} change={change} />;
    case 'pours':
      return <PourFields entry={entry} system={system} change={change} />;
  }
}

type FieldsOf<L extends Timed> = {
  readonly entry: Scenario[L][number];
  readonly system: SystemDocument;
  readonly change: (what: object) => void;
};

/** One of several; what an entry names that is not there any more stands among them as that. */
function Which({
  label,
  value,
  options,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (value: string) => void;
}) {
  const isThere = options.some((option) => option.value === value);
  const all = isThere ? options : [...options, { value, label: `${value}, which is not there` }];
  return <Select label={label} value={value} options={all} onChange={onChange} />;
}

function SetFields({ entry, system, change }: FieldsOf<'sets'>) {
  const parts = settable(system);
  const part = parts.find(({ id }) => id === entry.part);
  return (
    <>
      <Which
        label="Part"
        value={entry.part}
        options={parts.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(id) => {
          const next = parts.find((each) => each.id === id);
          if (next) change({ part: id, on: undefined, position: undefined, ...setOf(next) });
        }}
      />
      {part?.kind === 'selector' ? (
        <Select
          label="Is set to"
          value={entry.position ?? part.position}
          options={SELECTED.map((position) => ({ value: position, label: standsAs({ ...part, position }) }))}
          onChange={(position) => change({ position })}
        />
      ) : (
        part && (
          <Select
            label="Is set"
            value={entry.on ? 'on' : 'off'}
            options={([true, false] as const).map((on) => ({
              value: on ? 'on' : 'off',
              label: onWords(part.kind, on),
            }))}
            onChange={(value) => change({ on: value === 'on' })}
          />
        )
      )}
    </>
  );
}

const ON_WORDS: Readonly<Record<string, readonly [on: string, off: string]>> = {
  valve: ['open', 'shut'],
  coupler: ['joined', 'parted'],
  pump: ['running', 'off'],
};
const onWords = (kind: string, on: boolean): string => ON_WORDS[kind]?.[on ? 0 : 1] ?? (on ? 'on' : 'off');

function FilterFields({ entry, system, change }: FieldsOf<'filters'>) {
  const filters = system.components.flatMap(({ id, name, kind }) =>
    kind === 'filter' ? [{ value: id, label: name }] : [],
  );
  return (
    <>
      <Which label="Filter" value={entry.part} options={filters} onChange={(part) => change({ part })} />
      <ScenarioNumber field="dirt_ratio" value={entry.dirt_ratio} onPut={(dirt_ratio) => change({ dirt_ratio })} />
    </>
  );
}

function OpeningFields({ entry, system, change }: FieldsOf<'openings'>) {
  const ports = system.tanks.flatMap((tank) =>
    tank.ports.filter(({ role }) => role === 'vent' || role === 'filler').map((port) => ({ tank, port })),
  );
  const port = ports.find((each) => each.port.id === entry.port)?.port;
  const stands =
    port?.role === 'filler'
      ? (['off', 'on'] as const)
      : port?.shutOff
        ? (['blocked', 'stuck', 'free'] as const)
        : (['blocked', 'free'] as const);
  return (
    <>
      <Which
        label="Opening"
        value={entry.port}
        options={ports.map(({ tank, port: each }) => ({ value: each.id, label: `${each.name}, ${tank.name}` }))}
        onChange={(id) => {
          const role = ports.find((each) => each.port.id === id)?.port.role;
          change({ port: id, stands: role === 'filler' ? 'off' : 'blocked' });
        }}
      />
      <Select
        label="From then on"
        value={entry.stands}
        options={stands.map((each) => ({ value: each as string, label: OPENING_WORDS[each] }))}
        onChange={(each) => change({ stands: each })}
      />
    </>
  );
}

function PourFields({ entry, system, change }: FieldsOf<'pours'>) {
  const fillers = system.tanks.flatMap((tank) =>
    tank.ports.filter(({ role }) => role === 'filler').map((port) => ({ value: port.id, label: port.name })),
  );
  return (
    <>
      <Which label="Filler" value={entry.port} options={fillers} onChange={(port) => change({ port })} />
      <ScenarioNumber field="flow_m3PerS" value={entry.flow_m3PerS} onPut={(flow_m3PerS) => change({ flow_m3PerS })} />
      <ScenarioNumber field="volume_m3" value={entry.volume_m3} onPut={(volume_m3) => change({ volume_m3 })} />
      <ScenarioNumber field="spout_m" value={entry.spout_m} onPut={(spout_m) => change({ spout_m })} />
      <ScenarioNumber field="inserted_m" value={entry.inserted_m} onPut={(inserted_m) => change({ inserted_m })} />
      <Select
        label="The nozzle"
        value={entry.stops}
        options={[
          { value: 'automatic', label: 'clicks off by itself' },
          { value: 'manual', label: 'is shut by hand' },
        ]}
        onChange={(stops) => change({ stops })}
      />
    </>
  );
}

function AddEntry({
  scenario,
  system,
  onPut,
}: {
  readonly scenario: Scenario;
  readonly system: SystemDocument;
  readonly onPut: Put;
}) {
  const last_s = Math.max(0, ...entriesOf(scenario).map(({ at_s }) => at_s));
  const there = TIMED.filter((list) => firstEntry(list, system, 0) !== undefined);
  const [chosen, setChosen] = useState<Timed>('slopes');
  const list = there.includes(chosen) ? chosen : there[0]!;
  return (
    <Box display="flex" gap="3" alignItems="end" flexWrap="wrap" borderTopWidth="1px" borderColor="rule" pt="2">
      <Select
        label="Set one thing more"
        width="min(100%, 280px)"
        value={list}
        options={there.map((each) => ({ value: each, label: LIST_WORDS[each] }))}
        onChange={setChosen}
      />
      <Button
        onClick={() => {
          const entry = firstEntry(list, system, last_s);
          if (entry) onPut(withTimed(scenario, list, entry));
        }}
      >
        <Plus size={18} aria-hidden />
        Add
      </Button>
    </Box>
  );
}

/** Pumps that a level in a tank starts and stops. */
function Switches({
  scenario,
  system,
  onPut,
}: {
  readonly scenario: Scenario;
  readonly system: SystemDocument;
  readonly onPut: Put;
}) {
  const pumps = system.components.filter(({ kind }) => kind === 'pump');
  const { switches } = scenario;
  if (pumps.length === 0) return null;
  const put = (next: Scenario['switches']): void => onPut({ ...scenario, switches: next });
  const change = (index: number, what: Partial<Scenario['switches'][number]>): void =>
    put(switches.map((each, n) => (n === index ? { ...each, ...what } : each)));
  return (
    <Box display="grid" gap="2">
      {switches.map((each, i) => (
        <Row key={i} title="A level switch" onRemove={() => put(switches.filter((_, n) => n !== i))}>
          <Which
            label="Pump"
            value={each.pump}
            options={pumps.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(pump) => change(i, { pump })}
          />
          <Which
            label="By the level in"
            value={each.tank}
            options={system.tanks.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(tank) => change(i, { tank })}
          />
          <ScenarioNumber
            field="stopsAt_ratio"
            value={each.stopsAt_ratio}
            onPut={(stopsAt_ratio) => change(i, { stopsAt_ratio })}
          />
          <ScenarioNumber
            field="startsAt_ratio"
            value={each.startsAt_ratio}
            onPut={(startsAt_ratio) => change(i, { startsAt_ratio })}
          />
        </Row>
      ))}
      <Box>
        <Button
          onClick={() =>
            put([
              ...switches,
              { pump: pumps[0]!.id, tank: system.tanks[0]!.id, stopsAt_ratio: 0.95, startsAt_ratio: 0.5 },
            ])
          }
        >
          <Plus size={18} aria-hidden />
          Level switch
        </Button>
      </Box>
    </Box>
  );
}
