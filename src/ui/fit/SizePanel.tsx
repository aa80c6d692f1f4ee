'use client';

import { Box } from '@chakra-ui/react';
import { changeWords } from './fitWords';
import { withLargest } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { openTank, useTank } from '../state/tankChoice';

/** How big a tank could be, and what each face of this one costs. */
export function SizePanel() {
  const sides = useSides();
  const t = useTank();
  const reader = useReader();
  const hasBay = useValue((system) => system.fit.bay.kind !== 'none');
  const largest = useAsked('largest');
  const costs = useAsked('changes');
  const volume = (value: number): string => formatQuantity(Math.abs(value), 'tankVolume', { reader }).text;
  const length = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  return (
    <Panel title="How big could it be?" testId="sizes-possible">
      <Box display="flex" gap="2" flexWrap="wrap">
        <Button
          disabled={!hasBay || largest.running}
          title={hasBay ? undefined : 'Describe the bay first'}
          onClick={() => void largest.ask()}
        >
          {largest.running ? 'Looking…' : 'Find the largest tank'}
        </Button>
        <Button disabled={costs.running} onClick={() => void costs.ask(t)}>
          What does each face cost?
        </Button>
      </Box>
      {largest.answer && !largest.answer.ok && (
        <Box mt="2" color="stop" fontWeight="600">
          {largest.answer.error.detail}
        </Box>
      )}
      {largest.answer?.ok && (
        <Box mt="3" display="grid" gap="2" opacity={largest.fresh ? 1 : 0.5} data-testid="largest">
          {!largest.fresh && <Box color="warn">The system has changed since: ask again.</Box>}
          {largest.answer.value.map((tank) => (
            <Box key={tank.kind} display="flex" gap="3" alignItems="center" flexWrap="wrap">
              <Box fontSize="2xl" fontWeight="750">
                {volume(tank.volume_m3)}
              </Box>
              <Box flex="1 1 220px">
                {tank.kind === 'box'
                  ? `box, outside ${tank.size_m.map(length).join(' × ')}`
                  : `profile of ${tank.outline.length} corners that follows the space, ${length(tank.length_m)} long`}
              </Box>
              <Button
                disabled={!largest.fresh}
                onClick={() => applyEdit(`largest ${tank.kind}`, (system) => withLargest(system, openTank(), tank))}
              >
                Make the tank this size
              </Button>
            </Box>
          ))}
          <Box color="soft" fontSize="sm">
            Outside volumes, with the clearance asked for to everything, over the whole of each travel. What stands on
            the tank is not reckoned in: look at the clearances after.
          </Box>
        </Box>
      )}
      {costs.answer?.ok && (
        <Box mt="3" opacity={costs.fresh ? 1 : 0.5} data-testid="face-costs">
          {costs.answer.value.map(({ change, tank, volume_m3 }, i) => (
            <Box
              key={i}
              display="flex"
              gap="3"
              alignItems="center"
              flexWrap="wrap"
              py="1"
              borderTopWidth={i ? '1px' : '0'}
              borderColor="rule"
            >
              <Box flex="1 1 240px">{changeWords(change, sides, reader)}</Box>
              <Box fontWeight="750" minW="110px" textAlign="right">
                {volume_m3 < 0 ? `costs ${volume(volume_m3)}` : `adds ${volume(volume_m3)}`}
              </Box>
              <Button
                disabled={!costs.fresh}
                onClick={() => setValue(changeWords(change, sides, reader), ['tanks', openTank()], tank)}
              >
                Do it
              </Button>
            </Box>
          ))}
        </Box>
      )}
    </Panel>
  );
}
