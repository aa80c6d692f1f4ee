'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { ReachAnswer, ReachWhen } from '@/core/answers';
import type { Vec3 } from '@/core/geometry';
import { useAnswer } from '../state/answers';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { FitViews, movingOf } from './FitViews';
import { reachWords, whenWords } from './reachWords';
import { SpotRows } from './SpotRows';

/** Worst first, as they are listed. */
const ORDER: readonly ReachWhen[] = ['never', 'bench', 'uncovered', 'fitted'];
const TONES = { never: 'stop', bench: 'warn', uncovered: undefined, fitted: 'good' } as const;
const keyOf = ({ id, job }: ReachAnswer): string => `${id} ${job}`;

/**
 * Whether hands and tools get to everything that is tightened, filled, welded or read; a press shows the tool in the
 * drawing.
 */
export function ReachPanel() {
  const sides = useSides();
  const reader = useReader();
  const { value: reach, standing, reason } = useAnswer('reach');
  const fresh = standing === 'fresh';
  const [chosen, setChosen] = useState<string>();
  const answers = reach?.ok ? reach.value : undefined;
  const { tanks, mounts } = useSystem();
  const bearers = new Set(mounts.flatMap(({ id, kind }) => (kind === 'cradle' ? [id] : [])));
  const called = ({ name, tank }: ReachAnswer): string =>
    tanks.length > 1 ? `${name} of ${tanks.find(({ id }) => id === tank)?.name}` : name;
  // A seam of the tank is welded on the bench in any case: only one that cannot be is worth a line of its own.
  const isPlain = ({ job, when, tank }: ReachAnswer): boolean =>
    job === 'weld' && when === 'bench' && tank !== undefined;
  // Under the tank they always are.
  const isUnder = ({ id, when }: ReachAnswer): boolean => when === 'bench' && bearers.has(id);
  const rows =
    answers
      ?.filter((answer) => !isPlain(answer) && !isUnder(answer))
      .sort((a, b) => ORDER.indexOf(a.when) - ORDER.indexOf(b.when)) ?? [];
  const seams = answers?.filter(isPlain) ?? [];
  const under = answers?.filter(isUnder) ?? [];
  const outOfReach = rows.filter(({ isMount, when }) => isMount && when === 'never');
  const row = (answer: ReachAnswer) => (
    <Box key={keyOf(answer)} borderTopWidth="1px" borderColor="rule">
      <chakra.button
        type="button"
        aria-expanded={keyOf(answer) === chosen}
        disabled={!answer.at}
        onClick={() => setChosen(keyOf(answer) === chosen ? undefined : keyOf(answer))}
        display="grid"
        gridTemplateColumns={{ base: '1fr', md: 'minmax(170px, 1fr) minmax(150px, 190px) 2fr' }}
        columnGap="3"
        width="100%"
        textAlign="left"
        minH="42px"
        py="1.5"
        px="2"
        bg={keyOf(answer) === chosen ? 'sunk' : undefined}
        cursor={answer.at ? 'pointer' : 'default'}
        data-testid={`reach-${answer.id}-${answer.job}`}
      >
        <Box fontWeight="650">{answer.isMount ? `Bolts of ${called(answer)}` : answer.name}</Box>
        <Box fontWeight="700" color={TONES[answer.when]}>
          {whenWords(answer)}
        </Box>
        <Box>{reachWords(answer, sides, reader)}</Box>
      </chakra.button>
      {keyOf(answer) === chosen && answer.at && <FitViews tool={movingOf('', answer.at.solids.map(pointsOf))} />}
    </Box>
  );
  const short = rows.filter(({ when }) => when === 'never' || when === 'bench').length;
  return (
    <Panel title="Can it be reached?" testId="reach">
      {reason !== undefined && <NotWorkedOut why={reason} />}
      {!reach && reason === undefined && (
        <Box color="soft">{fresh ? 'Say what the space is, or name a place below.' : 'Trying hands and tools…'}</Box>
      )}
      {reach && !reach.ok && (
        <Box color="stop" fontWeight="600">
          It cannot be worked out: {reach.error.at}: {reach.error.detail}
        </Box>
      )}
      {answers && (
        <Box opacity={fresh ? 1 : 0.6}>
          <Box
            fontSize="xl"
            fontWeight="750"
            color={short > 0 ? 'warn' : 'good'}
            mb="1"
            data-testid="reach-sum"
            data-fresh={fresh}
          >
            {short === 0
              ? 'Everything can be reached with the tank in'
              : `${short} of ${rows.length} cannot be reached with the tank in`}
          </Box>
          <Box color="soft" mb="2">
            A spanner must turn 30°, with a straight arm and hand on it. Moving obstacles stand where they rest. Press a
            line to see the tool there.
          </Box>
          {rows.filter(({ isMount }) => !isMount).map(row)}
          {answers.some(({ isMount }) => isMount) && (
            <chakra.details borderTopWidth="1px" borderColor="rule">
              <chakra.summary minH="42px" py="2" px="2" cursor="pointer">
                <b>Bolts of what holds it:</b>{' '}
                {outOfReach.length === 0
                  ? 'a tool gets to all of them'
                  : `no tool gets to every bolt of ${outOfReach.map(called).join(', ')}`}
              </chakra.summary>
              {rows.filter(({ isMount }) => isMount).map(row)}
              {under.length > 0 && (
                <Box borderTopWidth="1px" borderColor="rule" pt="2" pb="2" px="2" color="soft">
                  Put in before the tank, which lies over them: bolts of {under.map(called).join(', ')}.
                </Box>
              )}
            </chakra.details>
          )}
          {seams.length > 0 && (
            <Box borderTopWidth="1px" borderColor="rule" pt="2" px="2" color="soft">
              A torch gets all round {seams.length === 1 ? 'the seam of' : `the ${seams.length} seams of`}{' '}
              {seams.map(({ name }) => name).join(', ')} on the bench.
            </Box>
          )}
        </Box>
      )}
      <SpotRows />
    </Panel>
  );
}

const pointsOf = (solid: Float32Array): Vec3[] =>
  Array.from({ length: solid.length / 3 }, (_, i): Vec3 => [solid[3 * i]!, solid[3 * i + 1]!, solid[3 * i + 2]!]);
