'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import {
  findThread,
  parsePitch,
  PITCH_EXAMPLE,
  type FoundThread,
  type ThreadReading,
  type ThreadTell,
} from '@/core/fittings';
import { THREAD_SYSTEMS, type ThreadRow } from '@/core/reference/threads';
import { formatQuantity } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { FieldGrid, Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { cardTable } from '../parts/cardTable';

/** Half-width of what each is good for; common practice [m]. */
const HOW_WELL_M = { calliper: 1e-4, rule: 5e-4 } as const;
type Tool = keyof typeof HOW_WELL_M;
/** A pitch gauge either fits or it does not; so far off it still seems to [m]. */
const GAUGE_M = 4e-5;

const TELL_WORDS: Readonly<Record<ThreadTell['how'][number], string>> = {
  pitch: 'lay a pitch gauge in it',
  taper: 'see whether it narrows along its length',
  flanks: 'hold a 55° and a 60° gauge to its flanks',
  nose: 'look for a cone on its nose, or an O-ring behind the thread',
  diameter: 'measure the diameter again, over the crests',
};

const LIMITS = { min: 0.003, max: 0.08 };

/**
 * Which thread is on a part that someone found: from its diameter and pitch, the likeliest first, and what would settle
 * it.
 */
export function ThreadPanel() {
  const reader = useReader();
  const [on, setOn] = useState<ThreadReading['on']>('outside');
  const [tool, setTool] = useState<Tool>('calliper');
  const [diameter, setDiameter] = useState<number>();
  const [pitch, setPitch] = useState<{ readonly pitch_m: number; readonly reading: string }>();
  const [tapers, setTapers] = useState<'unknown' | 'yes' | 'no'>('unknown');
  const size = (value: number): string => formatQuantity(value, 'bore', { reader }).text;
  const found =
    diameter === undefined
      ? undefined
      : findThread({
          on,
          diameter_m: diameter,
          diameterSpread_m: HOW_WELL_M[tool],
          ...(pitch ? { pitch_m: pitch.pitch_m, pitchSpread_m: GAUGE_M } : {}),
          ...(tapers === 'unknown' ? {} : { tapers: tapers === 'yes' }),
        });
  const enterDiameter = (text: string) => {
    const read = readEntry(text, 'bore', reader, LIMITS);
    if (read.ok) setDiameter(read.value);
    return read;
  };
  const enterPitch = (text: string) => {
    if (text.trim() === '') {
      setPitch(undefined);
      return { ok: true as const };
    }
    const read = parsePitch(text);
    if (!read.ok) return { ok: false as const, message: read.error.detail };
    setPitch(read.value);
    return { ok: true as const };
  };
  return (
    <Panel title="Which thread is it?" testId="threads">
      <Box color="soft" mb="2">
        A port that is there already saves a new hole. Measure its thread, or that of the fitting that goes in.
      </Box>
      <FieldGrid min="220px">
        <Select
          label="Measured"
          value={on}
          options={[
            { value: 'outside', label: 'over the crests of a fitting' },
            { value: 'inside', label: 'across the crests of a port' },
          ]}
          onChange={setOn}
        />
        <TextEntry
          label="Thread diameter"
          value={diameter === undefined ? '' : size(diameter)}
          onEnter={enterDiameter}
          hint="At the widest turn."
        />
        <Select
          label="With a"
          value={tool}
          options={(Object.keys(HOW_WELL_M) as Tool[]).map((value) => ({
            value,
            label: `${value}, ± ${size(HOW_WELL_M[value])}`,
          }))}
          onChange={setTool}
        />
        <TextEntry
          label="Thread pitch"
          value={pitch?.reading ?? ''}
          onEnter={enterPitch}
          hint={`${PITCH_EXAMPLE}; empty where not known.`}
        />
        <Select
          label="Does it narrow?"
          value={tapers}
          options={[
            { value: 'unknown', label: 'not looked yet' },
            { value: 'yes', label: 'yes, it tapers' },
            { value: 'no', label: 'no, parallel' },
          ]}
          onChange={setTapers}
        />
      </FieldGrid>
      {found && !found.ok && (
        <Box role="status" mt="3" color="stop" fontWeight="600">
          {found.error.code === 'none-near' ? found.error.detail : `The ${found.error.at} ${found.error.detail}.`}
        </Box>
      )}
      {found?.ok && <Candidates found={found.value} size={size} />}
    </Panel>
  );
}

const HEADS = ['thread', 'likely', 'tap drill', 'screws in', 'what seals it'];
const CARDS = cardTable(HEADS);
const percent = (share: number): string => (share > 0.99 ? 'almost surely' : `${Math.round(share * 100)} %`);

function Candidates({
  found: { candidates, tell },
  size,
}: {
  readonly found: FoundThread;
  readonly size: (value: number) => string;
}) {
  const drill = ({ drill: name, tapDrill_m, system }: ThreadRow): string =>
    system === 'coarse' ? 'moulded' : `${size(tapDrill_m)}${name ? ` (${name})` : ''}`;
  return (
    <Box mt="3" overflowX="auto" tabIndex={0} role="region" aria-label="Threads that fit">
      <chakra.table width="100%" minW="560px" borderCollapse="collapse" aria-label="Threads that it may be" css={CARDS}>
        <thead>
          <tr>
            {HEADS.map((head, i) => (
              <chakra.th
                key={head}
                px="2"
                textAlign={i === 0 || i === 4 ? 'left' : 'right'}
                color="soft"
                fontWeight="600"
              >
                {head}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {candidates.map(({ thread, share }, i) => (
            <chakra.tr key={thread.name} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="2" fontWeight={i === 0 ? '750' : '600'} fontSize={i === 0 ? 'lg' : undefined}>
                {thread.name}
              </chakra.td>
              <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
                {percent(share)}
              </chakra.td>
              <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
                {drill(thread)}
              </chakra.td>
              <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
                {size(thread.engagement_m)}
              </chakra.td>
              <chakra.td px="2">{THREAD_SYSTEMS[thread.system].seal}</chakra.td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
      {tell && tell.how.length > 0 && (
        <Box mt="2" fontWeight="650" data-testid="thread-tell">
          To tell {tell.between[0]} from {tell.between[1]}: {tell.how.map((how) => TELL_WORDS[how]).join(', or ')}.
        </Box>
      )}
      <Box mt="1" color="soft" fontSize="sm">
        Sizes and drills are from memory of the standards named in the table: check the drill on an offcut. Pipe taps
        are tapered, so depth sets the fit.
      </Box>
    </Box>
  );
}
