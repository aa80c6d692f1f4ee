'use client';

import { Box } from '@chakra-ui/react';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { chosen, SENDER_KINDS, SWINGS, type SenderDocument } from '@/core/plan';
import { SENDERS } from '@/core/senders';
import { SENDER_RANGES } from '@/core/reference/senders';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { SquareButton } from '../parts/SquareButton';
import { SWING_WORDS } from '../parts/words';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useSides } from '../state/sides';
import { withoutSender, withRange, withSenderKind } from './gaugeEdits';

const OTHER = 'other';

/** Which range of the table a sender has. */
const rangeOf = ({ output }: SenderDocument): string =>
  SENDER_RANGES.find((row) =>
    output.kind === 'resistance'
      ? row.output === 'resistance' && row.empty === output.empty_ohm.value && row.full === output.full_ohm.value
      : row.output === 'voltage' && row.empty === output.empty_V.value && row.full === output.full_V.value,
  )?.key ?? OTHER;

/** One sender: what it is, its sizes and what it gives. */
export function SenderPanel({ t, s, aside }: { readonly t: number; readonly s: number; readonly aside: ReactNode }) {
  const sides = useSides();
  const sender = useValue((system) => system.tanks[t]!.senders[s]!);
  const ports = useValue((system) => system.tanks[t]!.ports);
  const at = (...keys: string[]) => ['tanks', t, 'senders', s, ...keys];
  const range = rangeOf(sender);
  const role = sender.output.kind;
  const ends = role === 'resistance' ? (['empty_ohm', 'full_ohm'] as const) : (['empty_V', 'full_V'] as const);
  return (
    <Panel title={sender.name} testId="sender" aside={aside}>
      <Box display="flex" gap="2" alignItems="end" mb="3" flexWrap="wrap">
        <Box flex="1 1 180px">
          <TextEntry
            label="Name of the sender"
            value={sender.name}
            onEnter={(text) => readName(text, (name) => setValue(`rename ${sender.name}`, at('name'), name))}
          />
        </Box>
        <Select
          label="It is a"
          value={sender.kind}
          options={SENDER_KINDS.map((value) => ({ value, label: SENDERS[value].word }))}
          onChange={(kind) => applyEdit('kind of sender', (system) => withSenderKind(system, t, s, kind))}
        />
        <Select
          label="In the port"
          value={sender.port}
          options={ports.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(port) => setValue('port of the sender', at('port'), port)}
        />
        <Select
          label="Range"
          value={range}
          options={[
            ...SENDER_RANGES.map(({ key, name }) => ({ value: key, label: name })),
            ...(range === OTHER ? [{ value: OTHER, label: 'another' }] : []),
          ]}
          onChange={(key) =>
            key !== OTHER && applyEdit('range of the sender', (system) => withRange(system, t, s, key))
          }
        />
        <SquareButton
          label={`Remove ${sender.name}`}
          onClick={() => applyEdit(`remove ${sender.name}`, (system) => withoutSender(system, t, s))}
        >
          <Trash2 size={18} aria-hidden />
        </SquareButton>
      </Box>
      <FieldGrid>
        {sender.kind === 'swing-arm' ? (
          <>
            <KnownField path={at('pivotDepth_m')} />
            <KnownField path={at('armLength_m')} hint="Along the wire, pivot to middle of the float." />
            <KnownField path={at('lowStop_deg')} hint="From level, minus below." />
            <KnownField path={at('highStop_deg')} />
            <Select
              label="Arm reaches"
              value={sender.swing}
              options={SWINGS.map((value) => ({ value, label: sides(SWING_WORDS[value]) }))}
              onChange={(value) => setValue('which way the arm reaches', at('swing'), value)}
            />
            {sender.bend ? (
              <>
                <KnownField label="Bend from the pivot" path={at('bend', 'at_m')} />
                <KnownField label="Bent upward by" path={at('bend', 'angle_deg')} hint="Minus downward." />
                <Box pt="5">
                  <Button onClick={() => setValue('straighten the arm', at('bend'), undefined)}>
                    Straighten the arm
                  </Button>
                </Box>
              </>
            ) : (
              <Box pt="5">
                <Button
                  onClick={() => setValue('bend the arm', at('bend'), { at_m: chosen(0.02), angle_deg: chosen(0) })}
                >
                  The arm is bent
                </Button>
              </Box>
            )}
          </>
        ) : (
          <>
            <KnownField label="Length under the lid" path={at('length_m')} />
            <KnownField path={at('lowDead_m')} />
            <KnownField path={at('highDead_m')} />
            <KnownField path={at('tubeDiameter_m')} />
            <KnownField path={at('step_m')} hint="0 where it is continuous." />
          </>
        )}
        <KnownField path={at('floatDiameter_m')} />
        <KnownField path={at('immersion_ratio')} hint="Of its height." />
        <KnownField label="Sender gives at its low end" path={at('output', ends[0])} />
        <KnownField label="Sender gives at its high end" path={at('output', ends[1])} />
        <KnownField label="Sender tolerance" path={at('tolerance_ratio')} hint="Of its range." />
        <Practice of="sender" />
      </FieldGrid>
    </Panel>
  );
}
