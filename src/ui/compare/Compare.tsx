'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { atConditionsOf, type SystemDocument } from '@/core/plan';
import { failure } from '@/core/outcome';
import type { ComparedFigure } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import type { Compared } from './compared';
import { Select } from '../fields/Select';
import { PageHead } from '../parts/PageHead';
import { useReader, useReaderStore } from '../state/reader';
import { askLane, URGENCY } from '../state/lanes';
import { DifferenceRows } from './DifferenceRows';
import { MOST_COMPARED, type Chosen, type Listed } from './chosen';
import { Silhouette } from './Silhouette';

/** Two or three systems side by side: what each does, and what differs between them. */
export function Compare({ all, chosen }: { readonly all: readonly Listed[]; readonly chosen: readonly Chosen[] }) {
  const router = useRouter();
  const [standing, setStanding] = useState<'first' | 'own'>('first');
  useEffect(() => void useReaderStore.persist.rehydrate(), []);
  const documents = useMemo(
    () =>
      chosen.map(({ document }, i) =>
        i > 0 && standing === 'first' ? atConditionsOf(document, chosen[0]!.document) : document,
      ),
    [chosen, standing],
  );
  const results = useCompared(documents);
  const put = (column: number, id: string): void => {
    const ids = chosen.map((entry) => entry.id);
    if (id === '') ids.splice(column, 1);
    else ids[column] = id;
    router.replace(`/compare?${[...new Set(ids)].map((each) => `with=${encodeURIComponent(each)}`).join('&')}`);
  };
  const columns = Math.min(MOST_COMPARED, chosen.length + 1);
  const grid = `minmax(150px, 0.8fr) repeat(${columns}, minmax(150px, 1fr))`;
  return (
    <Box maxW="1280px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead />
      <Box as="main">
        <Box display="flex" gap="3" alignItems="end" flexWrap="wrap" mb="4">
          <Heading as="h1" fontSize="2xl" fontWeight="800" flex="1">
            Compare
          </Heading>
          <Select
            label="Fill, slope and duty"
            width="240px"
            value={standing}
            options={[
              { value: 'first', label: 'as set in the first' },
              { value: 'own', label: 'as set in each' },
            ]}
            onChange={setStanding}
          />
        </Box>
        <Box
          overflowX="auto"
          bg="panel"
          borderWidth="1px"
          borderColor="rule"
          borderRadius="lg"
          p="3"
          tabIndex={0}
          role="region"
          aria-label="Systems side by side"
        >
          <Box minW={`${150 * (columns + 1)}px`}>
            <Box display="grid" gridTemplateColumns={grid} gap="3" alignItems="end" pb="3">
              <Box color="soft">{chosen.length < 2 ? 'Choose what to compare.' : 'Against the first'}</Box>
              {Array.from({ length: columns }, (_, column) => (
                <Choice key={column} column={column} all={all} chosen={chosen} onChoose={(id) => put(column, id)} />
              ))}
            </Box>
            <Box display="grid" gridTemplateColumns={grid} gap="3" pb="2">
              <Box color="soft" alignSelf="center">
                Side view, to one scale
              </Box>
              {chosen.map((entry, i) => (
                <Silhouette key={entry.id} compared={results[i]} all={results} />
              ))}
            </Box>
            <Figures results={results} grid={grid} />
            <Findings results={results} grid={grid} />
          </Box>
        </Box>
        {chosen.length > 1 && <DifferenceRows chosen={chosen} />}
      </Box>
    </Box>
  );
}

/** Results of each document, in order; undefined while they are on their way. */
function useCompared(documents: readonly SystemDocument[]): readonly (Compared | undefined)[] {
  const [found, setFound] = useState<{
    readonly of: readonly SystemDocument[];
    readonly results: readonly (Compared | undefined)[];
  }>({ of: [], results: [] });
  useEffect(() => {
    let current = true;
    void Promise.all(
      documents.map((document, i) => {
        const question = { slot: `compared ${i}`, key: 'compared', args: [], urgency: URGENCY.button } as const;
        return askLane(question, document).then(
          (given) => given?.value,
          (error: unknown): Compared => failure('broken', document.name, String(error)),
        );
      }),
    ).then((results) => current && setFound({ of: documents, results }));
    return () => {
      current = false;
    };
  }, [documents]);
  return documents.map((_, i) => (found.of === documents ? found.results[i] : undefined));
}

type ChoiceProps = {
  readonly column: number;
  readonly all: readonly Listed[];
  readonly chosen: readonly Chosen[];
  readonly onChoose: (id: string) => void;
};

function Choice({ column, all, chosen, onChoose }: ChoiceProps) {
  const own = chosen[column];
  const family = chosen[0] ? (chosen[0].variantOf ?? chosen[0].id) : '';
  const kin = (entry: Listed): boolean => entry.id === family || entry.variantOf === family;
  const free = all.filter((entry) => entry.id === own?.id || !chosen.some(({ id }) => id === entry.id));
  const options = [...free.filter(kin), ...free.filter((entry) => !kin(entry))].map(({ id, name }) => ({
    value: id,
    label: name,
  }));
  return (
    <Box minW="0">
      <Select
        label={column === 0 ? 'First' : column === 1 ? 'Second' : 'Third'}
        value={own?.id ?? ''}
        options={[{ value: '', label: column === 0 ? 'choose …' : 'none' }, ...options]}
        onChange={onChoose}
      />
      {own && (
        <Box fontSize="sm" mt="1">
          <Link href={`/systems/${own.id}`} style={{ textDecoration: 'underline' }}>
            Open it
          </Link>
        </Box>
      )}
    </Box>
  );
}

type TableProps = { readonly results: readonly (Compared | undefined)[]; readonly grid: string };

const figureOf = (compared: Compared | undefined, key: string): ComparedFigure | undefined =>
  compared?.ok ? compared.figures.find((figure) => figure.key === key) : undefined;

function Figures({ results, grid }: TableProps) {
  const reader = useReader();
  const labels = new Map(
    results.flatMap((compared) =>
      compared?.ok ? compared.figures.map(({ key, label }) => [key, label] as const) : [],
    ),
  );
  return [...labels].map(([key, label]) => (
    <Box
      key={key}
      display="grid"
      gridTemplateColumns={grid}
      gap="3"
      py="2"
      borderTopWidth="1px"
      borderColor="rule"
      alignItems="baseline"
      data-testid={`figure-${key}`}
    >
      <Box color="soft">{label}</Box>
      {results.map((compared, i) => {
        const figure = figureOf(compared, key);
        if (!figure)
          return (
            <Box key={i} color="soft">
              {compared ? (compared.ok ? 'not of this one' : i === 0 ? compared.error.detail : 'not worked out') : '…'}
            </Box>
          );
        return (
          <Box key={i} data-testid={`column-${i}`}>
            <Box fontSize="xl" fontWeight="750" lineHeight="1.2">
              {figure.value === undefined
                ? 'cannot be had'
                : formatQuantity(figure.value, figure.role, { reader }).text}
            </Box>
            {i > 0 && <Change figure={figure} base={figureOf(results[0], key)} />}
          </Box>
        );
      })}
    </Box>
  ));
}

/** Below this share two numbers are the same. */
const SAME_REL = 1e-3;

/** How much more or less than the first, and whether that is for the better. */
function Change({ figure, base }: { readonly figure: ComparedFigure; readonly base: ComparedFigure | undefined }) {
  const reader = useReader();
  if (figure.value === undefined || base?.value === undefined || figure.role !== base.role) return null;
  const by = figure.value - base.value;
  if (Math.abs(by) <= SAME_REL * Math.max(Math.abs(figure.value), Math.abs(base.value)))
    return (
      <Box fontSize="sm" color="soft">
        the same
      </Box>
    );
  const better = figure.better && by > 0 === (figure.better === 'more');
  const share =
    Math.abs(by) >= 0.005 * Math.abs(base.value) && base.value !== 0 && figure.role !== 'share'
      ? ` (${by > 0 ? '+' : '−'}${Math.abs((100 * by) / base.value).toFixed(0)} %)`
      : '';
  return (
    <Box fontSize="sm" fontWeight="650" color={figure.better === undefined ? 'ink' : better ? 'good' : 'warn'}>
      {by > 0 ? '+' : '−'}
      {formatQuantity(Math.abs(by), figure.role, { reader }).text}
      {share}
    </Box>
  );
}

const SEVERITIES = [
  ['stop', 'must be fixed', '■'],
  ['warn', 'to look at', '▲'],
  ['note', 'to know', '●'],
] as const;

function Findings({ results, grid }: TableProps) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={grid}
      gap="3"
      py="2"
      borderTopWidth="1px"
      borderColor="rule"
      alignItems="start"
    >
      <Box color="soft">Findings</Box>
      {results.map((compared, i) => {
        const others = new Set(
          results.flatMap((other, j) => (j !== i && other?.ok ? other.judged.findings.map(({ id }) => id) : [])),
        );
        return (
          <Box key={i}>
            {compared?.ok &&
              SEVERITIES.map(([severity, words, sign]) => {
                const count = compared.judged.findings.filter((finding) => finding.severity === severity).length;
                return (
                  count > 0 && (
                    <Box key={severity} fontWeight="650" color={severity}>
                      {sign} {count} {words}
                    </Box>
                  )
                );
              })}
            {compared?.ok && compared.judged.notJudged.length > 0 && (
              <Box fontSize="sm" color="soft">
                ? {compared.judged.notJudged.length} not judged
              </Box>
            )}
            {compared?.ok &&
              results.length > 1 &&
              [...new Set(compared.judged.findings.filter(({ id }) => !others.has(id)).map(({ title }) => title))].map(
                (title) => (
                  <Box key={title} fontSize="sm">
                    only here: {title}
                  </Box>
                ),
              )}
            {compared?.ok === false && <chakra.span color="stop">{compared.error.detail}</chakra.span>}
          </Box>
        );
      })}
    </Box>
  );
}
