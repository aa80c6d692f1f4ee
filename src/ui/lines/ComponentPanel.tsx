'use client';

import { Box, chakra } from '@chakra-ui/react';
import { kindOf, type Choice } from '@/core/components';
import { BookmarkPlus, Plus, Trash2 } from 'lucide-react';
import {
  limitsAt,
  quantitiesAt,
  withAdded,
  withEndsThatAre,
  withoutEntry,
  withValue,
  type ComponentDocument,
} from '@/core/plan';
import { entryText, roleUnit, ROLES, unitById, type Role } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { readName } from '../fields/readName';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { applyEdit, openDocument, setValue, setValueNumbersFirst, useSystem, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { keepPart } from './catalogue';
import { WiringPanel } from './WiringPanel';

export function ComponentPanel({ index }: { readonly index: number }) {
  const system = useSystem();
  const part = system.components[index]!;
  return (
    <Panel
      title={part.name}
      testId={part.kind === 'pump' ? 'pump' : 'part'}
      aside={<Box color="soft">{kindOf(part).word}</Box>}
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
        {quantitiesAt(system, ['components', index]).map((key) => (
          <KnownField
            key={key}
            path={['components', index, key]}
            {...(key === 'bore_m' ? { entry: { line: 'hose' as const } } : {})}
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

/** What somebody sets the part to or chooses of it, and quantities that it may be given. */
function Choices({ index, part }: { readonly index: number; readonly part: ComponentDocument }) {
  const { choices = [], additions = [] } = kindOf(part);
  const at = (key: string) => ['components', index, key];
  const valueOf = ({ key, unsaid }: Choice): string => String(part[key as keyof ComponentDocument] ?? unsaid);
  // A part made otherwise may lose an end, and the line that was joined to it goes too.
  const choose = (key: string, { value, label }: Choice['options'][number]): void =>
    applyEdit(`${part.name}: ${label}`, (system) => withEndsThatAre(withValue(system, at(key), value)));
  return (
    <>
      {part.kind === 'float-valve' && <TankChoice index={index} tank={part.tank} />}
      {choices.map(({ key, label, unsaid, options }) => (
        <Box key={key} data-path={at(key).join('.')}>
          <Select
            label={label}
            value={valueOf({ key, label, unsaid, options })}
            options={[
              ...(part[key as keyof ComponentDocument] === undefined && unsaid === undefined
                ? [{ value: String(undefined), label: 'not said' }]
                : []),
              ...options.map((option) => ({ value: String(option.value), label: option.label })),
            ]}
            onChange={(chosen) =>
              options.filter(({ value }) => String(value) === chosen).forEach((option) => choose(key, option))
            }
          />
        </Box>
      ))}
      {additions
        .filter(({ key }) => part[key] === undefined)
        .map(({ key, label, edit, start }) => (
          <Button key={key} onClick={() => setValue(edit, at(key), start(part))}>
            {label}
          </Button>
        ))}
    </>
  );
}

/** The tank whose level shuts a float valve. */
function TankChoice({ index, tank }: { readonly index: number; readonly tank: string }) {
  const tanks = useValue((system) => system.tanks);
  return (
    <Select
      label="On tank"
      value={tank}
      options={tanks.map(({ id, name }) => ({ value: id, label: name }))}
      onChange={(chosen) => setValue('tank of the float valve', ['components', index, 'tank'], chosen)}
    />
  );
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
  /** A hundredth of its curve's greatest a key. */
  const step = (i: number, key: 'flow_m3PerS' | 'rise_Pa') => (steps: number) => {
    const at = [...path, i, key];
    const { min, max } = limitsAt(openDocument(), at);
    const by = Math.max(...part.curve.map((point) => point[key])) / 100;
    setValueNumbersFirst(
      'pump curve',
      at,
      Number(Math.min(max, Math.max(min, part.curve[i]![key] + steps * by)).toPrecision(6)),
    );
  };
  return (
    <Box mt="3">
      <Box fontWeight="650" mb="1">
        Its curve at rated voltage: pressure must fall as flow grows
      </Box>
      <Box display="grid" gap="2" maxW="520px">
        {part.curve.map((point, i) => (
          <Box key={i} display="flex" gap="2" alignItems="start" data-path={[...path, i].join('.')}>
            <Box flex="1">
              <TextEntry
                label={`Flow, point ${i + 1}`}
                hideLabel
                value={entryText(point.flow_m3PerS, flowsAs, reader)}
                unit={unit(flowsAs)}
                onEnter={enter(i, 'flow_m3PerS', flowsAs)}
                onStep={step(i, 'flow_m3PerS')}
              />
            </Box>
            <Box flex="1">
              <TextEntry
                label={`Pressure, point ${i + 1}`}
                hideLabel
                value={entryText(point.rise_Pa, 'pressure', reader)}
                unit={unit('pressure')}
                onEnter={enter(i, 'rise_Pa', 'pressure')}
                onStep={step(i, 'rise_Pa')}
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
