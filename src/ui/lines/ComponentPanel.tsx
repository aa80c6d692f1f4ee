'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { limitsAt, withAdded, withoutEntry, type ComponentDocument } from '@/core/document';
import { entryText, roleUnit, ROLES, unitById, type Role } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { applyEdit, openDocument, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';

export function ComponentPanel({ index }: { readonly index: number }) {
  const part = useSystem().components[index]!;
  switch (part.kind) {
    case 'filter': return <FilterPanel index={index} part={part} />;
    case 'pump': return <PumpPanel index={index} part={part} />;
    case 'valve': return <ValvePanel index={index} part={part} />;
    case 'check-valve': return <Panel title={part.name}><KnownField label="Bore" path={['components', index, 'bore_m']} role="bore" entry={{ line: 'hose' }} /></Panel>;
  }
}

type Of<K extends ComponentDocument['kind']> = { readonly index: number; readonly part: Extract<ComponentDocument, { kind: K }> };

function FilterPanel({ index, part }: Of<'filter'>) {
  const at = (key: string) => ['components', index, key];
  return (
    <Panel title={part.name}>
      <FieldGrid>
        <KnownField label="Rated flow" path={at('ratedFlow_m3PerS')} role={part.ratedFlow_m3PerS.value > 3e-4 ? 'transfer' : 'burn'} />
        <KnownField label="Pressure drop at rated flow" path={at('ratedDrop_Pa')} role="pressure" />
        <KnownField label="Dirty over clean" path={at('dirt_ratio')} role="count" hint="1 when new; 3 is due for a change." />
      </FieldGrid>
    </Panel>
  );
}

function ValvePanel({ index, part }: Of<'valve'>) {
  return (
    <Panel title={part.name}>
      <FieldGrid>
        <Select label="Stands" value={part.open ? 'open' : 'shut'} options={[{ value: 'open', label: 'open' }, { value: 'shut', label: 'shut' }]} onChange={(value) => setValue(`${part.name} ${value}`, ['components', index, 'open'], value === 'open')} />
        <KnownField label="Bore" path={['components', index, 'bore_m']} role="bore" entry={{ line: 'hose' }} />
      </FieldGrid>
    </Panel>
  );
}

function PumpPanel({ index, part }: Of<'pump'>) {
  const at = (key: string) => ['components', index, key];
  return (
    <Panel title={part.name} testId="pump">
      <FieldGrid>
        <KnownField label="Real output, as a share of its curve" path={at('output_ratio')} role="share" hint="Time it into a known can." />
        <KnownField label="Rated voltage" path={at('ratedVoltage_V')} role="voltage" />
        <KnownField label="Self-priming lift" path={at('selfPrimingLift_m')} role="run" />
        <Select label="It" value={part.running ? 'runs' : 'stands'} options={[{ value: 'runs', label: 'runs' }, { value: 'stands', label: 'stands still' }]} onChange={(value) => setValue(`pump ${value}`, at('running'), value === 'runs')} />
        <Select label="Check valve built in" value={part.checkBuiltIn ? 'yes' : 'no'} options={[{ value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }]} onChange={(value) => setValue('check valve', at('checkBuiltIn'), value === 'yes')} />
      </FieldGrid>
      <CurveTable index={index} part={part} />
      <Box mt="3"><Caution>Pump, relay and switch spark. Keep them out of any space where vapour gathers, fuse the wire at the battery, and use parts rated for fuel.</Caution></Box>
    </Panel>
  );
}

/** The pump's curve at its rated voltage, point by point. */
function CurveTable({ index, part }: Of<'pump'>) {
  const reader = useReader();
  const path = ['components', index, 'curve'];
  const flowsAs: Role = part.curve.some((point) => point.flow_m3PerS > 3e-4) ? 'transfer' : 'burn';
  const add = (): void => applyEdit('add a point to the curve', (system) => {
    const last = part.curve.at(-1);
    const next = last ? { flow_m3PerS: Math.min(0.1, last.flow_m3PerS * 1.2 + 1e-6), rise_Pa: Math.max(0, last.rise_Pa * 0.8) } : { flow_m3PerS: 0, rise_Pa: 1e4 };
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
      <Box fontWeight="650" mb="1">Its curve at rated voltage: pressure must fall as flow grows</Box>
      <Box display="grid" gap="2" maxW="520px">
        {part.curve.map((point, i) => (
          <Box key={i} display="flex" gap="2" alignItems="start">
            <Box flex="1"><TextEntry label={`Flow, point ${i + 1}`} hideLabel value={entryText(point.flow_m3PerS, flowsAs, reader)} unit={unit(flowsAs)} onEnter={enter(i, 'flow_m3PerS', flowsAs)} /></Box>
            <Box flex="1"><TextEntry label={`Pressure, point ${i + 1}`} hideLabel value={entryText(point.rise_Pa, 'pressure', reader)} unit={unit('pressure')} onEnter={enter(i, 'rise_Pa', 'pressure')} /></Box>
            <chakra.button type="button" aria-label={`Remove point ${i + 1}`} onClick={() => applyEdit('remove a point of the curve', (system) => withoutEntry(system, path, i))} minW="44px" minH="42px" display="grid" placeItems="center" borderWidth="1.5px" borderColor="rule" borderRadius="md" cursor="pointer"><Trash2 size={18} aria-hidden /></chakra.button>
          </Box>
        ))}
      </Box>
      <Box mt="2"><Button onClick={add}><Plus size={18} aria-hidden />Add a point</Button></Box>
    </Box>
  );
}
