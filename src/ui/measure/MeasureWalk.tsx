'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { toPath, valueAt, withValue, type Known, type SystemDocument } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { knownText } from '../fields/knownText';
import { measuredSpread } from '../fields/readEntry';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { applyEdit, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { noteTyping } from '../state/typing';
import { usePlace } from '../workspace/goTo';
import { pathWords } from './pathWords';

/** What the field of every reading is called. */
const READING = 'Reading';

const knownAt = (system: SystemDocument, path: string): Known | undefined =>
  valueAt(system, toPath(path)) as Known | undefined;

/**
 * The list of what is to be measured as a walk round the vehicle: one reading at a time, large; what is entered, or is
 * as assumed, leads on to the next.
 */
export function MeasureWalk({ paths, onEnd }: { readonly paths: readonly string[]; readonly onEnd: () => void }) {
  const system = useSystem();
  const reader = useReader();
  const goTo = usePlace((place) => place.goTo);
  const [at, setAt] = useState(0);
  const [open, setOpen] = useState<string>();
  const [last, setLast] = useState<string>();
  const field = useRef<HTMLDivElement>(null);
  // What has been removed meanwhile is no reading any more.
  const left = paths.filter((path) => knownAt(system, path) !== undefined);
  const isMeasured = (path: string): boolean => knownAt(system, path)?.origin === 'measured';
  const step = Math.min(at, left.length);
  const path = left[step];
  const known = path === undefined ? undefined : knownAt(system, path);
  // What stood here unmeasured and now is measured leads on; what one goes back to stays.
  if (path !== undefined && path !== open && !isMeasured(path)) setOpen(path);
  if (path !== undefined && path === open && isMeasured(path)) {
    setOpen(undefined);
    setLast(path);
    setAt(step + 1);
  }
  const taken = left.filter(isMeasured);
  useEffect(() => {
    field.current?.querySelector('input')?.focus();
  }, [path]);
  const asAssumed = (): void => {
    if (path === undefined || !known) return;
    const { role, label } = pathWords(system, toPath(path));
    applyEdit(`${label}: measured as assumed`, (current) =>
      withValue(current, toPath(path), {
        value: known.value,
        origin: 'measured',
        spread: measuredSpread(role, known.value, known.spread),
      }),
    );
  };
  const lastKnown = last !== undefined && isMeasured(last) ? knownAt(system, last) : undefined;
  return (
    <Panel title={path === undefined ? 'The walk is done' : `Reading ${step + 1} of ${left.length}`} testId="walk">
      <Box role="status" color="good" fontWeight="600" minH="1.5em" data-testid="walk-taken">
        {last !== undefined && lastKnown && (
          <>
            Taken: {pathWords(system, toPath(last)).owner}, {pathWords(system, toPath(last)).label}{' '}
            {knownText(lastKnown, pathWords(system, toPath(last)).role, reader)}
          </>
        )}
      </Box>
      {path !== undefined && known && (
        <>
          <Box fontSize="2xl" fontWeight="750" lineHeight="1.2" mb="2">
            {pathWords(system, toPath(path)).owner}: {pathWords(system, toPath(path)).label}
          </Box>
          <Box ref={field} maxW="420px" css={{ '& input': { fontSize: '28px', minHeight: '56px' } }}>
            {/* A field of its own each: what was typed for one is never entered for the next. */}
            <KnownField key={path} path={toPath(path)} label={READING} />
          </Box>
        </>
      )}
      {path === undefined && (
        <Box mb="2">
          {taken.length} of {left.length} taken{taken.length < left.length ? '; the rest stay as they were' : ''}.
        </Box>
      )}
      <Box display="flex" gap="2" flexWrap="wrap" mt="3">
        {path !== undefined && (
          <>
            {/* The field is not left first: what is half typed in it is dropped, and counts for no reading. */}
            <Box
              display="contents"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => noteTyping(READING, '')}
            >
              <Button kind="main" onClick={asAssumed}>
                It is as assumed
              </Button>
              <Button onClick={() => setAt(step + 1)}>Leave it</Button>
            </Box>
            <Button onClick={() => goTo(pathWords(system, toPath(path)).stage, toPath(path))}>Show where</Button>
          </>
        )}
        <Button onClick={() => setAt(step - 1)} disabled={step === 0}>
          Back
        </Button>
        <Button onClick={onEnd}>{path === undefined ? 'Back to the list' : 'End the walk'}</Button>
      </Box>
    </Panel>
  );
}
