'use client';

import { Box } from '@chakra-ui/react';
import { Gauge, Plus, Trash2 } from 'lucide-react';
import { assumed, DRIVING, freshId, withoutEntry, withValue, type SystemDocument } from '@/core/plan';
import { burnOf, dutyOfBurn_ratio, readConsumption, wayText } from '@/core/range';
import { entryText, formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';

/** What is burned at each speed or load that was timed, and how far the fuel goes at it. */
export function CruisePanel() {
  const system = useSystem();
  const { cruise = [] } = system.vehicle;
  const { results } = useDetails();
  const range = results?.ok && results.evaluation.range.ok ? results.evaluation.range.value : undefined;
  const [consumer] = system.consumers;
  if (!consumer) return null;
  const drives = DRIVING.has(consumer.kind);
  const add = (): void =>
    applyEdit('a speed or load', (current) =>
      withValue(current, ['vehicle', 'cruise'], [...(current.vehicle.cruise ?? []), newRow(current, drives)]),
    );
  return (
    <Panel title={drives ? 'By speed' : 'By load'} testId="cruise">
      {cruise.length === 0 && (
        <Box color="soft" mb="2">
          Timed at several {drives ? 'speeds' : 'loads'}? Put each down: the one that goes furthest shows.
        </Box>
      )}
      {cruise.map((row, i) => (
        <Row key={row.id} index={i} row={row} reckoned={range?.cruise[i]} />
      ))}
      <Box mt="2">
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add a {drives ? 'speed' : 'load'}
        </Button>
      </Box>
    </Panel>
  );
}

type Cruise = NonNullable<SystemDocument['vehicle']['cruise']>[number];

/** A first one as it stands, each next a little faster. */
function newRow(system: SystemDocument, drives: boolean): Cruise {
  const {
    vehicle,
    consumers: [consumer],
    conditions,
  } = system;
  const rows = vehicle.cruise ?? [];
  const last = rows.at(-1);
  const [idle, full] = [consumer!.burnIdle_m3PerS.value, consumer!.burnFull_m3PerS.value];
  const burn = last ? last.burn_m3PerS.value * 1.2 : idle + (full - idle) * conditions.duty_ratio;
  const speed = last?.speed_mPerS ? last.speed_mPerS.value * 1.1 : vehicle.speed_mPerS?.value;
  const rounded = (value: number): number => Number(value.toPrecision(3));
  return {
    id: freshId(system, 'cruise'),
    name: `${drives ? 'Speed' : 'Load'} ${rows.length + 1}`,
    burn_m3PerS: assumed(rounded(burn), rounded(burn * 0.1)),
    ...(drives && speed ? { speed_mPerS: assumed(rounded(speed), rounded(speed * 0.05)) } : {}),
  };
}

function Row({
  index,
  row,
  reckoned,
}: {
  readonly index: number;
  readonly row: Cruise;
  readonly reckoned:
    { readonly endurance_s: number; readonly range_m?: number; readonly isFurthest: boolean } | undefined;
}) {
  const system = useSystem();
  const reader = useReader();
  const at = (key: string) => ['vehicle', 'cruise', index, key];
  const isAfloat = system.vehicle.kind === 'boat';
  const speed = row.speed_mPerS?.value;
  const burn = row.burn_m3PerS.value;
  const [consumer] = system.consumers;
  const duty = dutyOfBurn_ratio(burn, consumer!.burnIdle_m3PerS.value, consumer!.burnFull_m3PerS.value);
  const enter = (text: string): EntryVerdict => {
    const stated = readConsumption(text, reader);
    if (!stated.ok) return { ok: false, message: stated.error.detail };
    const flow = burnOf(stated.value, speed);
    if (flow === undefined) return { ok: false, message: 'By distance it needs a speed.' };
    setValue('consumption at a speed', at('burn_m3PerS'), { ...row.burn_m3PerS, value: flow });
    return { ok: true, note: formatQuantity(flow, 'burn', { reader }).text };
  };
  const use = (): void =>
    applyEdit(`go at ${row.name}`, (current) => {
      const set = withValue(current, ['conditions', 'duty_ratio'], Number(duty!.toPrecision(6)));
      return row.speed_mPerS ? withValue(set, ['vehicle', 'speed_mPerS'], row.speed_mPerS) : set;
    });
  return (
    <Box borderTopWidth="1px" borderColor="rule" py="2" data-testid="cruise-row">
      <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(170px, 1fr))" gap="3" alignItems="start">
        <TextEntry
          label="Name"
          value={row.name}
          onEnter={(text) => readName(text, (name) => setValue('name of a speed', at('name'), name))}
        />
        {row.speed_mPerS && <KnownField path={at('speed_mPerS')} />}
        <Box data-path={at('burn_m3PerS').join('.')}>
          <TextEntry
            label={`Consumption at ${row.name}`}
            value={speed ? wayText(burn / speed, reader, isAfloat) : formatQuantity(burn, 'burn', { reader }).text}
            onEnter={enter}
          />
        </Box>
        <Box pt="6" display="flex" gap="2">
          <Button onClick={use} disabled={duty === undefined}>
            <Gauge size={18} aria-hidden />
            Go at it
          </Button>
          <SquareButton
            label={`Remove ${row.name}`}
            onClick={() =>
              applyEdit(`remove ${row.name}`, (current) => withoutEntry(current, ['vehicle', 'cruise'], index))
            }
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
      </Box>
      <Box mt="1">
        {reckoned ? (
          <>
            Burns {entryText(burn, 'burn', reader)} {formatQuantity(burn, 'burn', { reader }).symbol}, runs for{' '}
            <b>
              <Quantity value={reckoned.endurance_s} role="duration" />
            </b>
            {reckoned.range_m !== undefined && (
              <>
                , goes{' '}
                <b>
                  <Quantity value={reckoned.range_m} role={isAfloat ? 'seaTrip' : 'trip'} />
                </b>
              </>
            )}
            {reckoned.isFurthest && (
              <Box as="span" color="good" fontWeight="700">
                {' '}
                · ● furthest
              </Box>
            )}
          </>
        ) : (
          <Box as="span" color="soft">
            not worked out yet
          </Box>
        )}
        {duty === undefined && (
          <Box as="span" color="warn" fontWeight="650">
            {' '}
            · ▲{' '}
            {burn > consumer!.burnFull_m3PerS.value ? 'more than it burns at full load' : 'less than it burns at idle'}
          </Box>
        )}
      </Box>
    </Box>
  );
}
