'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { clockText } from '@/core/units';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import type { Told } from './timeWords';

const SHOWN = 5;
/** One or two more are shown rather than hidden. */
const MORE = 2;

/** What happens when, in words; each leads to its moment. */
export function EventsPanel({
  told,
  at_s,
  onTime,
}: {
  readonly told: readonly Told[];
  readonly at_s: number;
  readonly onTime: (at_s: number) => void;
}) {
  const [all, setAll] = useState(false);
  const last = told.findLastIndex(({ t_s }) => t_s <= at_s);
  return (
    <Panel title="What happens when" testId="events">
      {told.length === 0 && <Box color="soft">Nothing is set, and nothing happens.</Box>}
      <chakra.ol listStyleType="none" m="0" p="0">
        {told
          .slice(0, all || told.length <= SHOWN + MORE ? told.length : SHOWN)
          .map(({ t_s, says, severity, isSet }, i) => (
            <li key={i}>
              <chakra.button
                type="button"
                display="grid"
                gridTemplateColumns="116px minmax(0, 1fr)"
                gap="2"
                width="100%"
                textAlign="left"
                cursor="pointer"
                minH="40px"
                py="1"
                px="2"
                borderTopWidth={i === 0 ? '0' : '1px'}
                borderColor="rule"
                bg={i === last ? 'sunk' : undefined}
                aria-current={i === last ? 'time' : undefined}
                onClick={() => onTime(t_s)}
              >
                <Box fontWeight="700" whiteSpace="nowrap">
                  {clockText(t_s)}
                </Box>
                <Box
                  color={severity ?? (isSet ? 'soft' : undefined)}
                  fontWeight={severity === 'stop' ? '700' : undefined}
                >
                  {says}
                </Box>
              </chakra.button>
            </li>
          ))}
      </chakra.ol>
      {told.length > SHOWN + MORE && (
        <Box mt="2" className="no-print">
          <Button onClick={() => setAll(!all)}>{all ? 'Show the first few' : `Show all ${told.length}`}</Button>
        </Box>
      )}
    </Panel>
  );
}
