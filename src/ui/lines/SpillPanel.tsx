'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { Spill } from '@/core/answers';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useLines } from '../state/useLines';

/** What runs out when a joint is undone, and what a broken line would empty, with the valves as they stand. */
export function SpillPanel() {
  const { lines, fresh } = useLines();
  if (!lines || lines.jointSpills.length === 0) return null;
  return (
    <Panel title="Spill if opened or broken" testId="spills">
      <Box opacity={fresh ? 1 : 0.6}>
        <Box fontWeight="700" mb="1">
          If a line breaks at its lowest point
        </Box>
        {lines.breakSpills.map((spill) => (
          <Box key={spill.run} borderTopWidth="1px" borderColor="rule" py="1">
            <b>{spill.runName}</b>{' '}
            <Box as="span" color="soft">
              at {spill.lineName}:{' '}
            </Box>
            <Result spill={spill} />
          </Box>
        ))}
        <Box fontWeight="700" mt="4" mb="1">
          If a joint is undone, pumps at rest
        </Box>
        <Box overflowX="auto" tabIndex={0} role="region" aria-label="What drains at each joint">
          <chakra.table width="100%" borderCollapse="collapse">
            <tbody>
              {lines.jointSpills.map((spill) => (
                <chakra.tr
                  key={`${spill.line}-${spill.at}`}
                  borderTopWidth="1px"
                  borderColor="rule"
                  verticalAlign="top"
                >
                  <chakra.td py="1" pr="3">
                    {spill.lineName}{' '}
                    <Box as="span" color="soft">
                      {spill.at === 'from' ? 'near end' : 'far end'}
                    </Box>
                  </chakra.td>
                  <chakra.td py="1">
                    <Result spill={spill} />
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
        <Box mt="3">
          <Caution>
            Shut the valve at the tank, let the pressure off, keep flames and sparks away, and catch what runs out in a
            can that is earthed to the tank. Petrol in a boat’s bilge is an explosion: run the blower and follow the
            rules in force.
          </Caution>
        </Box>
      </Box>
    </Panel>
  );
}

function Result({ spill }: { readonly spill: Spill }) {
  return (
    <>
      {spill.tanks.map((tank) => (
        <Box as="span" key={tank.tank} fontWeight="700" color="stop">
          ■ <Quantity value={tank.volume_m3} role="tankVolume" /> of {tank.name}
          {tank.bySiphon ? ' by siphon' : ''}, and{' '}
        </Box>
      ))}
      <b>
        <Quantity value={spill.lines_m3} role="smallVolume" digits={2} />
      </b>{' '}
      from the line
      {spill.stoppedBy.length > 0 && (
        <Box as="span" color="good">
          {' '}
          · held by {spill.stoppedBy.join(', ')}
        </Box>
      )}
    </>
  );
}
