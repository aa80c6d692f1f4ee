'use client';

import { CONSUMER_KINDS, withEndsThatAre, withValue } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { FieldGrid, Panel } from '../parts/Panel';
import { CONSUMER_WORDS } from '../parts/words';
import { applyEdit, useSystem } from '../state/editor';
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
      <EngineNeedFields index={index} />
    </Panel>
  );
}
