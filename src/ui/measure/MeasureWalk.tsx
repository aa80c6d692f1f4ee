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
import { usePlace } from '../workspace/goTo';
import { pathWords } from './pathWords';

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
  const [taken, setTaken] = useState<readonly string[]>([]);
  const field = useRef<HTMLDivElement>(null);
  // What has been removed meanwhile is no reading any more.
  const left = paths.filter((path) => knownAt(system, path) !== undefined);
  const step = Math.min(at, left.length);
  const path = left[step];
  const known = path === undefined ? undefined : knownAt(system, path);
  // A value that is entered is measured: on to the next, once.
  if (path !== undefined && known?.origin === 'measured' && !taken.includes(path)) {
    setTaken([...taken, path]);
    setAt(step + 1);
  }
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
  const last = taken.at(-1);
  const lastKnown = last === undefined ? undefined : knownAt(system, last);
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
            <KnownField path={toPath(path)} label="Reading" />
          </Box>
        </>
      )}
      {path === undefined && (
        <Box mb="2">
          {taken.length} of {paths.length} taken{taken.length < paths.length ? '; the rest stay assumed' : ''}.
        </Box>
      )}
      <Box display="flex" gap="2" flexWrap="wrap" mt="3">
        {path !== undefined && (
          <>
            <Button kind="main" onClick={asAssumed}>
              It is as assumed
            </Button>
            <Button onClick={() => setAt(step + 1)}>Leave it</Button>
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
