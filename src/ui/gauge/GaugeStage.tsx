'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { TankViews } from '../drawing/TankViews';
import { Select } from '../fields/Select';
import { StageFindings } from '../findings/FindingsView';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { applyEdit, useValue } from '../state/editor';
import { openTank, useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { CalibrationPanel } from './CalibrationPanel';
import { CorrectionPanel } from './CorrectionPanel';
import { DesignPanel } from './DesignPanel';
import { GaugeChart } from './GaugeChart';
import { NeedlePanel } from './NeedlePanel';
import { ScalesPanel } from './ScalesPanel';
import { SenderPanel } from './SenderPanel';
import { withSender } from './gaugeEdits';

export function GaugeStage() {
  const t = useTank();
  const tank = useValue((system) => system.tanks[t]!);
  const [chosen, setChosen] = useState(0);
  const s = Math.min(chosen, tank.senders.length - 1);
  const sender = tank.senders[s];
  const add = (
    <Button
      disabled={tank.ports.length === 0}
      onClick={() => applyEdit('add a sender', (system) => withSender(system, openTank()))}
    >
      <Plus size={18} aria-hidden />
      Add a sender
    </Button>
  );
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      {!sender && (
        <Panel title="Gauge" aside={add}>
          {tank.name} has no sender.
        </Panel>
      )}
      {sender && (
        <>
          {tank.senders.length > 1 && (
            <Select
              label="Sender"
              width="280px"
              value={String(s)}
              options={tank.senders.map(({ name }, i) => ({ value: String(i), label: name }))}
              onChange={(value) => setChosen(Number(value))}
            />
          )}
          <GaugeChart s={s} />
          <Panel title={tank.name}>
            <TankViews index={t} />
          </Panel>
          <SenderPanel t={t} s={s} aside={add} />
          {sender.kind === 'swing-arm' && <DesignPanel t={t} s={s} />}
          <NeedlePanel t={t} s={s} />
          <CorrectionPanel t={t} s={s} />
        </>
      )}
      <ScalesPanel t={t} />
      {(tank.senders.length > 0 || tank.sightTubes.length > 0 || tank.dipsticks.length > 0) && (
        <CalibrationPanel t={t} />
      )}
      <StageFindings stage="gauge" />
    </Box>
  );
}
