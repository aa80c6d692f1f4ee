'use client';

import { Box } from '@chakra-ui/react';
import type { MountsOf } from '@/core/answers';
import { LEAK_TEST } from '@/core/reference/leakTest';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { CASE_HEADS, SIDE_HEADS } from './mountWords';
import { Table, useWrite } from '../parts/Table';

/** What the liquid presses on the sides and baffles of the tank as it is thrown with it. */
export function PressedPanel({ shell, t }: { readonly shell: MountsOf; readonly t: number }) {
  const sides = useSides();
  const write = useWrite();
  const tank = useSystem().tanks[t]!;
  const pressed = shell.pressed[shell.tanks.indexOf(t)];
  if (!pressed || pressed.sides.length === 0)
    return (
      <Panel title="What its liquid presses" testId="pressed">
        <NotWorkedOut why="Where its liquid goes when it is thrown could not be worked out." />
      </Panel>
    );
  const plateName = (id: string): string => tank.plates.find((plate) => plate.id === id)?.name ?? id;
  const worst = pressed.sides.reduce((most, side) => (side.peak_Pa > most.peak_Pa ? side : most));
  const over = (value_Pa: number) => (value_Pa > LEAK_TEST.air_Pa ? ({ tone: 'warn' } as const) : {});
  return (
    <Panel title="What its liquid presses" testId="pressed">
      <Box fontSize="xl" fontWeight="700" color={worst.peak_Pa > LEAK_TEST.air_Pa ? 'warn' : undefined}>
        {sides(SIDE_HEADS[worst.side])}, {sides(CASE_HEADS[worst.shock])}:{' '}
        <Quantity value={worst.peak_Pa} role="pressure" />
      </Box>
      <Table
        label="What its liquid presses"
        heads={['', 'Most, in one place', 'All of it together', 'When']}
        rows={[
          ...pressed.sides.map(({ side, shock, peak_Pa, force_N }) => ({
            head: sides(SIDE_HEADS[side]),
            cells: [
              { text: write(peak_Pa, 'pressure'), ...over(peak_Pa) },
              { text: write(force_N, 'force') },
              { text: sides(CASE_HEADS[shock]) },
            ],
          })),
          ...pressed.baffles.map(({ id, shock, pressure_Pa, force_N }) => ({
            head: plateName(id),
            cells: [
              { text: `up to ${write(pressure_Pa, 'pressure')}` },
              { text: `up to ${write(force_N, 'force')}` },
              { text: sides(CASE_HEADS[shock]) },
            ],
          })),
        ]}
      />
      <Box color="soft" mt="2" maxW="75ch">
        Filled to its limit, the liquid at rest in the throw. A baffle as if its holes were shut as it is struck: all
        that is behind it. A half-full tank’s wave is shorter and may strike harder. A leak test with air puts{' '}
        {write(LEAK_TEST.air_Pa, 'pressure')} on it.
      </Box>
    </Panel>
  );
}
