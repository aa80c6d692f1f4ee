'use client';

import { Box } from '@chakra-ui/react';
import { assumed, chosen, RULEBOOKS } from '@/core/plan';
import { isTransfer } from '@/core/answers';
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
import { CruisePanel } from './CruisePanel';
import { StatedConsumption } from './StatedConsumption';

/** Of a nozzle: how fast it fills, and how often. */
function Fills() {
  const system = useSystem();
  const { results } = useDetails();
  const numbers = results?.ok ? results.numbers : undefined;
  const fill = system.wishes.moves_m3?.value;
  if (!numbers?.delivers.ok || !numbers.goes.ok)
    return (
      <NoAnswer
        error={
          numbers ? [numbers.delivers, numbers.goes].flatMap((each) => (each.ok ? [] : [each.error]))[0] : undefined
        }
      />
    );
  return (
    <Box display="flex" gap="6" flexWrap="wrap" fontSize="lg">
      <Box>
        At the nozzle{' '}
        <b>
          <Quantity value={numbers.delivers.value.value} role={numbers.delivers.value.role} />
        </b>
      </Box>
      <Box>
        A fill takes{' '}
        <b>
          <Quantity value={numbers.goes.value.value} role="duration" />
        </b>
      </Box>
      {fill !== undefined && numbers.usable.ok && (
        <Box>
          Fills in a load <b>{(numbers.usable.value.value / fill).toFixed(1)}</b>
        </Box>
      )}
    </Box>
  );
}

const BURN_WORDS = { burnFull_m3PerS: 'Burn at full load', burnIdle_m3PerS: 'Burn at idle' } as const;

export function RangeStage() {
  const system = useSystem();
  const { results } = useDetails();
  const range = results?.ok ? results.evaluation.range : undefined;
  const sea = system.vehicle.kind === 'boat';
  const fills = isTransfer(system);
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <Panel title={isTransfer(system) ? 'Fills' : 'Range and running time'}>
        {isTransfer(system) ? (
          <Fills />
        ) : range?.ok ? (
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
      <Panel title={fills ? 'A fill' : 'Consumption'}>
        {!fills && <StatedConsumption />}
        <FieldGrid>
          {fills && system.wishes.moves_m3 && <KnownField label="A fill" path={['wishes', 'moves_m3']} />}
          {/* A nozzle burns nothing. */}
          {system.consumers.flatMap(({ id, name, kind }, k) =>
            (kind === 'nozzle' ? [] : (['burnFull_m3PerS', 'burnIdle_m3PerS'] as const)).map((key) => (
              <KnownField
                key={`${id} ${key}`}
                path={['consumers', k, key]}
                {...(k === 0 ? {} : { label: `${BURN_WORDS[key]}, ${name}` })}
              />
            )),
          )}
          {fills ? null : system.vehicle.speed_mPerS ? (
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
      {!fills && <CruisePanel />}
      <Panel title="What you asked for">
        <FieldGrid>
          {system.wishes.holds_m3 && <KnownField path={['wishes', 'holds_m3']} />}
          {fills ? null : system.wishes.endurance_s ? (
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
