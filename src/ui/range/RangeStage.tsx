'use client';

import { Box } from '@chakra-ui/react';
import { assumed, chosen, RULEBOOKS } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { NoAnswer } from '../parts/NoAnswer';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { RULEBOOK_WORDS } from '../parts/words';
import { setValue, useSystem } from '../state/editor';
import { useDetails } from '../state/results';

const BURN_WORDS = { burnFull_m3PerS: 'Burn at full load', burnIdle_m3PerS: 'Burn at idle' } as const;

export function RangeStage() {
  const system = useSystem();
  const { results } = useDetails();
  const range = results?.ok ? results.evaluation.range : undefined;
  const sea = system.vehicle.kind === 'boat';
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <Panel title="Range and running time">
        {range?.ok ? (
          <Box display="flex" gap="6" flexWrap="wrap" fontSize="lg">
            <Box>
              Burns{' '}
              <b>
                <Quantity value={range.value.burn_m3PerS} role="burn" />
              </b>
            </Box>
            <Box>
              Running time{' '}
              <b>
                <Quantity value={range.value.endurance_s} role="duration" />
              </b>
            </Box>
            {range.value.range_m !== undefined && (
              <Box>
                Range{' '}
                <b>
                  <Quantity value={range.value.range_m} role={sea ? 'seaTrip' : 'trip'} />
                </b>
              </Box>
            )}
            <Box>
              Reserve{' '}
              <b>
                <Quantity value={range.value.reserve_m3} role="tankVolume" />
              </b>
            </Box>
          </Box>
        ) : (
          <NoAnswer error={range?.error} />
        )}
      </Panel>
      <Panel title="Consumption">
        <FieldGrid>
          {system.consumers.flatMap(({ id, name }, k) =>
            (['burnFull_m3PerS', 'burnIdle_m3PerS'] as const).map((key) => (
              <KnownField
                key={`${id} ${key}`}
                path={['consumers', k, key]}
                {...(k === 0 ? {} : { label: `${BURN_WORDS[key]}, ${name}` })}
              />
            )),
          )}
          {system.vehicle.speed_mPerS ? (
            <KnownField label="Speed at this duty" path={['vehicle', 'speed_mPerS']} />
          ) : (
            <Box alignSelf="end">
              <Button
                onClick={() => setValue('add a speed', ['vehicle', 'speed_mPerS'], assumed(sea ? 4 : 15, sea ? 1 : 4))}
              >
                Add a speed
              </Button>
            </Box>
          )}
          <KnownField label="Kept in reserve" path={['wishes', 'reserve_ratio']} />
        </FieldGrid>
      </Panel>
      <Panel title="What you asked for">
        <FieldGrid>
          {system.wishes.holds_m3 && <KnownField path={['wishes', 'holds_m3']} />}
          {system.wishes.endurance_s ? (
            <KnownField path={['wishes', 'endurance_s']} />
          ) : (
            <Box alignSelf="end">
              <Button
                onClick={() =>
                  setValue(
                    'ask for a running time',
                    ['wishes', 'endurance_s'],
                    chosen(range?.ok ? Math.round(range.value.endurance_s / 3600) * 3600 : 36000),
                  )
                }
              >
                Ask for a running time
              </Button>
            </Box>
          )}
          <Select
            label="Rulebook"
            value={system.rulebook}
            options={RULEBOOKS.map((value) => ({ value, label: RULEBOOK_WORDS[value] }))}
            onChange={(value) => setValue('rulebook', ['rulebook'], value)}
          />
        </FieldGrid>
        <Box mt="3">
          <Caution>
            Road tanker loads, dyed or untaxed fuel, petrol in boats and anything that flies are regulated: work to the
            rules now in force where you are, with a licensed person. Gas Line does not replace them.
          </Caution>
        </Box>
      </Panel>
    </Box>
  );
}
