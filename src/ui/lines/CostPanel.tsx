'use client';

import { Box } from '@chakra-ui/react';
import { flowRole, type Costliest } from '@/core/evaluate';
import type { LinesApi } from '@/workers/lines.worker';
import { Panel } from '../parts/Panel';
import { Shown } from '../parts/Shown';
import { useSystem } from '../state/editor';
import { useRestedAnswer } from '../state/useRestedAnswer';
import { useChosenPart } from './chosenPart';
import { lineWorker } from './lineWorker';

const MOST_GAINS = 3;

/** The three things that cost most pressure, and what each change would gain. */
export function CostPanel({ k }: { readonly k: number }) {
  const need = useSystem().consumers[k]!.neededFlow_m3PerS.value;
  const choose = useChosenPart((state) => state.choose);
  const answer = useRestedAnswer<LinesApi, readonly Costliest[]>(lineWorker, `costliest ${k}`, (worker, current) =>
    worker.costliest(current, k),
  );
  const worst = answer.value?.ok ? answer.value.value : [];
  if (worst.length === 0) return null;
  return (
    <Panel title="What costs most pressure" testId="costliest">
      <Box
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 250px), 1fr))"
        gap="4"
        opacity={answer.fresh ? 1 : 0.5}
      >
        {worst.map((each, i) => (
          <Box key={`${each.part}-${i}`}>
            <Box as="button" onClick={() => choose(each.part)} textAlign="left" cursor="pointer" minH="44px">
              <Box as="span" color="soft">
                {i + 1}.{' '}
              </Box>
              <b>{each.name}</b>
            </Box>
            <Box fontSize="2xl" fontWeight="700">
              <Shown value={each.loss_Pa} role="pressure" />
            </Box>
            {each.gains.slice(0, MOST_GAINS).map((gain) => (
              <Box key={gain.change} fontSize="md">
                <Box as="span" color={gain.gain_m3PerS > 0.01 * need ? 'good' : 'soft'} fontWeight="650">
                  {gain.gain_m3PerS >= 0 ? '+' : '−'}
                  <Shown value={Math.abs(gain.gain_m3PerS)} role={flowRole(need)} digits={2} />
                </Box>{' '}
                with {gain.change}
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      <Box fontSize="sm" color="soft" mt="2">
        Loss at the needed flow; each gain is the whole system solved again with that change.
      </Box>
    </Panel>
  );
}
