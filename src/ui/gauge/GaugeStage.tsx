'use client';

import { Box } from '@chakra-ui/react';
import { SWINGS } from '@/core/document';
import { formatQuantity } from '@/core/units';
import { LineChart } from '../charts/LineChart';
import { axisOf } from '../charts/axes';
import { TankViews } from '../drawing/TankViews';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { StageFindings } from '../findings/FindingsView';
import { FieldGrid, Panel } from '../parts/Panel';
import { Shown } from '../parts/Shown';
import { SWING_WORDS } from '../parts/words';
import { setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';

export function GaugeStage() {
  const t = useTank();
  const name = useValue((system) => system.tanks[t]!.name);
  const sender = useValue((system) => system.tanks[t]!.senders[0]);
  const at = (...rest: string[]) => ['tanks', t, 'senders', 0, ...rest];
  if (!sender) return <Box display="grid" gap="4"><TankPicker /><Panel title="Gauge">{name} has no sender.</Panel></Box>;
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <Panel title={name}><TankViews index={t} /></Panel>
      <GaugeChart />
      <Panel title={sender.name} testId="sender">
        <FieldGrid>
          <KnownField label="Pivot below the lid" path={at('pivotDepth_m')} role="tape" />
          <KnownField label="Arm length" path={at('armLength_m')} role="tape" />
          <KnownField label="Float diameter" path={at('floatDiameter_m')} role="tape" />
          <KnownField label="Low stop" path={at('lowStop_deg')} role="slope" hint="From level, minus below." />
          <KnownField label="High stop" path={at('highStop_deg')} role="slope" />
          <Select label="Arm reaches" value={sender.swing} options={SWINGS.map((value) => ({ value, label: SWING_WORDS[value] }))} onChange={(value) => setValue('which way the arm reaches', at('swing'), value)} />
          <KnownField label="Sender at its low stop" path={at('emptyResistance_ohm')} role="resistance" />
          <KnownField label="Sender at its high stop" path={at('fullResistance_ohm')} role="resistance" />
        </FieldGrid>
      </Panel>
      <Panel title="The needle">
        <FieldGrid>
          <KnownField label="Gauge shows empty at" path={at('gauge', 'emptyResistance_ohm')} role="resistance" />
          <KnownField label="Gauge shows full at" path={at('gauge', 'fullResistance_ohm')} role="resistance" />
          <KnownField label="Needle tolerance" path={at('gauge', 'tolerance_ratio')} role="share" />
        </FieldGrid>
      </Panel>
      <StageFindings stage="gauge" />
    </Box>
  );
}

function GaugeChart() {
  const reader = useReader();
  const { results } = useDetails();
  const t = useTank();
  // Gauges come in the order of tanks, a tank without a sender having none.
  const before = useValue((system) => system.tanks.slice(0, t).reduce((count, tank) => count + tank.senders.length, 0));
  const gauge = results?.ok ? results.evaluation.gauges[before] : undefined;
  if (!gauge) return null;
  if (!gauge.ok) return <Panel title="Gauge against volume"><Box color="stop" fontWeight="600">{gauge.error.detail}</Box></Panel>;
  const { curve, now } = gauge.value;
  const volume = axisOf('tankVolume', reader);
  const text = (value: number, role: 'tankVolume' | 'share' | 'resistance'): string => formatQuantity(value, role, { reader }).text;
  const full = curve.points.at(-1)!.volume_m3;
  const at = (needle: number): number => curve.points.find((point) => point.needle_ratio >= needle)?.volume_m3 ?? full;
  return (
    <Panel title="Gauge against volume" testId="gauge-chart">
      <LineChart
        x={`volume in the tank, ${volume.symbol}`} y="needle, %" yMin={0} yMax={100}
        summary={`Worst where ${text(curve.worst.at.volume_m3, 'tankVolume')} are in the tank: the needle says ${text(curve.worst.at.needle_ratio, 'share')}, the truth is ${text(curve.worst.at.true_ratio, 'share')}. Reckoned with the vehicle level.`}
        curves={[
          { label: 'needle says', color: 'accent', points: curve.points.map((point) => ({ x: volume.value(point.volume_m3), y: point.needle_ratio * 100 })) },
          { label: 'truth', color: 'soft', dash: [8, 5], points: [{ x: 0, y: 0 }, { x: volume.value(full), y: 100 }] },
          { label: 'now, at the set slope', color: 'ink', marks: 'rectRot', points: [{ x: volume.value(now.true_ratio * full), y: now.needle_ratio * 100 }] },
        ]}
      />
      <Box mt="3" display="flex" gap="5" flexWrap="wrap">
        <Box>Needle now <b><Shown value={now.needle_ratio} role="share" /></b> ({text(now.resistance_ohm, 'resistance')}); truth <b><Shown value={now.true_ratio} role="share" /></b></Box>
        <Box>“Half” is <b>{text(at(0.5), 'tankVolume')}</b></Box>
        <Box>“Quarter” is <b>{text(at(0.25), 'tankVolume')}</b></Box>
        <Box>“Empty” still holds <b>{text(curve.points.findLast((point) => point.needle_ratio <= 0)?.volume_m3 ?? 0, 'tankVolume')}</b></Box>
      </Box>
    </Panel>
  );
}
