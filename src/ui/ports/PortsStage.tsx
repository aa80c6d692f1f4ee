'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { ACROSS_FACE, chosen, FACES, freshId, PICKUP_KINDS, PORT_ROLES, shapeSpan, STRAINERS, withAdded, withValue, type PortDocument, type SystemDocument } from '@/core/document';
import { AttitudePanel } from './AttitudePanel';
import { TankViews } from '../drawing/TankViews';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { StageFindings } from '../findings/FindingsView';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { EntryHead } from '../parts/EntryHead';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Shown } from '../parts/Shown';
import { FACE_WORDS, ROLE_WORDS, STRAINER_WORDS } from '../parts/words';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useDetails } from '../state/results';
import { openTank, useTank } from '../state/tankChoice';
import { ContactPanel } from '../tank/ContactPanel';
import { TankPicker } from '../tank/TankPicker';
import { ThreadPanel } from './ThreadPanel';

const PICKUP_WORDS: Readonly<Record<(typeof PICKUP_KINDS)[number], string>> = { 'top-tube': 'tube from the lid', 'bottom-outlet': 'outlet in the bottom' };

export function PortsStage() {
  const system = useSystem();
  const t = useTank();
  const tank = system.tanks[t]!;
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <Panel title={tank.name}><TankViews index={t} /></Panel>
      <AttitudePanel />
      {tank.pickups.map((pickup, p) => <PickupPanel key={pickup.id} t={t} p={p} />)}
      <Panel title="Holes in the tank" aside={<Button onClick={addPort}><Plus size={18} aria-hidden />Add a port</Button>}>
        <Box display="grid" gap="4">{tank.ports.map((port, p) => <PortRow key={port.id} port={port} t={t} p={p} system={system} />)}</Box>
        <Box mt="3"><Caution>Drill, saw and deburr before the tank has ever held fuel. Chips left inside end in the pump: wash and look before you close it.</Caution></Box>
      </Panel>
      <ThreadPanel />
      <ContactPanel title="Seals and what hangs inside" groups={['gasket', 'sealant', 'hose', 'tie']} />
      <StageFindings stage="ports" />
    </Box>
  );
}

function PickupPanel({ t, p }: { readonly t: number; readonly p: number }) {
  const system = useSystem();
  const { results } = useDetails();
  const pickup = system.tanks[t]!.pickups[p]!;
  const at = (key: string) => ['tanks', t, 'pickups', p, key];
  const result = results?.ok ? results.evaluation.tanks[t]?.pickups.find((candidate) => candidate.id === pickup.id) : undefined;
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
    const [length, width] = shapeSpan(system.tanks[openTank()]!.shape);
    const round = (value: number): number => Number(value.toFixed(3));
    const port: PortDocument = {
      id: freshId(system, 'spare'), name: 'Spare, plugged', role: 'spare', face: 'lid',
      x_m: chosen(round(length * 0.7)), y_m: chosen(round(width / 2)), bore_m: chosen(0.012), length_m: chosen(0),
    };
    return withAdded(system, ['tanks', openTank(), 'ports'], port);
  });
}

/** Moves a port to another face, to the middle of it where its old place has no meaning. */
function withFace(system: SystemDocument, t: number, p: number, face: PortDocument['face']): SystemDocument {
  const { shape, ports } = system.tanks[t]!;
  const port = ports[p]!;
  const [length, width, height] = shapeSpan(shape);
  const middle = { x_m: length / 2, y_m: width / 2, z_m: height / 2 };
  const placed = Object.fromEntries((['x_m', 'y_m', 'z_m'] as const).flatMap((axis) => (ACROSS_FACE[face] === axis ? [] : [[axis, port[axis] ?? chosen(Number(middle[axis].toFixed(3)))]])));
  const { x_m: _x, y_m: _y, z_m: _z, ...rest } = port;
  return withValue(system, ['tanks', t, 'ports', p], { ...rest, face, ...placed });
}

const AXIS_WORDS = { x_m: 'From the aft wall', y_m: 'From the starboard wall', z_m: 'Above the floor' } as const;

function PortRow({ port, t, p, system }: { readonly port: PortDocument; readonly t: number; readonly p: number; readonly system: SystemDocument }) {
  const list = ['tanks', t, 'ports'] as const;
  const at = (key: string) => [...list, p, key];
  const { pickups, senders } = system.tanks[t]!;
  const inUse = [...pickups, ...senders].some((part) => part.port === port.id);
  const wet = useDetails(({ results }) => results?.ok === true && results.evaluation.tanks[t]?.wetPorts.includes(port.id) === true);
  return (
    <Box borderTopWidth="1px" borderColor="rule" pt="3" data-path={`tanks.${t}.ports.${p}`}>
      <EntryHead name={port.name} list={list} index={p} heldBy={inUse ? 'A pickup or sender hangs on this port' : undefined}>
        <Select label="For" width="150px" value={port.role} options={PORT_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))} onChange={(value) => setValue('use of a port', at('role'), value)} />
        <Select label="On the" width="150px" value={port.face} options={FACES.map((value) => ({ value, label: FACE_WORDS[value] }))} onChange={(face) => applyEdit('face of a port', (current) => withFace(current, t, p, face))} />
      </EntryHead>
      {wet && <Box fontSize="sm" color="soft" mb="2">Under the liquid now.</Box>}
      <FieldGrid>
        {(['x_m', 'y_m', 'z_m'] as const).filter((axis) => port[axis]).map((axis) => <KnownField key={axis} label={AXIS_WORDS[axis]} path={at(axis)} role="tape" />)}
        <KnownField label="Bore" path={at('bore_m')} role="bore" entry={{ line: 'hose' }} />
      </FieldGrid>
    </Box>
  );
}
