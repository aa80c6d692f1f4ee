'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { valueAt } from '@/core/plan';
import { NUMBER_KEYS, numbersOf, type Influence } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { ruleOfKey } from '@/core/rules';
import { knownText } from '../fields/knownText';
import { numberLabels } from '../numbers/labels';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useAnswer } from '../state/answers';
import { useDetails } from '../state/results';
import { usePlace } from '../workspace/goTo';
import { MeasureWalk } from './MeasureWalk';
import { pathWords } from './pathWords';

/** Below this share of a number an assumption is not worth the walk. */
const TELLING = 0.002;
export function MeasureNext() {
  const system = useSystem();
  const { value: sensitivity, standing, reason: failed } = useAnswer('spreads');
  const waiting = standing !== 'fresh' && standing !== 'failed';
  const influences = (sensitivity?.influences ?? []).filter(
    (influence) => valueAt(system, influence.path) !== undefined,
  );
  const assumptions = influences.filter((influence) => influence.origin === 'assumed');
  const telling = assumptions.filter((influence) => influence.score >= TELLING);
  const others = influences.filter((influence) => influence.origin !== 'assumed' && influence.score >= TELLING);
  const [walk, setWalk] = useState<readonly string[]>();
  if (walk) return <MeasureWalk paths={walk} onEnd={() => setWalk(undefined)} />;
  return (
    <Box display="grid" gap="4" aria-busy={waiting} opacity={waiting ? 0.7 : 1}>
      <Panel
        title="Measure next"
        {...(telling.length > 0
          ? {
              aside: (
                <Button kind="main" onClick={() => setWalk(telling.map(({ path }) => path.join('.')))}>
                  Walk through them
                </Button>
              ),
            }
          : {})}
      >
        <Box color="soft" mb="3">
          What is still assumed, in the order in which it moves the four numbers and the findings. Measure from the top;
          stop when the numbers are good enough.
        </Box>
        {failed !== undefined && (
          <Box color="stop" fontWeight="600" role="status">
            Not worked out: {failed}. The next edit tries again.
          </Box>
        )}
        {!sensitivity && failed === undefined && <Box color="soft">Working out what matters…</Box>}
        {sensitivity && !waiting && telling.length === 0 && (
          <Box color="good" fontWeight="600">
            Nothing that is still assumed moves a number.
          </Box>
        )}
        <InfluenceList influences={telling} numbered />
        {assumptions.length > telling.length && (
          <Box fontSize="sm" color="soft" mt="3">
            {assumptions.length - telling.length} more assumptions move nothing worth measuring.
          </Box>
        )}
      </Panel>
      {others.length > 0 && (
        <Panel title="Known, but not exactly">
          <InfluenceList influences={others.slice(0, 8)} />
        </Panel>
      )}
    </Box>
  );
}

function InfluenceList({
  influences,
  numbered,
}: {
  readonly influences: readonly Influence[];
  readonly numbered?: boolean;
}) {
  return (
    <Box as="ol" listStyleType="none" display="grid" gap="2">
      {influences.map((influence, index) => (
        <InfluenceRow key={influence.path.join('.')} influence={influence} index={numbered ? index + 1 : undefined} />
      ))}
    </Box>
  );
}

function InfluenceRow({ influence, index }: { readonly influence: Influence; readonly index: number | undefined }) {
  const system = useSystem();
  const reader = useReader();
  const goTo = usePlace((place) => place.goTo);
  const { results } = useDetails();
  const words = pathWords(system, influence.path);
  const numbers = results?.ok ? numbersOf(system, results.evaluation) : undefined;
  const moves = NUMBER_KEYS.flatMap((key) => {
    const number = numbers?.[key];
    const move = influence.moves[key] ?? 0;
    if (!number?.ok || move < 1e-3 * Math.max(Math.abs(number.value.value), key === 'gauge' ? 1 : 0)) return [];
    return [
      `${numberLabels(system)[key]} ± ${formatQuantity(move, number.value.role, { reader, digits: 2, unitOf: number.value.value }).text}`,
    ];
  });
  const changes = [...new Set(influence.findings.map((key) => ruleOfKey(key)?.title ?? key))];
  return (
    <Box as="li">
      <chakra.button
        type="button"
        onClick={() => goTo(words.stage, influence.path)}
        data-testid="measure-row"
        width="100%"
        textAlign="left"
        cursor="pointer"
        display="grid"
        gridTemplateColumns="auto 1fr"
        columnGap="3"
        borderWidth="1px"
        borderColor="rule"
        borderRadius="md"
        px="3"
        py="2"
        _hover={{ bg: 'sunk' }}
      >
        <Box fontSize="2xl" fontWeight="750" minW="1.6em" gridRow="span 2" color="soft">
          {index ?? '·'}
        </Box>
        <Box display="flex" justifyContent="space-between" gap="3" flexWrap="wrap" fontWeight="700">
          <Box>
            {words.owner}: {words.label}
          </Box>
          <Box whiteSpace="nowrap">{knownText(influence, words.role, reader)}</Box>
        </Box>
        <Box fontSize="sm" color="soft">
          {moves.join(' · ')}
          {influence.lost.length > 0 && (
            <Box as="span" color="warn" fontWeight="600">
              {moves.length > 0 ? ' · ' : ''}at an end of it there is no{' '}
              {influence.lost.map((key) => numberLabels(system)[key]).join(', ')}
            </Box>
          )}
          {changes.length > 0 && (
            <Box as="span" color="warn" fontWeight="600">
              {moves.length > 0 ? ' · ' : ''}decides: {changes.join(', ')}
            </Box>
          )}
        </Box>
      </chakra.button>
    </Box>
  );
}
