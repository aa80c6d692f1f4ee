'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { useShallow } from 'zustand/react/shallow';
import { assumed, SPOT_KINDS, withoutEntry, withValue, type SpotDocument } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Owner } from '../fields/Owner';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useSides } from '../state/sides';
import { withSpot } from './fitEdits';
import { SPOT_WORDS } from './reachWords';

/** Places that a builder names: bolts, seams, gauges, filler mouths, handles. */
export function SpotRows() {
  const spots = useValue((system) => system.fit.spots);
  return (
    <Box mt="4">
      <Box fontWeight="700">Places you name</Box>
      <Box color="soft" mb="1">
        Ports are tried by themselves. Add strap bolts, seams in a recess, shut-offs, a filler’s mouth at the end of its
        hose.
      </Box>
      {spots.map((spot, i) => (
        <SpotRow key={spot.id} spot={spot} i={i} />
      ))}
      <Box mt="2" display="flex" gap="2" flexWrap="wrap">
        {SPOT_KINDS.map((kind) => (
          <Button key={kind} onClick={() => applyEdit(`add ${SPOT_WORDS[kind]}`, (system) => withSpot(system, kind))}>
            <Plus size={16} aria-hidden />
            {SPOT_WORDS[kind]}
          </Button>
        ))}
      </Box>
    </Box>
  );
}

const FACINGS = {
  up: { forward: 0, toPort: 0, up: 1 },
  down: { forward: 0, toPort: 0, up: -1 },
  forward: { forward: 1, toPort: 0, up: 0 },
  aft: { forward: -1, toPort: 0, up: 0 },
  'to port': { forward: 0, toPort: 1, up: 0 },
  'to starboard': { forward: 0, toPort: -1, up: 0 },
} as const;
type Facing = keyof typeof FACINGS | 'slantwise';
const facingOf = ({ forward, toPort, up }: SpotDocument['facing']): Facing =>
  (Object.keys(FACINGS) as (keyof typeof FACINGS)[]).find(
    (key) => FACINGS[key].forward === forward && FACINGS[key].toPort === toPort && FACINGS[key].up === up,
  ) ?? 'slantwise';

const IN_VEHICLE = '';

function SpotRow({ spot, i }: { readonly spot: SpotDocument; readonly i: number }) {
  const tanks = useValue(useShallow((system) => system.tanks.map(({ id, name }) => `${id} ${name}`)));
  const at = (...keys: string[]) => ['fit', 'spots', i, ...keys];
  const of = (text: string): string => `${text}, ${spot.name}`;
  const sides = useSides();
  const facing = facingOf(spot.facing);
  const from = spot.tank
    ? ['From its aft end', 'From its starboard side', 'Above its floor']
    : ['From the datum forward', 'From the datum to port', 'Above the datum'];
  const toKind = (kind: SpotDocument['kind']): void =>
    applyEdit(`what ${spot.name} is`, (system) =>
      withValue(system, ['fit', 'spots', i], {
        ...spot,
        kind,
        acrossFlats_m: kind === 'bolt' ? (spot.acrossFlats_m ?? assumed(0.013, 0.003)) : undefined,
      }),
    );
  return (
    <chakra.details borderTopWidth="1px" borderColor="rule" py="2" data-path={`fit.spots.${i}`}>
      <chakra.summary minH="42px" cursor="pointer">
        <b>{spot.name}</b>{' '}
        <chakra.span color="soft">
          {SPOT_WORDS[spot.kind]}, from {facing === 'slantwise' ? 'a slant' : sides(FROM_WORDS[facing])}
        </chakra.span>
      </chakra.summary>
      <Owner name={spot.name}>
        <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
          <Box flex="1 1 180px">
            <TextEntry
              label="Name"
              value={spot.name}
              onEnter={(text) => readName(text, (name) => setValue(`rename ${spot.name}`, at('name'), name))}
            />
          </Box>
          <Select
            label={of('Is')}
            value={spot.kind}
            options={SPOT_KINDS.map((value) => ({ value, label: SPOT_WORDS[value] }))}
            onChange={toKind}
          />
          <Select
            label={of('Belongs to')}
            value={spot.tank ?? IN_VEHICLE}
            options={[
              { value: IN_VEHICLE, label: 'the vehicle' },
              ...tanks.map((tank) => ({ value: tank.split(' ')[0]!, label: tank.slice(tank.indexOf(' ') + 1) })),
            ]}
            onChange={(tank) =>
              setValue(`where ${spot.name} belongs`, at('tank'), tank === IN_VEHICLE ? undefined : tank)
            }
          />
          <Select
            label={of('Is worked at from')}
            value={facing}
            options={[
              ...(Object.keys(FACINGS) as (keyof typeof FACINGS)[]).map((value) => ({
                value: value as Facing,
                label: sides(FROM_WORDS[value]),
              })),
              ...(facing === 'slantwise' ? [{ value: 'slantwise' as const, label: 'a slant' }] : []),
            ]}
            onChange={(value) =>
              value !== 'slantwise' && setValue(`where ${spot.name} is worked at from`, at('facing'), FACINGS[value])
            }
          />
          <SquareButton
            label={`Remove ${spot.name}`}
            onClick={() => applyEdit(`remove ${spot.name}`, (system) => withoutEntry(system, ['fit', 'spots'], i))}
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
        <FieldGrid>
          <KnownField label={of(sides(from[0]!))} path={at('x_m')} />
          <KnownField label={of(sides(from[1]!))} path={at('y_m')} />
          <KnownField label={of(from[2]!)} path={at('z_m')} />
          {spot.acrossFlats_m && <KnownField label={of('Across its flats')} path={at('acrossFlats_m')} />}
        </FieldGrid>
      </Owner>
    </chakra.details>
  );
}

const FROM_WORDS: Readonly<Record<keyof typeof FACINGS, string>> = {
  up: 'above',
  down: 'below',
  forward: 'the front',
  aft: 'behind',
  'to port': 'the port side',
  'to starboard': 'the starboard side',
};
