'use client';

import { Box } from '@chakra-ui/react';
import { chosen, type GaugeDocument } from '@/core/plan';
import { formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { withGaugeKind } from './gaugeEdits';

const KIND_WORDS: Readonly<Record<GaugeDocument['kind'], string>> = {
  linear: 'in proportion to the sender',
  'cross-coil': 'air-core gauge',
  calibrated: 'programmable',
};

/** The gauge on the dash: how its needle follows the sender, and its low-level lamp. */
export function NeedlePanel({ t, s }: { readonly t: number; readonly s: number }) {
  const reader = useReader();
  const gauge = useValue((system) => system.tanks[t]!.senders[s]!.gauge);
  const signal = useValue((system) => system.tanks[t]!.senders[s]!.output.kind);
  const at = (...keys: string[]) => ['tanks', t, 'senders', s, 'gauge', ...keys];
  const kinds = (['linear', 'cross-coil', 'calibrated'] as const).filter(
    (kind) => kind !== 'cross-coil' || signal === 'resistance',
  );
  const ends = signal === 'resistance' ? (['empty_ohm', 'full_ohm'] as const) : (['empty_V', 'full_V'] as const);
  return (
    <Panel title="The needle" testId="needle">
      <FieldGrid>
        <Select
          label="It moves"
          value={gauge.kind}
          options={kinds.map((value) => ({ value, label: KIND_WORDS[value] }))}
          onChange={(kind) => applyEdit('kind of gauge', (system) => withGaugeKind(system, t, s, kind))}
        />
        {gauge.kind === 'linear' && (
          <>
            <KnownField label="Gauge shows empty at" path={at('scale', ends[0])} />
            <KnownField label="Gauge shows full at" path={at('scale', ends[1])} />
          </>
        )}
        {gauge.kind === 'cross-coil' && (
          <>
            <KnownField label="Gauge shows empty at" path={at('empty_ohm')} />
            <KnownField label="Gauge shows half at" path={at('half_ohm')} />
            <KnownField label="Gauge shows full at" path={at('full_ohm')} />
          </>
        )}
        <KnownField path={at('tolerance_ratio')} />
        {gauge.lamp_ratio ? (
          <>
            <KnownField label="Lamp lights at" path={at('lamp_ratio')} hint="Where the needle then stands." />
            <Box pt="5">
              <Button onClick={() => setValue('remove the lamp', at('lamp_ratio'), undefined)}>It has no lamp</Button>
            </Box>
          </>
        ) : (
          <Box pt="5">
            <Button onClick={() => setValue('add a low-level lamp', at('lamp_ratio'), chosen(0.12))}>
              It has a low-level lamp
            </Button>
          </Box>
        )}
      </FieldGrid>
      {gauge.kind === 'calibrated' && (
        <Box mt="3">
          {gauge.points.at.length === 0
            ? `It takes ${gauge.mostPoints} points and is taught as planned, where they leave the least error.`
            : `It was taught ${gauge.points.at.length} points: ${gauge.points.kind === 'resistance' ? gauge.points.at.map(({ reading_ohm, shown_ratio }) => `${formatQuantity(reading_ohm, 'resistance', { reader }).text} is ${formatQuantity(shown_ratio, 'share', { reader }).text}`).join(', ') : gauge.points.at.map(({ reading_V, shown_ratio }) => `${formatQuantity(reading_V, 'voltage', { reader }).text} is ${formatQuantity(shown_ratio, 'share', { reader }).text}`).join(', ')}.`}
          {gauge.points.at.length > 0 && (
            <Box mt="2">
              <Button
                onClick={() =>
                  setValue('forget what the gauge was taught', at('points'), { kind: gauge.points.kind, at: [] })
                }
              >
                Teach it as planned
              </Button>
            </Box>
          )}
        </Box>
      )}
    </Panel>
  );
}
