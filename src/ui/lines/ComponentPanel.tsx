'use client';

import { Box, chakra } from '@chakra-ui/react';
import { BookmarkPlus, Plus, Trash2 } from 'lucide-react';
import {
  assumed,
  limitsAt,
  withAdded,
  withEndsThatAre,
  withoutEntry,
  withValue,
  type ComponentDocument,
} from '@/core/document';
import { entryText, roleUnit, ROLES, unitById, type Role } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { FITTINGS, type FittingKey } from '@/core/reference/losses';
import { readName } from '../fields/readName';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { applyEdit, openDocument, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { keepPart } from './catalogue';
import { FILTER_WORDS, KIND_WORDS, PUMP_WORDS, SELECTED_WORDS } from './lineWords';
import { WiringPanel } from './WiringPanel';

export function ComponentPanel({ index }: { readonly index: number }) {
  const part = useSystem().components[index]!;
  return (
    <Panel
      title={part.name}
      testId={part.kind === 'pump' ? 'pump' : 'part'}
      aside={<Box color="soft">{KIND_WORDS[part.kind]}</Box>}
    >
      <Box maxW="420px" mb="3">
        <TextEntry
          label="Name"
          value={part.name}
          onEnter={(text) =>
            readName(text, (name) => setValue(`rename ${part.name}`, ['components', index, 'name'], name))
          }
        />
      </Box>
      <FieldGrid>
        <Choices index={index} part={part} />
        {FIELDS[part.kind]
          .filter(({ key }) => key in part)
          .map(({ key, label, role, hint, entry }) => (
            <KnownField
              key={key}
              label={label}
              path={['components', index, key]}
              role={
                key === 'ratedFlow_m3PerS' && 'ratedFlow_m3PerS' in part && part.ratedFlow_m3PerS.value > 3e-4
                  ? 'transfer'
                  : role
              }
              {...(hint ? { hint } : {})}
              {...(entry ? { entry } : {})}
            />
          ))}
      </FieldGrid>
      {part.kind === 'filter' && (
        <Box mt="3" maxW="420px">
          <Practice of="meter" />
        </Box>
      )}
      {part.kind === 'pump' && <PumpMore index={index} part={part} />}
      <Box mt="3">
        <Button onClick={() => void keepPart(part)}>
          <BookmarkPlus size={18} aria-hidden />
          Keep among own parts
        </Button>
      </Box>
    </Panel>
  );
}

type Field = {
  readonly key: string;
  readonly label: string;
  readonly role: Role;
  readonly hint?: string;
  readonly entry?: { readonly line: 'hose' };
};
const BORE: Field = { key: 'bore_m', label: 'Bore', role: 'bore', entry: { line: 'hose' } };
const RATED: readonly Field[] = [
  { key: 'ratedFlow_m3PerS', label: 'Rated flow', role: 'burn' },
  { key: 'ratedDrop_Pa', label: 'Pressure drop at rated flow', role: 'pressure' },
  { key: 'ratedDensity_kgPerM3', label: 'Density of the rating', role: 'density' },
];

/** What is typed of each kind of part; choices stand apart. */
const FIELDS: Readonly<Record<ComponentDocument['kind'], readonly Field[]>> = {
  filter: [
    RATED[0]!,
    RATED[1]!,
    { key: 'dirt_ratio', label: 'Dirty over clean', role: 'count', hint: '1 when new; 3 is due for a change.' },
  ],
  pump: [
    {
      key: 'output_ratio',
      label: 'Real output, as a share of its curve',
      role: 'share',
      hint: 'Time it into a known can.',
    },
    { key: 'ratedVoltage_V', label: 'Rated voltage', role: 'voltage' },
    { key: 'selfPrimingLift_m', label: 'Self-priming lift', role: 'run' },
    { key: 'relief_Pa', label: 'Lets go round itself at', role: 'pressure' },
  ],
  valve: [BORE],
  selector: [BORE],
  'check-valve': [
    BORE,
    { key: 'opens_Pa', label: 'Opens at', role: 'pressure', hint: 'Above the head that it shall hold.' },
  ],
  'relief-valve': [{ key: 'opens_Pa', label: 'Opens at', role: 'pressure' }, BORE],
  regulator: [{ key: 'set_Pa', label: 'Holds', role: 'pressure' }, BORE],
  'float-valve': [{ key: 'closesAt_ratio', label: 'Shuts when the tank is full to', role: 'share' }, BORE],
  'vacuum-breaker': [{ key: 'opens_Pa', label: 'Lets air in below', role: 'pressure' }, BORE],
  tee: [BORE],
  cross: [BORE],
  coupler: [...RATED, { key: 'spill_m3', label: 'Spilled when parted', role: 'smallVolume' }],
  meter: RATED,
  damper: [BORE],
  orifice: [
    BORE,
    {
      key: 'discharge_ratio',
      label: 'Discharge coefficient',
      role: 'share',
      hint: 'Sharp edge 61 %, short tube 80 %.',
    },
  ],
  fitting: [BORE],
  outlet: [],
};

function Choices({ index, part }: { readonly index: number; readonly part: ComponentDocument }) {
  const system = useSystem();
  const at = (key: string) => ['components', index, key];
  const yesNo = (label: string, key: string, value: boolean, yes: string, no: string) => (
    <Select
      label={label}
      value={value ? 'yes' : 'no'}
      options={[
        { value: 'yes', label: yes },
        { value: 'no', label: no },
      ]}
      onChange={(chosen) => setValue(label, at(key), chosen === 'yes')}
    />
  );
  const pick = <T extends string>(label: string, key: string, value: T, words: Readonly<Record<T, string>>) => (
    <Select
      label={label}
      value={value}
      options={(Object.keys(words) as T[]).map((each) => ({ value: each, label: words[each] }))}
      onChange={(chosen) => setValue(label, at(key), chosen)}
    />
  );
  switch (part.kind) {
    case 'filter':
      return pick('It', 'does', part.does, FILTER_WORDS);
    case 'valve':
      return yesNo('Stands', 'open', part.open, 'open', 'shut');
    case 'coupler':
      return yesNo('Its halves are', 'joined', part.joined, 'joined', 'parted');
    case 'selector':
      return pick('Stands', 'position', part.position, SELECTED_WORDS);
    case 'regulator':
      return (
        // Without a return end the line that was joined to it goes too.
        <Select
          label="Kind"
          value={part.style}
          options={[
            { value: 'dead-head' as const, label: 'keeps the pressure behind it' },
            { value: 'bypass' as const, label: 'keeps the pressure before it, with a return' },
          ]}
          onChange={(style) =>
            applyEdit('kind of regulator', (current) => withEndsThatAre(withValue(current, at('style'), style)))
          }
        />
      );
    case 'check-valve':
      return part.opens_Pa ? null : (
        <Button onClick={() => setValue('spring', at('opens_Pa'), assumed(3000, 1000))}>
          Give it a spring (anti-siphon)
        </Button>
      );
    case 'float-valve':
      return pick('On tank', 'tank', part.tank, Object.fromEntries(system.tanks.map(({ id, name }) => [id, name])));
    case 'fitting':
      return pick(
        'It is a',
        'fitting',
        part.fitting,
        Object.fromEntries((Object.keys(FITTINGS) as FittingKey[]).map((key) => [key, FITTINGS[key].name])) as Record<
          FittingKey,
          string
        >,
      );
    case 'pump':
      return (
        <>
          {pick('Kind', 'type', part.type, PUMP_WORDS)}
          {yesNo('It', 'running', part.running, 'runs', 'stands still')}
          {yesNo('Check valve built in', 'checkBuiltIn', part.checkBuiltIn, 'yes', 'no')}
          {part.relief_Pa ? null : (
            <Button
              onClick={() =>
                setValue(
                  'relief valve',
                  at('relief_Pa'),
                  assumed(Math.max(1000, 0.9 * Math.max(...part.curve.map(({ rise_Pa }) => rise_Pa))), 2000),
                )
              }
            >
              It has a relief valve
            </Button>
          )}
        </>
      );
    default:
      return null;
  }
}

type PumpPart = Extract<ComponentDocument, { kind: 'pump' }>;

function PumpMore({ index, part }: { readonly index: number; readonly part: PumpPart }) {
  return (
    <>
      <CurveTable index={index} part={part} />
      <WiringPanel index={index} part={part} />
      <Box mt="3">
        <Caution>
          Pump, relay and switch spark. Keep them out of any space where vapour gathers, fuse the wire at the battery,
          and use parts rated for fuel.
        </Caution>
      </Box>
    </>
  );
}

/** The pump's curve at its rated voltage, point by point. */
function CurveTable({ index, part }: { readonly index: number; readonly part: PumpPart }) {
  const reader = useReader();
  const path = ['components', index, 'curve'];
  const flowsAs: Role = part.curve.some((point) => point.flow_m3PerS > 3e-4) ? 'transfer' : 'burn';
  const add = (): void =>
    applyEdit('add a point to the curve', (system) => {
      const last = part.curve.at(-1);
      const next = last
        ? { flow_m3PerS: Math.min(0.1, last.flow_m3PerS * 1.2 + 1e-6), rise_Pa: Math.max(0, last.rise_Pa * 0.8) }
        : { flow_m3PerS: 0, rise_Pa: 1e4 };
      return withAdded(system, path, next);
    });
  const unit = (role: Role): string => unitById(ROLES[role].kind, roleUnit(role, reader)).symbol;
  const enter = (i: number, key: 'flow_m3PerS' | 'rise_Pa', role: Role) => (text: string) => {
    const read = readEntry(text, role, reader, limitsAt(openDocument(), [...path, i, key]));
    if (!read.ok) return read;
    setValue('pump curve', [...path, i, key], read.value);
    return { ok: true as const };
  };
  return (
    <Box mt="3">
      <Box fontWeight="650" mb="1">
        Its curve at rated voltage: pressure must fall as flow grows
      </Box>
      <Box display="grid" gap="2" maxW="520px">
        {part.curve.map((point, i) => (
          <Box key={i} display="flex" gap="2" alignItems="start">
            <Box flex="1">
              <TextEntry
                label={`Flow, point ${i + 1}`}
                hideLabel
                value={entryText(point.flow_m3PerS, flowsAs, reader)}
                unit={unit(flowsAs)}
                onEnter={enter(i, 'flow_m3PerS', flowsAs)}
              />
            </Box>
            <Box flex="1">
              <TextEntry
                label={`Pressure, point ${i + 1}`}
                hideLabel
                value={entryText(point.rise_Pa, 'pressure', reader)}
                unit={unit('pressure')}
                onEnter={enter(i, 'rise_Pa', 'pressure')}
              />
            </Box>
            <chakra.button
              type="button"
              aria-label={`Remove point ${i + 1}`}
              onClick={() => applyEdit('remove a point of the curve', (system) => withoutEntry(system, path, i))}
              minW="44px"
              minH="42px"
              display="grid"
              placeItems="center"
              borderWidth="1.5px"
              borderColor="rule"
              borderRadius="md"
              cursor="pointer"
            >
              <Trash2 size={18} aria-hidden />
            </chakra.button>
          </Box>
        ))}
      </Box>
      <Box mt="2">
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add a point
        </Button>
      </Box>
    </Box>
  );
}
