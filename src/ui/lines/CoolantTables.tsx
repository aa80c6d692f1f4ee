import { Box } from '@chakra-ui/react';
import { BOILING_KNOWN_TO_K, type Coolant } from '@/core/answers';
import type { ComponentDocument } from '@/core/plan';
import { Table, useWrite } from '../parts/Table';

/** Marks of a coolant bottle, and where the coolant boils under its cap. */
export function CoolantTables({
  coolant: { marks, coldLeft_m3, toBoiling_m3, boils_K, boilsAt },
  bottle,
  part,
}: {
  readonly coolant: Coolant;
  readonly bottle: string;
  readonly part: Extract<ComponentDocument, { kind: 'cooling-system' }>;
}) {
  const write = useWrite();
  const boils = (at_K: number | undefined): { text: string } => ({
    text: at_K === undefined ? `beyond ${write(BOILING_KNOWN_TO_K, 'temperature')}` : write(at_K, 'temperature'),
  });
  const runsOver = marks.hot.volume_m3 > marks.holds_m3;
  return (
    <Box mt="2" display="grid" gap="4" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }} data-testid="coolant">
      <Table
        label={`Marks of ${bottle}: heights over its lowest place, standing level`}
        heads={[`Marks of ${bottle}`, 'Height', 'Stands in it']}
        rows={[
          {
            head: `Cold mark, ${write(part.cold_K.value, 'temperature')}`,
            cells: [{ text: write(marks.cold.height_m, 'tape') }, { text: write(marks.cold.volume_m3, 'tankVolume') }],
          },
          {
            head: `Hot mark, ${write(part.hot_K.value, 'temperature')}`,
            cells: [
              runsOver ? { text: 'runs over', tone: 'warn' } : { text: write(marks.hot.height_m, 'tape') },
              { text: write(marks.hot.volume_m3, 'tankVolume') },
            ],
          },
          { head: 'Holds to its limit', cells: [{ text: '' }, { text: write(marks.holds_m3, 'tankVolume') }] },
          {
            head: 'As filled now, once cold',
            cells: [
              { text: '' },
              {
                text: write(coldLeft_m3, 'tankVolume'),
                ...(coldLeft_m3 < marks.cold.volume_m3 ? { tone: 'warn' as const } : {}),
              },
            ],
          },
        ]}
      />
      <Table
        label="Where it boils under its cap"
        heads={['Under its cap', 'Boils at', 'Swells by']}
        rows={[
          {
            head: 'as Conditions have the air',
            cells: [boils(boils_K), { text: toBoiling_m3 === undefined ? '?' : write(toBoiling_m3, 'tankVolume') }],
          },
          ...boilsAt.map(({ altitude_m, boils_K: at_K }) => ({
            head: altitude_m === 0 ? 'at the sea' : `at ${write(altitude_m, 'run')} up`,
            cells: [boils(at_K), { text: '' }],
          })),
        ]}
      />
      <Box fontSize="sm" color="soft" gridColumn="1 / -1">
        Heights are over its lowest place, standing level. Cold, its mouth is covered by a bore of it at every slope
        asked for; hot, what the system swells by stands on that. It boils as water does: a mixture a little later.
      </Box>
    </Box>
  );
}
