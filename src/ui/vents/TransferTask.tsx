'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { joinablePairs, type SchoolCourse, type SchoolResult } from '@/core/answers';
import { clockText, formatQuantity, messageText, type Role } from '@/core/units';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { goToSheet } from '../paper/choice';
import { useOutcome } from '../state/answers';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { SCHOOL_WORDS } from './schoolWords';

/** From tank to tank: every school on this system, side by side. */
export function TransferTask() {
  const system = useSystem();
  const pairs = joinablePairs(system);
  const [chosen, setChosen] = useState<string>();
  if (pairs.length === 0)
    return (
      <Panel title="From tank to tank">
        <Box color="soft">
          There are no two tanks of one fluid here, one of them with a pickup that feeds nothing else.
        </Box>
      </Panel>
    );
  const pair = pairs.find((each) => each.join() === chosen) ?? pairs[0]!;
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <Box display="flex" gap="3" alignItems="end" flexWrap="wrap" className="no-print">
        <Select
          label="From and into"
          width="min(100%, 420px)"
          value={pair.join()}
          options={pairs.map((each) => ({
            value: each.join(),
            label: `${system.tanks[each[0]]!.name} into ${system.tanks[each[1]]!.name}`,
          }))}
          onChange={setChosen}
        />
        <Button onClick={() => goToSheet('card')}>Print the valve card</Button>
      </Box>
      <Schools key={pair.join()} s={pair[0]} t={pair[1]} />
      <Caution>
        Played as if nobody stops it, the engine at full load: what is shown is what the parts do by themselves. Petrol
        is not drained into open vessels, nor moved in an enclosed space.
      </Caution>
    </Box>
  );
}

function Schools({ s, t }: { readonly s: number; readonly t: number }) {
  const system = useSystem();
  const { value, fresh } = useOutcome('transfer', s, t);
  const names = [system.tanks[s]!.name, system.tanks[t]!.name] as const;
  if (!value) return <Box color="soft">Working out every school…</Box>;
  if (!value.ok) return <NotWorkedOut why={value.error.detail} />;
  return (
    <Box
      display="grid"
      gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 420px), 1fr))"
      gap="4"
      alignItems="start"
      opacity={fresh ? 1 : 0.5}
      aria-busy={!fresh}
    >
      {value.value.map((result) => (
        <School key={result.by} result={result} names={names} />
      ))}
    </Box>
  );
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

function School({
  result: { by, isThere, outcome },
  names,
}: {
  readonly result: SchoolResult;
  readonly names: readonly [string, string];
}) {
  const { label, caution } = SCHOOL_WORDS[by];
  return (
    <Panel
      title={capital(label)}
      testId={`school-${by}`}
      {...(isThere
        ? {
            aside: (
              <Box fontSize="sm" fontWeight="650" color="accent">
                as it is now
              </Box>
            ),
          }
        : {})}
    >
      <Box fontSize="sm" mt="-2" mb="2">
        {caution}
      </Box>
      {outcome.ok ? (
        <Course course={outcome.value} names={names} />
      ) : (
        <Box color="stop" fontWeight="600">
          {outcome.error.detail}
        </Box>
      )}
    </Panel>
  );
}

function Course({
  course,
  names: [from],
}: {
  readonly course: SchoolCourse;
  readonly names: readonly [string, string];
}) {
  const reader = useReader();
  const text = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  const { first_m3PerS, emptied_s, left_m3, spilt_m3, verdict, stands, lasts_s } = course;
  const moves = first_m3PerS > MOVES_M3_PER_S;
  return (
    <>
      <Box fontSize="2xl" fontWeight="800" lineHeight="1.15">
        {moves ? text(first_m3PerS, first_m3PerS > 1e-5 ? 'transfer' : 'burn') : 'nothing moves'}
      </Box>
      <Box fontSize="sm" color="soft" mb="2">
        out of {from} in the first minutes
      </Box>
      <Box>
        {emptied_s === undefined ? (
          <>
            After {clockText(lasts_s)} <b>{text(left_m3, 'tankVolume')}</b> are still in it.
          </>
        ) : (
          <>
            Empty in <b>{clockText(emptied_s)}</b>, {text(left_m3, 'tankVolume')} stay behind.
          </>
        )}
      </Box>
      {spilt_m3 >= SPILT_M3 && (
        <Box color="stop" fontWeight="700">
          {text(spilt_m3, 'tankVolume')} come out on the way.
        </Box>
      )}
      <chakra.ul pl="5" my="2" fontSize="sm">
        {verdict.map(({ severity, says }, i) => (
          <chakra.li key={i} color={severity}>
            {messageText(says, reader)}
          </chakra.li>
        ))}
      </chakra.ul>
      <chakra.table
        width="100%"
        fontSize="sm"
        css={{ '& th, & td': { textAlign: 'left', padding: '4px 8px 4px 0', verticalAlign: 'top' } }}
      >
        <thead>
          <tr>
            <th scope="col">Has to stand</th>
            <th scope="col">to move it</th>
            <th scope="col">else</th>
          </tr>
        </thead>
        <tbody>
          {stands.map(({ id, name, moving, resting }) => (
            <chakra.tr key={id} borderTopWidth="1px" borderColor="rule">
              <chakra.th scope="row" fontWeight="400">
                {name}
              </chakra.th>
              <chakra.td fontWeight="700">{moving}</chakra.td>
              <td>{resting}</td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </>
  );
}

/** Less than this is nothing [m³/s]; less than the other is a drop [m³]. */
const MOVES_M3_PER_S = 1e-8;
const SPILT_M3 = 1e-6;
