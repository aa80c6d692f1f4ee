'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import {
  COMPATIBILITY,
  CONTACT_FLUIDS,
  CONTACT_FLUID_NAMES,
  CONTACT_OF_FLUID,
  MATERIAL_GROUPS,
  MATERIAL_OF_ALLOY,
  type CompatibilityRow,
  type ContactFluid,
  type MaterialGroup,
  type Rating,
} from '@/core/reference/compatibility';
import { Select } from '../fields/Select';
import { Panel } from '../parts/Panel';
import { useValue } from '../state/editor';
import { useTank } from '../state/tankChoice';
import { fluidOf } from './tankEdits';

const GROUP_WORDS: Readonly<Record<MaterialGroup, string>> = {
  metal: 'Metals',
  plastic: 'Plastics',
  gasket: 'Gaskets and seals',
  sealant: 'Sealants',
  adhesive: 'Adhesives',
  liner: 'Liners',
  foam: 'Foams',
  hose: 'Hoses',
  tie: 'Ties and clamps',
};

/** Told apart by sign and word as well as by colour. */
const RATING_LOOK: Readonly<Record<Rating, { readonly sign: string; readonly color: string }>> = {
  good: { sign: '●', color: 'good' },
  limited: { sign: '◐', color: 'warn' },
  bad: { sign: '✕', color: 'stop' },
  unknown: { sign: '?', color: 'soft' },
};

/** What touches the fluid: the one compatibility table, for the fluid of this tank or another. */
export function ContactPanel() {
  const t = useTank();
  const own = useValue((system) => CONTACT_OF_FLUID[fluidOf(system, t)]);
  const metal = useValue((system) => MATERIAL_OF_ALLOY[system.tanks[t]!.material.alloy]);
  const [other, setOther] = useState<ContactFluid>();
  const fluid = other ?? own;
  return (
    <Panel
      title="What touches the fuel"
      testId="contact"
      aside={
        <Select
          hideLabel
          label="Fluid"
          width="290px"
          value={fluid}
          options={CONTACT_FLUIDS.map((value) => ({ value, label: CONTACT_FLUID_NAMES[value] }))}
          onChange={setOther}
        />
      }
    >
      <Box
        display="grid"
        gap="4"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 300px), 1fr))"
        fontSize="sm"
        alignItems="start"
      >
        {MATERIAL_GROUPS.map((group) => (
          <Box key={group}>
            <Box fontWeight="700" mb="1">
              {GROUP_WORDS[group]}
            </Box>
            {COMPATIBILITY.filter((row) => row.group === group).map((row) => (
              <MaterialRow key={row.key} row={row} fluid={fluid} mine={row.key === metal} />
            ))}
          </Box>
        ))}
      </Box>
      <Box fontSize="sm" color="soft" mt="3">
        From memory, from {[...new Set(COMPATIBILITY.map(({ source }) => source))].join('; ')}. Grades differ: the
        maker’s word for the very product decides, and ? means that we do not know.
      </Box>
    </Panel>
  );
}

function MaterialRow({
  row,
  fluid,
  mine,
}: {
  readonly row: CompatibilityRow;
  readonly fluid: ContactFluid;
  readonly mine: boolean;
}) {
  const rating = row.ratings[fluid];
  const { sign, color } = RATING_LOOK[rating];
  return (
    <Box
      display="grid"
      gridTemplateColumns="80px 1fr"
      gap="2"
      py="1"
      borderTopWidth="1px"
      borderColor="rule"
      bg={mine ? 'sunk' : undefined}
    >
      <Box color={color} fontWeight="700" whiteSpace="nowrap">
        <chakra.span aria-hidden display="inline-block" width="1.3em">
          {sign}
        </chakra.span>
        {rating}
      </Box>
      <Box>
        <b>
          {row.name}
          {mine ? ', this tank' : ''}
        </b>{' '}
        <chakra.span color="soft">{row.note}</chakra.span>
      </Box>
    </Box>
  );
}
