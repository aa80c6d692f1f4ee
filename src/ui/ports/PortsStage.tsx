'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { ACROSS_FACE, chosen, FACES, freshId, PICKUP_KINDS, PORT_ROLES, shapeSpan, STRAINERS, withAdded, withoutEntry, withValue, type PortDocument, type SystemDocument } from '@/core/document';
import { AttitudePanel } from './AttitudePanel';
import { TankViews } from '../drawing/TankViews';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { StageFindings } from '../findings/FindingsView';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Shown } from '../parts/Shown';
import { FACE_WORDS, ROLE_WORDS, STRAINER_WORDS } from '../parts/words';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useDetails } from '../state/results';

const PICKUP_WORDS: Readonly<Record<(typeof PICKUP_KINDS)[number], string>> = { 'top-tube': 'tube from the lid', 'bottom-outlet': 'outlet in the bottom' };

export function PortsStage() {
  const system = useSystem();
  const tank = system.tanks[0]!;
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <Panel title={tank.name}><TankViews /></Panel>
      <AttitudePanel />
      {tank.pickups.map((pickup, p) => <PickupPanel key={pickup.id} p={p} />)}
      <Panel title="Holes in the tank" aside={<Button onClick={addPort}><Plus size={18} aria-hidden />Add a port</Button>}>
        <Box display="grid" gap="4">{tank.ports.map((port, p) => <PortRow key={port.id} port={port} p={p} system={system} />)}</Box>
        <Box mt="3"><Caution>Drill, saw and deburr before the tank has ever held fuel. Chips left inside end in the pump: wash and look before you close it.</Caution></Box>
      </Panel>
      <StageFindings stage="ports" />
    </Box>
  );
}

function PickupPanel({ p }: { readonly p: number }) {
  const system = useSystem();
  const { results } = useDetails();
  const pickup = system.tanks[0]!.pickups[p]!;
  const at = (key: string) => ['tanks', 0, 'pickups', p, key];
  const result = results?.ok ? results.evaluation.tanks[0]?.pickups.find((candidate) => candidate.id === pickup.id) : undefined;
  return (
    <Panel title={pickup.name} testId="pickup">
      <FieldGrid>
        <KnownField label="Height off the floor" path={at('heightOffFloor_m')} role="tape" />
        <KnownField label="Bore of the tube" path={at('bore_m')} role="bore" entry={{ line: 'tube' }} />
        <KnownField label="Liquid needed over the inlet" path={at('submergence_m')} role="tape" />
        <Select label="Kind" value={pickup.kind} options={PICKUP_KINDS.map((value) => ({ value, label: PICKUP_WORDS[value] }))} onChange={(value) => setValue('kind of pickup', at('kind'), value)} />
        <Select label="Strainer" value={pickup.strainer} options={STRAINERS.map((value) => ({ value, label: STRAINER_WORDS[value] }))} onChange={(value) => setValue('strainer', at('strainer'), value)} />
        <Practice of="outlet" />
        <Practice of="pickup" />
        <Practice of="strainer" />
      </FieldGrid>
      {result && (
        <Box mt="3" display="flex" gap="5" flexWrap="wrap">
          <Box>Leaves behind, level <b><Shown value={result.unusableLevel_m3} role="tankVolume" /></b></Box>
          <Box>at this slope <b><Shown value={result.unusableNow_m3} role="tankVolume" /></b></Box>
          <Box>at the worst slope <b><Shown value={result.worst.unusable_m3} role="tankVolume" /></b></Box>
          <Box>Can still draw <b><Shown value={result.leftNow_m3} role="tankVolume" /></b></Box>
        </Box>
      )}
    </Panel>
  );
}

/** A spare, plugged hole in the middle of the lid. */
function addPort(): void {
  applyEdit('add a port', (system) => {
    const [length, width] = shapeSpan(system.tanks[0]!.shape);
    const round = (value: number): number => Number(value.toFixed(3));
    const port: PortDocument = {
      id: freshId(system, 'spare'), name: 'Spare, plugged', role: 'spare', face: 'lid',
      x_m: chosen(round(length * 0.7)), y_m: chosen(round(width / 2)), bore_m: chosen(0.012), length_m: chosen(0),
    };
    return withAdded(system, ['tanks', 0, 'ports'], port);
  });
}

/** Moves a port to another face, to the middle of it where its old place has no meaning. */
function withFace(system: SystemDocument, p: number, face: PortDocument['face']): SystemDocument {
  const { shape, ports } = system.tanks[0]!;
  const port = ports[p]!;
  const [length, width, height] = shapeSpan(shape);
  const middle = { x_m: length / 2, y_m: width / 2, z_m: height / 2 };
  const placed = Object.fromEntries((['x_m', 'y_m', 'z_m'] as const).flatMap((axis) => (ACROSS_FACE[face] === axis ? [] : [[axis, port[axis] ?? chosen(Number(middle[axis].toFixed(3)))]])));
  const { x_m: _x, y_m: _y, z_m: _z, ...rest } = port;
  return withValue(system, ['tanks', 0, 'ports', p], { ...rest, face, ...placed });
}

const AXIS_WORDS = { x_m: 'From the aft wall', y_m: 'From the starboard wall', z_m: 'Above the floor' } as const;

function PortRow({ port, p, system }: { readonly port: PortDocument; readonly p: number; readonly system: SystemDocument }) {
  const at = (key: string) => ['tanks', 0, 'ports', p, key];
  const inUse = system.tanks[0]!.pickups.some((pickup) => pickup.port === port.id) || system.tanks[0]!.senders.some((sender) => sender.port === port.id);
  const rename = (text: string) => {
    const name = text.trim();
    if (name.length < 1 || name.length > 80) return { ok: false as const, message: 'A name has 1 to 80 characters.' };
    setValue('rename a port', at('name'), name);
    return { ok: true as const };
  };
  return (
    <Box borderTopWidth="1px" borderColor="rule" pt="3" data-path={`tanks.0.ports.${p}`}>
      <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
        <Box flex="1 1 200px"><TextEntry label="Name" value={port.name} onEnter={rename} /></Box>
        <Select label="For" width="150px" value={port.role} options={PORT_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))} onChange={(value) => setValue('use of a port', at('role'), value)} />
        <Select label="On the" width="150px" value={port.face} options={FACES.map((value) => ({ value, label: FACE_WORDS[value] }))} onChange={(face) => applyEdit('face of a port', (current) => withFace(current, p, face))} />
        <chakra.button
          type="button" aria-label={`Remove ${port.name}`} title={inUse ? 'A pickup or sender hangs on this port' : `Remove ${port.name}`} disabled={inUse} onClick={() => applyEdit(`remove ${port.name}`, (current) => withoutEntry(current, ['tanks', 0, 'ports'], p))}
          minW="44px" minH="42px" display="grid" placeItems="center" borderWidth="1.5px" borderColor="rule" borderRadius="md" cursor="pointer" _disabled={{ opacity: 0.35, cursor: 'not-allowed' }}
        >
          <Trash2 size={18} aria-hidden />
        </chakra.button>
      </Box>
      <FieldGrid>
        {(['x_m', 'y_m', 'z_m'] as const).filter((axis) => port[axis]).map((axis) => <KnownField key={axis} label={AXIS_WORDS[axis]} path={at(axis)} role="tape" />)}
        <KnownField label="Bore" path={at('bore_m')} role="bore" entry={{ line: 'hose' }} />
      </FieldGrid>
    </Box>
  );
}
