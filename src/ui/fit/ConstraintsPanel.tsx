'use client';

import { chakra } from '@chakra-ui/react';
import type { SystemDocument } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { FieldGrid, Panel } from '../parts/Panel';
import { setValue, useValue } from '../state/editor';

const WORDS: Readonly<Record<keyof SystemDocument['constraints'], string>> = {
  nothingCut: 'Nothing is cut in the vehicle; all of it can be undone',
  noHoleBelowLiquid: 'No new hole below the liquid',
  partsOnHand: 'Must use the parts that are on hand',
  noHotWork: 'No hot work on site',
};

/** What the builder has set; every stage checks it and says so among its findings. */
export function ConstraintsPanel() {
  const constraints = useValue((system) => system.constraints);
  return (
    <Panel title="What is asked of the job" testId="constraints">
      <FieldGrid>
        <KnownField label="Clearance asked for, all round" path={['fit', 'clearance_m']} />
      </FieldGrid>
      {(Object.keys(WORDS) as (keyof typeof WORDS)[]).map((key) => (
        <chakra.label
          key={key}
          display="flex"
          gap="3"
          alignItems="center"
          minH="44px"
          cursor="pointer"
          data-path={`constraints.${key}`}
        >
          <chakra.input
            type="checkbox"
            width="22px"
            height="22px"
            accentColor="var(--chakra-colors-accent)"
            checked={constraints[key]}
            onChange={(event) => setValue(WORDS[key].toLowerCase(), ['constraints', key], event.target.checked)}
          />
          {WORDS[key]}
        </chakra.label>
      ))}
    </Panel>
  );
}
