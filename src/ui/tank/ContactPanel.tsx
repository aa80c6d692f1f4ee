'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import {
  COMPATIBILITY,
  CONTACT_FLUIDS,
  CONTACT_FLUID_NAMES,
  CONTACT_OF_FLUID,
  MATERIAL_GROUPS,
  compatibilityOf,
  INSIDE_KEYS,
  MATERIAL_OF_ALLOY,
  SEALING_KEYS,
  type CompatibilityRow,
  type ContactFluid,
  type MaterialGroup,
  type Rating,
} from '@/core/reference/compatibility';
import { Plus, Trash2 } from 'lucide-react';
import { capital } from '@/core/formats';
import { freshId, withoutEntry, withValue } from '@/core/plan';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Practice } from '../parts/Practice';
import { SquareButton } from '../parts/SquareButton';
import { FieldGrid, Panel } from '../parts/Panel';
import { applyEdit, setValue, useValue } from '../state/editor';
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

const INSIDE_GROUPS: readonly MaterialGroup[] = ['liner', 'hose', 'tie', 'foam', 'plastic', 'metal', 'adhesive'];
const UNSAID = 'unsaid';
const namesOf = (keys: readonly string[]) =>
  keys.map((key) => {
    const { name, group } = compatibilityOf(key);
    return { value: key, label: `${name} (${GROUP_WORDS[group].toLowerCase()})` };
  });

/** What somebody named at this tank: how its ports are sealed, and what stands in its fuel. */
export function NamedPanel() {
  const t = useTank();
  const ports = useValue((system) => system.tanks[t]!.ports);
  const inside = useValue((system) => system.tanks[t]!.inside) ?? NOTHING;
  const at = ['tanks', t] as const;
  const options = namesOf(
    INSIDE_GROUPS.flatMap((group) => INSIDE_KEYS.filter((key) => compatibilityOf(key).group === group)),
  );
  const [material, setMaterial] = useState(options[0]!.value);
  const add = (): void =>
    applyEdit('what stands in the fuel', (system) => {
      const entry = { id: freshId(system, 'inside'), name: capital(compatibilityOf(material).name), material };
      return withValue(system, [...at, 'inside'], [...(system.tanks[t]!.inside ?? []), entry]);
    });
  return (
    <Panel title="Seals and what stands in the fuel" testId="named-contacts">
      <Box maxW="420px" mb="3">
        <Practice of="lining" />
      </Box>
      <FieldGrid>
        {ports.map(({ id, name, seal }, p) => (
          <Box key={id} data-path={[...at, 'ports', p, 'seal'].join('.')}>
            <Select
              label={`${name} is sealed by`}
              value={seal ?? UNSAID}
              options={[{ value: UNSAID, label: 'not said' }, ...namesOf(SEALING_KEYS)]}
              onChange={(key) => setValue('seal', [...at, 'ports', p, 'seal'], key === UNSAID ? undefined : key)}
            />
          </Box>
        ))}
      </FieldGrid>
      {inside.map(({ id, name, material: key }, i) => (
        <Box
          key={id}
          display="flex"
          gap="2"
          alignItems="end"
          mt="2"
          data-path={[...at, 'inside', i, 'material'].join('.')}
        >
          <Select
            label={`In the fuel: ${name}`}
            width="360px"
            value={key}
            options={options}
            onChange={(value) =>
              applyEdit('what stands in the fuel', (system) =>
                withValue(system, [...at, 'inside', i], {
                  id,
                  name: capital(compatibilityOf(value).name),
                  material: value,
                }),
              )
            }
          />
          <SquareButton
            label={`Remove ${name}`}
            onClick={() => applyEdit(`remove ${name}`, (system) => withoutEntry(system, [...at, 'inside'], i))}
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
      ))}
      <Box mt="3" display="flex" gap="2" alignItems="end" flexWrap="wrap">
        <Select label="Stands in the fuel" width="360px" value={material} options={options} onChange={setMaterial} />
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add
        </Button>
      </Box>
    </Panel>
  );
}
const NOTHING: readonly { readonly id: string; readonly name: string; readonly material: string }[] = [];

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
