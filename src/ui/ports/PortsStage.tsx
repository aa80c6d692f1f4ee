'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { assumed, chosen, freshId, withAdded, type PickupDocument, type SystemDocument } from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { TankViews } from '../drawing/TankViews';
import { StageFindings } from '../findings/FindingsView';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { useOutcome } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { openTank, useTank } from '../state/tankChoice';
import { ContactPanel } from '../tank/ContactPanel';
import { TankPicker } from '../tank/TankPicker';
import { AttitudePanel } from './AttitudePanel';
import { HoleChart } from './HoleChart';
import { PickupPanel } from './PickupPanel';
import { PortRow } from './PortRow';
import { withSpare } from './portEdits';
import { ReservePanel } from './ReservePanel';
import { SheetPanel } from './SheetPanel';
import { ThreadPanel } from './ThreadPanel';

export function PortsStage() {
  const system = useSystem();
  const t = useTank();
  const tank = system.tanks[t]!;
  const cuts = useOutcome('cuts', t).value;
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <SheetPanel />
      <Panel
        title="Ports"
        aside={
          <Button onClick={() => applyEdit('add a port', (current) => withSpare(current, openTank()))}>
            <Plus size={18} aria-hidden />
            Add a port
          </Button>
        }
      >
        <Box mb="3" maxW="420px">
          <Practice of="ports" />
        </Box>
        {tank.pickups.length > 0 && !tank.ports.some(({ role }) => role === 'spare') && (
          <Box mb="3" display="flex" gap="3" alignItems="center" flexWrap="wrap" data-testid="offer-spare">
            <Box flex="1 1 260px">
              A second tank, a heater or a return is likely to be added one day, and by then the tank has held fuel.
            </Box>
            <Button
              onClick={() =>
                applyEdit('add a plugged spare', (current) =>
                  withSpare(current, openTank(), besideFeed(current, openTank())),
                )
              }
            >
              Add a plugged spare beside the feed
            </Button>
          </Box>
        )}
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
      <HoleChart />
      <Panel title={tank.name}>
        <TankViews index={t} />
      </Panel>
      {tank.pickups.map((pickup, p) => (
        <PickupPanel
          key={pickup.id}
          t={t}
          p={p}
          cut={cuts?.ok ? cuts.value.find(({ id }) => id === pickup.id) : undefined}
          isFirst={p === 0}
        />
      ))}
      <Box>
        <Button
          onClick={addPickup}
          disabled={tank.ports.every(({ id }) => tank.pickups.some(({ port }) => port === id))}
        >
          <Plus size={18} aria-hidden />
          Add a pickup
        </Button>
      </Box>
      <ReservePanel t={t} />
      <AttitudePanel />
      <ThreadPanel />
      <ContactPanel title="Seals and what hangs inside" groups={['gasket', 'sealant', 'hose', 'tie']} />
      <StageFindings stage="ports" />
    </Box>
  );
}

/** Two covers further along the lid than the port that feeds, towards the middle. */
function besideFeed(system: SystemDocument, t: number): { readonly x_m: number; readonly y_m: number } | undefined {
  const { ports, pickups, shape } = system.tanks[t]!;
  const feed = ports.find(({ id, face }) => face === 'lid' && pickups.some(({ port }) => port === id));
  if (!feed?.x_m || !feed.y_m) return undefined;
  const [, width] = shapeSpan(shape);
  return { x_m: feed.x_m.value, y_m: feed.y_m.value + (feed.y_m.value < width / 2 ? BESIDE_M : -BESIDE_M) };
}
/** Room for both hose ends and a spanner. */
const BESIDE_M = 0.07;

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
