'use client';

import { flowRole } from '@/core/plan';
import { Box } from '@chakra-ui/react';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useOutcome } from '../state/answers';
import { useSystem } from '../state/editor';
import { useChosenPart } from './chosenPart';

const MOST_GAINS = 3;

/** The three things that cost most pressure, and what each change would gain. */
export function CostPanel({ k }: { readonly k: number }) {
  const need = useSystem().consumers[k]!.neededFlow_m3PerS.value;
  const choose = useChosenPart((state) => state.choose);
  const answer = useOutcome('costliest', k);
  const worst = answer.value?.ok ? answer.value.value : [];
  // Why nothing arrives stands above; that this broke stands nowhere else.
  if (answer.value?.ok === false && answer.value.error.code === 'broken')
    return (
      <Panel title="Largest pressure drops" testId="costliest">
        <NotWorkedOut why={answer.value.error.detail} />
      </Panel>
    );
  if (worst.length === 0) return null;
  return (
    <Panel title="Largest pressure drops" testId="costliest">
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
              <Quantity value={each.loss_Pa} role="pressure" />
            </Box>
            {each.gains.slice(0, MOST_GAINS).map((gain) => (
              <Box key={gain.change} fontSize="md">
                <Box as="span" color={gain.gain_m3PerS > 0.01 * need ? 'good' : 'soft'} fontWeight="650">
                  {gain.gain_m3PerS >= 0 ? '+' : '−'}
                  <Quantity value={Math.abs(gain.gain_m3PerS)} role={flowRole(need)} digits={2} />
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
