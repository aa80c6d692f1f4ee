'use client';

import { Box } from '@chakra-ui/react';
import { TankPicker } from '../tank/TankPicker';
import { useTask } from '../workspace/goTo';
import { CarriedTask } from './CarriedTask';
import { LayoutTask } from './LayoutTask';
import { LoadsTask } from './LoadsTask';
import { StrengthTask } from './StrengthTask';
import { WeightTask } from './WeightTask';

/** What holds the tank, whether it does, and what its weight does. */
export function MountsStage() {
  const task = useTask('mounts');
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      {task === 'loads' ? (
        <LoadsTask />
      ) : task === 'strength' ? (
        <StrengthTask />
      ) : task === 'weight' ? (
        <WeightTask />
      ) : task === 'lifted' ? (
        <CarriedTask />
      ) : (
        <LayoutTask />
      )}
    </Box>
  );
}
