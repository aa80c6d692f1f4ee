'use client';

import { Box } from '@chakra-ui/react';
import { chosen, PICKUP_KINDS, STRAINERS, withoutEntry } from '@/core/plan';
import type { CutSpread } from '@/core/answers';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { STRAINER_WORDS } from '../parts/words';
import { applyEdit, setValue, useSystem } from '../state/editor';
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
