'use client';

import { Box } from '@chakra-ui/react';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useChosenPart } from './chosenPart';
import { useAnswer } from '../state/answers';

const MOST_SHOWN = 8;

/** How near lines come to what is hot or moves. */
export function PassingPanel() {
  const choose = useChosenPart((state) => state.choose);
  const { value: fit, standing, reason } = useAnswer('clearances');
  const gaps = fit?.ok ? fit.value.lines : undefined;
  const fresh = standing === 'fresh';
  if (reason !== undefined)
    return (
      <Panel title="Past heat and moving parts" testId="passing">
        <NotWorkedOut why={reason} />
      </Panel>
    );
  if (!gaps || gaps.length === 0) return null;
  return (
    <Panel title="Past heat and moving parts" testId="passing">
      <Box opacity={fresh ? 1 : 0.6}>
        {gaps.slice(0, MOST_SHOWN).map((gap) => {
          const near = gap.distance_m < gap.keep_m;
          return (
            <Box
              key={`${gap.line}-${gap.to}`}
              as="button"
              display="flex"
              width="100%"
              gap="3"
              textAlign="left"
              borderTopWidth="1px"
              borderColor="rule"
              py="1"
              minH="44px"
              cursor="pointer"
              onClick={() => choose(gap.line)}
            >
              <Box as="span" width="110px" fontWeight="700" color={near ? 'stop' : 'good'}>
                {near ? '■ ' : '● '}
                {gap.distance_m <= 0 ? 'meets it' : <Quantity value={gap.distance_m} role="tape" />}
              </Box>
              <Box as="span" flex="1">
                <b>{gap.name}</b> to {gap.obstacle}
                {gap.kind === 'moving' ? ', over its whole travel' : ', hot'};{' '}
                <Quantity value={gap.keep_m} role="tape" /> asked for
              </Box>
            </Box>
          );
        })}
      </Box>
      <Box fontSize="sm" color="soft" mt="1">
        Lines are taken straight between their points; hold them there, or put more points on their way.
      </Box>
    </Panel>
  );
}
