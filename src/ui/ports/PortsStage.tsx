'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { assumed, chosen, freshId, withAdded, type PickupDocument } from '@/core/plan';
import { TankViews } from '../drawing/TankViews';
import { Select } from '../fields/Select';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { useOutcome } from '../state/answers';
import { applyEdit, useSystem, useValue } from '../state/editor';
import { openTank, useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { useTask } from '../workspace/goTo';
import { useEntry } from '../workspace/useEntry';
import { AttitudePanel } from './AttitudePanel';
import { AddPort, OfferSpare } from './AddPort';
import { HoleChart } from './HoleChart';
import { PickupPanel } from './PickupPanel';
import { PortRow } from './PortRow';
import { ReservePanel } from './ReservePanel';
import { SheetPanel } from './SheetPanel';
import { ThreadPanel } from './ThreadPanel';

/** The holes of a tank, what hangs in them and what can be drawn through them. */
export function PortsStage() {
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <TaskBody />
    </Box>
  );
}

function TaskBody() {
  switch (useTask('ports')) {
    case 'list':
      return (
        <>
          <PortList />
          <HoleChart />
        </>
      );
    case 'pickups':
      return <Pickups />;
    case 'attitude':
      return <AttitudePanel />;
    case 'threads':
      return <ThreadPanel />;
    default:
      return (
        <>
          <SheetPanel />
          <OfferSpare />
        </>
      );
  }
}

function PortList() {
  const system = useSystem();
  const t = useTank();
  const tank = system.tanks[t]!;
  return (
    <Panel title="Ports" aside={<AddPort />}>
      <Box mb="3" maxW="420px">
        <Practice of="ports" />
      </Box>
      <OfferSpare />
      <Box display="grid" gap="1">
        {tank.ports.map((port, p) => (
          <PortRow key={port.id} port={port} t={t} p={p} />
        ))}
      </Box>
      <Box mt="3">
        <Caution>
          Drill, saw and deburr before the tank has ever held fuel. Chips left inside end in the pump: wash and look
          before you close it.
        </Caution>
      </Box>
    </Panel>
  );
}

/** What a pickup can draw, beside the tank it stands in. */
function Pickups() {
  const t = useTank();
  const tank = useValue((system) => system.tanks[t]!);
  const cuts = useOutcome('cuts', t).value;
  const [p, choose] = useEntry(tank.pickups, ['tanks', t, 'pickups']);
  const pickup = tank.pickups[p];
  return (
    <Beside
      picture={
        <>
          <Panel title={tank.name}>
            <TankViews index={t} />
          </Panel>
          <ReservePanel t={t} />
        </>
      }
    >
      <Box display="flex" gap="2" flexWrap="wrap" alignItems="end">
        {tank.pickups.length > 1 && (
          <Select
            label="Pickup"
            width="230px"
            value={String(p)}
            options={tank.pickups.map(({ name }, i) => ({ value: String(i), label: name }))}
            onChange={(value) => choose(Number(value))}
          />
        )}
        <Button
          onClick={addPickup}
          disabled={tank.ports.every(({ id }) => tank.pickups.some(({ port }) => port === id))}
        >
          <Plus size={18} aria-hidden />
          Add a pickup
        </Button>
      </Box>
      {pickup && (
        <PickupPanel
          key={pickup.id}
          t={t}
          p={p}
          cut={cuts?.ok ? cuts.value.find(({ id }) => id === pickup.id) : undefined}
        />
      )}
    </Beside>
  );
}

/** One more pickup, in a spare port where there is one, else in the first that is free. */
function addPickup(): void {
  applyEdit('add a pickup', (system) => {
    const { ports, pickups } = system.tanks[openTank()]!;
    const free = ports.filter(({ id, face }) => face === 'lid' && !pickups.some(({ port }) => port === id));
    const port =
      free.find(({ role }) => role === 'spare') ?? free.find(({ role }) => role === 'feed') ?? free[0] ?? ports[0]!;
    const pickup: PickupDocument = {
      id: freshId(system, 'pickup'),
      name: `Pickup ${pickups.length + 1}`,
      port: port.id,
      kind: 'top-tube',
      strainer: 'none',
      heightOffFloor_m: chosen(0.05),
      bore_m: chosen(0.006),
      submergence_m: assumed(0.005, 0.004),
    };
    return withAdded(system, ['tanks', openTank(), 'pickups'], pickup);
  });
}
