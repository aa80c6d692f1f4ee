'use client';

import { Box } from '@chakra-ui/react';
import { assumed, chosen, PICKUP_KINDS, STRAINERS, withoutEntry } from '@/core/plan';
import type { CutSpread } from '@/core/answers';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { STRAINER_WORDS } from '../parts/words';
import { applyEdit, setValue, useSystem, useValue } from '../state/editor';
import { useDetails } from '../state/results';

const PICKUP_WORDS: Readonly<Record<(typeof PICKUP_KINDS)[number], string>> = {
  'top-tube': 'tube from the lid',
  hose: 'hose from the lid',
  module: 'pump module from the lid',
  'bottom-outlet': 'outlet in the bottom',
};

export function PickupPanel({
  t,
  p,
  cut,
}: {
  readonly t: number;
  readonly p: number;
  readonly cut: CutSpread | undefined;
}) {
  const system = useSystem();
  const { results } = useDetails();
  const pickup = system.tanks[t]!.pickups[p]!;
  const at = (key: string) => ['tanks', t, 'pickups', p, key];
  const result = results?.ok
    ? results.evaluation.tanks[t]?.pickups.find((candidate) => candidate.id === pickup.id)
    : undefined;
  const inUse = system.lines.some(({ from, to }) => from.item === pickup.id || to.item === pickup.id);
  const hangs = pickup.kind !== 'bottom-outlet';
  return (
    <Panel
      title={pickup.name}
      testId="pickup"
      aside={
        <Button
          disabled={inUse}
          title={inUse ? 'A line begins at it' : undefined}
          onClick={() =>
            applyEdit(`remove ${pickup.name}`, (current) => withoutEntry(current, ['tanks', t, 'pickups'], p))
          }
        >
          Remove
        </Button>
      }
    >
      {cut && (
        <Box mb="3" data-testid="cut">
          <Box fontSize="sm" color="soft">
            Cut it to
          </Box>
          <Box fontSize="3xl" fontWeight="800" lineHeight="1.1">
            <Quantity value={cut.cut_m} role="tape" />
          </Box>
          <Box>
            from <Quantity value={cut.shortest_m} role="tape" /> to <Quantity value={cut.longest_m} role="tape" />, as
            sizes may be off. Cut to the middle its end stands{' '}
            <b>
              <Quantity value={Math.max(0, cut.lowestEnd_m)} role="tape" />
            </b>{' '}
            to{' '}
            <b>
              <Quantity value={cut.highestEnd_m} role="tape" />
            </b>{' '}
            off the floor{cut.lowestEnd_m < 0 ? ', or strikes it: cut long, try, then trim' : ''}.
          </Box>
        </Box>
      )}
      <FieldGrid>
        <KnownField label="Height off the floor" path={at('heightOffFloor_m')} />
        <KnownField label="Bore of the tube" path={at('bore_m')} entry={{ line: 'tube' }} />
        <KnownField label="Liquid needed over the inlet" path={at('submergence_m')} />
        <Select
          label="Kind"
          value={pickup.kind}
          options={PICKUP_KINDS.map((value) => ({ value, label: PICKUP_WORDS[value] }))}
          onChange={(value) => setValue('kind of pickup', at('kind'), value)}
        />
        <Select
          label="Hangs in"
          value={pickup.port}
          options={system.tanks[t]!.ports.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(value) => setValue(`port of ${pickup.name}`, at('port'), value)}
        />
        <Select
          label="Strainer"
          value={pickup.strainer}
          options={STRAINERS.map((value) => ({ value, label: STRAINER_WORDS[value] }))}
          onChange={(value) => setValue('strainer', at('strainer'), value)}
        />
        {hangs &&
          (pickup.seat_m ? (
            <KnownField
              label="Its seat over the lid"
              path={at('seat_m')}
              hint="Minus where it is seated below the outside."
            />
          ) : (
            <Box pt="5">
              <Button
                onClick={() => setValue(`seat of ${pickup.name}`, at('seat_m'), chosen(result?.plan?.seat_m ?? 0))}
              >
                Its seat differs from <Quantity value={result?.plan?.seat_m ?? 0} role="tape" />
              </Button>
            </Box>
          ))}
        <Practice of="outlet" />
        <Practice of="pickup" />
        <Practice of="strainer" />
      </FieldGrid>
      <CanFields t={t} p={p} />
      {result && (
        <Box mt="3" display="flex" gap="5" flexWrap="wrap">
          <Box>
            Leaves behind, level{' '}
            <b>
              <Quantity value={result.unusableLevel_m3} role="tankVolume" />
            </b>
          </Box>
          <Box>
            at this slope{' '}
            <b>
              <Quantity value={result.unusableNow_m3} role="tankVolume" />
            </b>
          </Box>
          <Box>
            at the worst slope{' '}
            <b>
              <Quantity value={result.worst.unusable_m3} role="tankVolume" />
            </b>
          </Box>
          <Box>
            Can still draw{' '}
            <b>
              <Quantity value={result.leftNow_m3} role="tankVolume" />
            </b>
          </Box>
          {result.plan?.near.map(({ to, distance_m }) => (
            <Box key={to} color={distance_m < 0 ? 'stop' : undefined}>
              {distance_m < 0 ? (
                `Runs into ${to}`
              ) : (
                <>
                  Passes {to} at{' '}
                  <b>
                    <Quantity value={distance_m} role="tape" />
                  </b>
                </>
              )}
            </Box>
          ))}
        </Box>
      )}
    </Panel>
  );
}

/** A can or basket about a pickup, so that it is fed while the rest runs away. */
function CanFields({ t, p }: { readonly t: number; readonly p: number }) {
  const pickup = useValue((system) => system.tanks[t]!.pickups[p]!);
  const { can } = pickup;
  const path = ['tanks', t, 'pickups', p, 'can'];
  const doors = can !== undefined && can.leak_ratio.value < 1;
  return (
    <Box mt="3" pt="3" borderTopWidth="1px" borderColor="rule" data-path={path.join('.')} data-testid="can">
      <FieldGrid>
        <Select
          label="Can about it"
          value={can ? (doors ? 'doors' : 'holes') : 'none'}
          options={[
            { value: 'none', label: 'none' },
            { value: 'holes', label: 'with holes at its foot' },
            { value: 'doors', label: 'with doors that open inward' },
          ]}
          onChange={(kind) =>
            setValue(
              `can about ${pickup.name}`,
              path,
              kind === 'none'
                ? undefined
                : { ...(can ?? NEW_CAN), leak_ratio: kind === 'holes' ? chosen(1) : DOOR_LEAK },
            )
          }
        />
        {can && (
          <>
            <KnownField path={[...path, 'diameter_m']} />
            <KnownField path={[...path, 'height_m']} />
            <TextEntry
              label="Openings"
              value={String(can.openings.count)}
              onEnter={(text) => {
                const count = Number(text);
                if (!Number.isInteger(count) || count < 1 || count > MOST_OPENINGS)
                  return { ok: false, message: `A whole number from 1 to ${MOST_OPENINGS}.` };
                setValue(`openings of the can about ${pickup.name}`, [...path, 'openings', 'count'], count);
                return { ok: true };
              }}
            />
            <KnownField path={[...path, 'openings', 'diameter_m']} />
            {doors && <KnownField label="Doors leak when shut" path={[...path, 'leak_ratio']} />}
          </>
        )}
      </FieldGrid>
      {can && (
        <Box color="soft" fontSize="sm" mt="1">
          How long it feeds in a hard corner stands at Tank, Baffles &amp; surge.
        </Box>
      )}
    </Box>
  );
}

const MOST_OPENINGS = 400;
const DOOR_LEAK = assumed(0.05, 0.03);
/** A can wide enough for a pump on its hose. */
const NEW_CAN = {
  diameter_m: chosen(0.12),
  height_m: chosen(0.1),
  openings: { count: 6, diameter_m: chosen(0.008) },
  leak_ratio: chosen(1),
};
