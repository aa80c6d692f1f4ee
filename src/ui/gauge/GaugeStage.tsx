'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import { TankViews } from '../drawing/TankViews';
import { Select } from '../fields/Select';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { applyEdit, useValue } from '../state/editor';
import { openTank, useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { useTask } from '../workspace/goTo';
import { useEntry } from '../workspace/useEntry';
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
  const task = useTask('gauge');
  const tank = useValue((system) => system.tanks[t]!);
  const [s, setChosen] = useEntry(tank.senders, ['tanks', t, 'senders']);
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
  const none = (
    <Panel title="Gauge" aside={add}>
      {tank.name} has no sender.
    </Panel>
  );
  const picker = tank.senders.length > 1 && (
    <Select
      label="Sender"
      width="280px"
      value={String(s)}
      options={tank.senders.map(({ name }, i) => ({ value: String(i), label: name }))}
      onChange={(value) => setChosen(Number(value))}
    />
  );
  const body = (): ReactNode => {
    switch (task) {
      case 'sender':
        return sender ? (
          <>
            {picker}
            <Beside
              picture={
                <>
                  <Panel title={tank.name}>
                    <TankViews index={t} />
                  </Panel>
                  {sender.kind === 'swing-arm' && <DesignPanel t={t} s={s} />}
                </>
              }
            >
              <SenderPanel t={t} s={s} aside={add} />
            </Beside>
          </>
        ) : (
          none
        );
      case 'scales':
        return <ScalesPanel t={t} />;
      case 'calibration':
        return tank.senders.length > 0 || tank.sightTubes.length > 0 || tank.dipsticks.length > 0 ? (
          <CalibrationPanel t={t} />
        ) : (
          none
        );
      case 'correction':
        return sender ? (
          <>
            {picker}
            <CorrectionPanel t={t} s={s} />
          </>
        ) : (
          none
        );
      default:
        return sender ? (
          <>
            {picker}
            <GaugeChart s={s} />
            <NeedlePanel t={t} s={s} />
          </>
        ) : (
          none
        );
    }
  };
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      {body()}
    </Box>
  );
}
