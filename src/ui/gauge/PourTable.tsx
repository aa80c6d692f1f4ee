'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useRef } from 'react';
import { POUR_STATES, poursOf, type PourDocument } from '@/core/plan';
import { POUR_SPREADS } from '@/core/reference/senders';
import { formatQuantity } from '@/core/units';
import type { CalibrationData } from '@/core/answers';
import { useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { corrected, writeDown } from '../state/records';
import { FLAG_WORDS, readingText, STATE_WORDS } from './calibrationWords';
import { cardTable } from '../parts/cardTable';

/** The log: every line stays, with what is odd about it; lines are corrected, never taken away or written over. */
export function PourTable({
  t,
  c,
  data,
}: {
  readonly t: number;
  readonly c: number;
  readonly data: CalibrationData | undefined;
}) {
  const reader = useReader();
  const calibration = useValue((system) => system.tanks[t]!.calibrations[c]!.id);
  const records = useValue((system) => system.records);
  const log = useMemo(() => poursOf({ records }, calibration), [records, calibration]);
  const pours = log.map(({ now }) => now);
  const region = useRef<HTMLDivElement>(null);
  // The last line is the one that the next follows.
  useEffect(() => {
    if (region.current) region.current.scrollTop = region.current.scrollHeight;
  }, [pours.length]);
  const placeOf = new Map(log.map(({ id }, i) => [id, i]));
  if (pours.length === 0)
    return (
      <Box mt="3" color="soft">
        No pour yet.
      </Box>
    );
  const far = new Set(data?.explained.ok ? data.explained.value.farOff : []);
  const lines = data?.lines.filter(({ id }) => placeOf.has(id));
  const order = lines && lines.length === pours.length ? lines.map(({ id }) => placeOf.get(id)!) : [...pours.keys()];
  return (
    <Box
      ref={region}
      mt="3"
      overflow="auto"
      maxH={{ base: 'none', lg: '440px' }}
      css={{ '@media print': { maxHeight: 'none' } }}
      tabIndex={0}
      role="region"
      aria-label="Log of pours"
    >
      <chakra.table width="100%" minW="760px" css={CARDS} borderCollapse="collapse" data-testid="pours">
        <thead>
          <tr>
            {HEADS.map((head, i) => (
              <chakra.th
                key={i}
                px="2"
                textAlign={i === 2 || i === 3 || i === 4 ? 'right' : 'left'}
                color="soft"
                fontWeight="600"
              >
                {head}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {order.map((index, place) => {
            const pour = pours[index]!;
            const { id, before } = log[index]!;
            const line = lines?.[place];
            const flags = [
              ...(line?.flags ?? []).filter((flag) => flag !== 'struck'),
              ...(far.has(id) ? ['far-off' as const] : []),
            ];
            const struck = pour.state === 'entry-struck' || pour.state === 'reading-struck';
            return (
              <chakra.tr
                key={id}
                borderTopWidth="1px"
                borderColor="rule"
                verticalAlign="top"
                color={struck ? 'soft' : undefined}
              >
                <chakra.td px="2" py="1">
                  {place + 1}
                </chakra.td>
                <chakra.td px="2" py="1" whiteSpace="nowrap">
                  {timeText(pour.at)}
                </chakra.td>
                <chakra.td
                  px="2"
                  py="1"
                  textAlign="right"
                  whiteSpace="nowrap"
                  textDecoration={pour.state === 'entry-struck' ? 'line-through' : undefined}
                >
                  {formatQuantity(pour.added_m3, 'tankVolume', { reader }).text}
                  <chakra.span color="soft"> {POUR_SPREADS[pour.way].name}</chakra.span>
                </chakra.td>
                <chakra.td px="2" py="1" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                  {line &&
                    formatQuantity(line.volume_m3, 'tankVolume', {
                      reader,
                      ...(line.sigma_m3 > 0 ? { spread: 2 * line.sigma_m3 } : {}),
                    }).text}
                </chakra.td>
                <chakra.td
                  px="2"
                  py="1"
                  textAlign="right"
                  fontWeight="700"
                  whiteSpace="nowrap"
                  textDecoration={struck ? 'line-through' : undefined}
                >
                  {readingText(pour.reading, reader)}
                </chakra.td>
                <chakra.td px="2" py="1">
                  <chakra.select
                    aria-label={`Line ${place + 1} counts as`}
                    value={pour.state}
                    minH="40px"
                    bg="panel"
                    borderWidth="1.5px"
                    borderColor="edge"
                    borderRadius="md"
                    px="1"
                    onChange={(event) =>
                      writeDown([corrected(pour, { state: event.target.value as PourDocument['state'] })])
                    }
                  >
                    {POUR_STATES.map((state) => (
                      <option key={state} value={state}>
                        {STATE_WORDS[state]}
                      </option>
                    ))}
                  </chakra.select>
                </chakra.td>
                <chakra.td px="2" py="1">
                  {flags.map((flag) => (
                    <Box key={flag} color="warn" fontWeight="650" fontSize="sm" data-testid="pour-flag">
                      {FLAG_WORDS[flag]}
                    </Box>
                  ))}
                  {line?.otherKind && (
                    <Box color="warn" fontWeight="650" fontSize="sm">
                      another kind of reading than most: left out
                    </Box>
                  )}
                  {pour.note && (
                    <Box fontSize="sm" color="soft">
                      {pour.note}
                    </Box>
                  )}
                  {before.length > 0 && (
                    <Box fontSize="sm" color="soft" data-testid="pour-corrected">
                      corrected {timeText(pour.recorded)}; before:{' '}
                      {before.map(({ state }) => STATE_WORDS[state]).join(', then ')}
                    </Box>
                  )}
                  {pour.simulated && (
                    <Box fontSize="sm" color="warn">
                      simulated
                    </Box>
                  )}
                </chakra.td>
              </chakra.tr>
            );
          })}
        </tbody>
      </chakra.table>
    </Box>
  );
}

const HEADS = ['line', 'time', 'poured', 'in the tank', 'read', 'counts as', ''];
const CARDS = cardTable(HEADS);

const timeText = (at: string): string => {
  const time = new Date(at);
  return Number.isNaN(time.getTime())
    ? at
    : `${time.toLocaleDateString(undefined, { month: 'short', day: 'numeric' })} ${time.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })}`;
};
