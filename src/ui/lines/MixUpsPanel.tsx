'use client';

import { Box } from '@chakra-ui/react';
import type { WrongFuel } from '@/core/answers';
import { capital } from '@/core/formats';
import { WRONG_MEND } from '@/core/reference/wrongFuel';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { useLines } from '../state/useLines';

const KIND_WORDS = { fillers: 'Fillers', threads: 'Threads', ports: 'Ports', lines: 'Lines' } as const;

/** What somebody will one day take for something else, so that it is bought, marked or made unlike. */
export function MixUpsPanel() {
  const { lines, fresh } = useLines();
  if (!lines) return null;
  const { mixUps, wrongFuels } = lines;
  return (
    <Panel title="What could be mixed up" testId="mix-ups">
      <Box
        opacity={fresh ? 1 : 0.6}
        display="grid"
        columnGap="6"
        rowGap="3"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', xl: 'repeat(2, minmax(0, 1fr))' }}
        alignItems="start"
      >
        <Box display="grid" gap="2">
          {mixUps.length === 0 && (
            <Box color="soft">
              Nothing of what is described: no two fillers, threads, ports or lines that look alike.
            </Box>
          )}
          {mixUps.map(({ kind, one, other, tells }) => (
            <Box key={`${kind} ${one} ${other}`}>
              <Box as="span" color="soft">
                {KIND_WORDS[kind]}:{' '}
              </Box>
              <b>{one}</b> and <b>{other}</b>
              <Box fontSize="sm" color="soft">
                {tells}
              </Box>
            </Box>
          ))}
        </Box>
        {wrongFuels.length > 0 && (
          <Box data-testid="wrong-fuel" display="grid" gap="2">
            <Box fontWeight="700">If the wrong one goes in</Box>
            {wrongFuels.map((each) => (
              <Box key={`${each.port} ${each.wrong}`}>
                <b>
                  {capital(each.wrongName)} into {each.name} of {each.tank}
                </b>{' '}
                <Box as="span" color="soft">
                  , where {each.rightName} belongs: {ENTERS_WORDS[each.enters ?? 'unsaid']}
                </Box>
                <Box fontSize="sm">
                  {each.effect} {reachWords(each)}
                </Box>
              </Box>
            ))}
            <Caution>{WRONG_MEND}</Caution>
          </Box>
        )}
      </Box>
    </Panel>
  );
}

const ENTERS_WORDS = {
  yes: 'a station’s nozzle goes in',
  some: 'some nozzles go in',
  no: 'a station’s nozzle does not go in; a can does',
  unsaid: 'poured by hand; nothing keeps it out',
} as const;

const reachWords = ({ reaches }: WrongFuel): string =>
  reaches.length > 0 ? `It comes to ${reaches.join(', ')}.` : 'No consumer of the plan draws from this tank.';
