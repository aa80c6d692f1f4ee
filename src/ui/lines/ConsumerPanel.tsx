'use client';

import { Box } from '@chakra-ui/react';
import { assumed, CONSUMER_KINDS, withEndsThatAre, withValue, type SystemDocument } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { CONSUMER_WORDS } from '../parts/words';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { EngineNeedFields } from './EngineNeedFields';

/** What the consumer asks of the feed. */
export function ConsumerPanel({ index }: { readonly index: number }) {
  const consumer = useSystem().consumers[index]!;
  const at = (key: string) => ['consumers', index, key];
  return (
    <Panel title={`${consumer.name} needs`}>
      <FieldGrid>
        <KnownField path={at('neededFlow_m3PerS')} hint="What it draws, return included." />
        <KnownField path={at('neededPressure_Pa')} />
        <Select
          label="Kind"
          value={consumer.kind}
          options={CONSUMER_KINDS.map((value) => ({ value, label: CONSUMER_WORDS[value] }))}
          onChange={(value) =>
            applyEdit('kind of consumer', (current) => withEndsThatAre(withValue(current, at('kind'), value)))
          }
        />
      </FieldGrid>
      {consumer.kind === 'nozzle' && <NozzleFields index={index} nozzle={consumer.nozzle} />}
      <EngineNeedFields index={index} />
    </Panel>
  );
}

type Nozzle = SystemDocument['consumers'][number]['nozzle'];

/** What goes into the opening of what is filled, and whether it stops by itself. */
function NozzleFields({ index, nozzle }: { readonly index: number; readonly nozzle: Nozzle }) {
  const at = ['consumers', index, 'nozzle'];
  if (!nozzle)
    return (
      <Box mt="3">
        <Button
          onClick={() => setValue('spout of the nozzle', at, { spout_m: assumed(0.024, 0.004), stops: 'automatic' })}
        >
          Say what spout it has
        </Button>
      </Box>
    );
  return (
    <Box mt="3">
      <FieldGrid>
        <KnownField path={[...at, 'spout_m']} />
        <Select
          label="It stops"
          value={nozzle.stops}
          options={[
            { value: 'automatic', label: 'by itself, when its tip is covered' },
            { value: 'manual', label: 'by hand' },
          ]}
          onChange={(stops) => setValue('how the nozzle stops', [...at, 'stops'], stops)}
        />
      </FieldGrid>
    </Box>
  );
}
