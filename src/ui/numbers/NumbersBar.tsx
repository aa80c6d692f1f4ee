'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { SystemDocument } from '@/core/plan';
import { askedNumbers, NUMBER_KEYS, type NumberKey } from '@/core/answers';
import type { Results } from '@/core/answers';
import { useEditor } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails, useJudgedNow, useShown, useSpreads } from '../state/results';
import { figureIn, useKept, useKeptCard } from '../state/keptCard';
import { useWorkerNotice } from '../state/liveWorker';
import { usePlace } from '../workspace/goTo';
import { contextOf, type Tone } from './context';
import { Amount, Cell, Cells, countWords, FIGURE_SIZE, gravestTone, NO_SPREAD, NoNumber } from './cells';
import { numberLabels } from './labels';
import { WorkingPanel } from './WorkingPanel';

/** The four numbers, the gauge's error and the findings: always in sight. */
export function NumbersBar() {
  return (
    <FreshFrame>
      <Numbers />
    </FreshFrame>
  );
}

/** Marks the numbers as belonging to the document on screen or not, without drawing them again. */
function FreshFrame({ children }: { readonly children: React.ReactNode }) {
  const system = useEditor((state) => state.system);
  const fresh = useShown((shown) => shown.system === system && shown.results !== undefined);
  return (
    <section
      className="numbers"
      aria-label="The four numbers"
      aria-busy={!fresh}
      data-fresh={fresh}
      data-testid="numbers"
    >
      {children}
    </section>
  );
}

function Numbers() {
  const [open, setOpen] = useState<NumberKey>();
  const { results, system, broken } = useShown();
  const opened = useKept((kept) => kept.of);
  // Only what the job has; while nothing is known yet, all.
  const plan = system ?? opened;
  const keys = plan ? askedNumbers(plan) : NUMBER_KEYS;
  const toggle = (key: NumberKey): void => setOpen(open === key ? undefined : key);
  useEffect(() => {
    const close = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setOpen(undefined);
    };
    window.addEventListener('keydown', close);
    return () => window.removeEventListener('keydown', close);
  }, []);
  return (
    <Box bg="panel" borderBottomWidth="1px" borderColor="rule">
      <WorkerNotice />
      {broken && (
        <Box px="4" py="2" bg="stopBg" color="stop" role="alert">
          The calculation broke: {broken}. Undo the last change, or reload.
        </Box>
      )}
      {results?.ok === false && (
        <Box px="4" py="2" bg="stopBg" color="stop" role="alert">
          {results.error.detail}
        </Box>
      )}
      <Cells keys={keys}>
        {keys.map((key) => (
          <NumberButton
            key={key}
            numberKey={key}
            system={plan}
            results={results}
            open={open === key}
            onToggle={() => toggle(key)}
          />
        ))}
        <FindingsButton results={results} />
      </Cells>
      {results?.ok && system && <WhyNone results={results} system={system} />}
      {open && system && results?.ok && (
        <WorkingPanel
          numberKey={open}
          label={numberLabels(system)[open]}
          system={system}
          evaluation={results.evaluation}
          onClose={() => setOpen(undefined)}
        />
      )}
    </Box>
  );
}

/** On a phone, where the numbers stand in one line: why one of them is none. */
function WhyNone({
  results,
  system,
}: {
  readonly results: Extract<Results, { ok: true }>;
  readonly system: SystemDocument;
}) {
  const failed = askedNumbers(system).flatMap((key) => {
    const number = results.numbers[key];
    return number.ok ? [] : [`${numberLabels(system)[key]}: ${number.error.detail}`];
  });
  return (
    <Box display={{ base: 'block', md: 'none' }}>
      {failed.map((why) => (
        <Box key={why} px="3" pb="1" fontSize="sm" color="stop">
          {why}
        </Box>
      ))}
    </Box>
  );
}

/** A worker that has died is told once, until somebody closes it. */
function WorkerNotice() {
  const text = useWorkerNotice((notice) => notice.text);
  return (
    <Box role="status">
      {text && (
        <Box
          px="4"
          py="1"
          bg="warnBg"
          color="warn"
          fontWeight="600"
          display="flex"
          gap="3"
          alignItems="center"
          flexWrap="wrap"
          data-testid="worker-notice"
        >
          <Box flex="1">{text}</Box>
          <chakra.button
            type="button"
            onClick={() => useWorkerNotice.setState({ text: undefined })}
            minH="42px"
            px="3"
            cursor="pointer"
            textDecoration="underline"
          >
            Close
          </chakra.button>
        </Box>
      )}
    </Box>
  );
}

const TONE: Readonly<Record<Tone, string>> = { plain: 'soft', good: 'good', warn: 'warn', stop: 'stop' };

type ButtonProps = {
  readonly numberKey: NumberKey;
  readonly system: SystemDocument | undefined;
  readonly results: Results | undefined;
  readonly open: boolean;
  readonly onToggle: () => void;
};

function NumberButton({ numberKey, system, results, open, onToggle }: ButtonProps) {
  const reader = useReader();
  const { value: sensitivity, of: sensitivityOf, failed: spreadsFailed } = useSpreads();
  const failed = results?.ok === false;
  const number = results?.ok ? results.numbers[numberKey] : undefined;
  // What the page came with stands until it has been worked out once more.
  const broke = useShown(({ broken }) => broken !== undefined);
  const card = useKeptCard();
  const kept = broke ? undefined : figureIn(card, numberKey);
  const figure = results ? (number?.ok ? number.value : undefined) : kept;
  // Until the new spread is known the last one still tells how many digits the number deserves.
  const spread = sensitivity ? sensitivity.spreads[numberKey] : kept?.spread;
  const spreadIsFresh = sensitivity ? sensitivityOf === system : true;
  const hasNoSpread = sensitivity ? sensitivity.unknown.includes(numberKey) : kept?.hasNoSpread;
  const whyNoSpread = spreadsFailed ?? (hasNoSpread ? NO_SPREAD : undefined);
  const context = system && results?.ok ? contextOf(numberKey, system, results, reader) : undefined;
  return (
    <Cell open={open} onClick={onToggle} label={numberLabels(system)[numberKey]}>
      {figure ? (
        <Amount
          of={numberKey}
          number={figure}
          spread={spread}
          whyNoSpread={whyNoSpread}
          isFresh={spreadIsFresh}
          reader={reader}
        />
      ) : (
        <NoNumber of={numberKey} isOnItsWay={!number && !failed}>
          {number || failed ? 'none' : '…'}
        </NoNumber>
      )}
      <Box
        display={{ base: 'none', md: 'block' }}
        fontSize="sm"
        color={number && !number.ok ? 'stop' : TONE[context?.tone ?? 'plain']}
        lineHeight="1.2"
        mt="1"
        fontWeight={context && context.tone !== 'plain' ? '700' : '400'}
      >
        {number && !number.ok ? number.error.detail : (context?.text ?? ' ')}
      </Box>
    </Cell>
  );
}

function FindingsButton({ results }: { readonly results: Results | undefined }) {
  const goTo = usePlace((place) => place.goTo);
  const { findings, notJudged, onTheWay, failed } = useJudgedNow();
  // They come a frame or more after the numbers: until then none is not the same as nothing found.
  const looked = useDetails((details) => details.results !== undefined);
  const count = (severity: string): number => findings.filter((finding) => finding.severity === severity).length;
  const sure = onTheWay.length === 0 && failed.length === 0;
  // What the page came with stands until the rules have been gone through once more.
  const card = useKeptCard();
  const kept = sure || failed.length > 0 || card?.fails !== undefined ? undefined : card;
  const counts = kept ?? { stops: count('stop'), warns: count('warn'), notes: count('note') };
  const all = counts.stops + counts.warns + counts.notes;
  const color =
    !kept && (!looked || (!sure && all === 0)) ? 'soft' : gravestTone(counts, all + notJudged.length > 0 || !sure);
  const words = [
    ...countWords(counts),
    failed.length > 0 ? `${failed.length} not worked out` : '',
    onTheWay.length > 0 ? 'still looking…' : notJudged.length > 0 ? `${notJudged.length} not judged` : '',
  ].filter(Boolean);
  return (
    <Cell open={false} onClick={() => goTo('findings')} label="Findings">
      <Box
        data-testid="number-findings"
        data-sure={sure}
        fontSize={FIGURE_SIZE}
        fontWeight="750"
        lineHeight="1.05"
        color={color}
      >
        {kept || (results?.ok && looked && (all > 0 || sure)) ? all : '…'}
      </Box>
      <Box display={{ base: 'none', md: 'block' }} fontSize="sm" mt="1" color={failed.length > 0 ? 'stop' : 'soft'}>
        {!looked && !kept && failed.length === 0 ? 'looking…' : words.length > 0 ? words.join(' · ') : 'nothing found'}
      </Box>
    </Cell>
  );
}
