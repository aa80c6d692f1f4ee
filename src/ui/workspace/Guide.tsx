'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import type { NumberKey, Numbers, Results } from '@/core/answers';
import { samePlan, valueAt, type SystemDocument } from '@/core/plan';
import { pathWords } from '../measure/pathWords';
import { numberLabels } from '../numbers/labels';
import { useAnswer, useCame } from '../state/answers';
import { openDocument, undoEdit, useDrawnSystem, useEditor, useHistory } from '../state/editor';
import { useReader } from '../state/reader';
import { useSpreads } from '../state/results';
import { movedText, movesBetween } from './changes';
import { usePlace } from './goTo';

type At = { readonly system: SystemDocument; readonly numbers: Numbers | undefined };
type Change = { readonly edit: string; readonly before: At; readonly after: At };

const useChange = create<{ readonly change: Change | undefined }>()(() => ({ change: undefined }));

/** Edits that follow each other within this time are one change: a value held down or dragged. */
const ONE_CHANGE_MS = 1500;
/** The strip waits so long for the page to have drawn the numbers themselves. */
const AFTER_MS = 80;
/** A reader of the screen is told when nothing has changed for so long. */
const SPOKEN_AFTER_MS = 1000;

/** Follows the numbers from document to document, as long as one system is open. */
function followChanges(): () => void {
  let [before, last, at]: [At | undefined, At | undefined, number] = [undefined, undefined, 0];
  let [named, undone, steps] = ['', 0, 0];
  let timer: ReturnType<typeof setTimeout> | undefined;
  useChange.setState({ change: undefined });
  const look = (): void => {
    const { numbers } = useCame.getState();
    const { system, edit } = useEditor.getState();
    if (!system || !numbers || numbers.of !== system || numbers.failed !== undefined) return;
    if (last?.system === system) return;
    const { pastStates, futureStates } = useEditor.temporal.getState();
    const name = futureStates.length > undone ? `undone, ${futureStates.at(-1)?.edit ?? ''}` : edit;
    // What was amended is the same step of undo, and its numbers are told from before all of it.
    const isAmended =
      last !== undefined &&
      pastStates.length === steps &&
      futureStates.length === undone &&
      !samePlan(last.system, system);
    [undone, steps] = [futureStates.length, pastStates.length];
    const results = numbers.value as Results | undefined;
    const now: At = { system, numbers: results?.ok ? results.numbers : undefined };
    const isFirst = last === undefined;
    if (!before || (!isAmended && (name !== named || Date.now() - at > ONE_CHANGE_MS))) before = last ?? now;
    [at, named] = [Date.now(), name];
    last = now;
    if (isFirst) return;
    const change: Change = { edit: samePlan(before.system, now.system) ? 'Conditions' : name, before, after: now };
    clearTimeout(timer);
    timer = setTimeout(() => useChange.setState({ change }), AFTER_MS);
  };
  const stop = useCame.subscribe(look);
  return () => {
    stop();
    clearTimeout(timer);
  };
}

/** One line under the numbers: what the last change moved, and what is worth doing next. */
export function Guide({ id }: { readonly id: string }) {
  useEffect(() => followChanges(), [id]);
  return (
    <Box
      className="no-print"
      bg="panel"
      // On a phone it lies under the thumb, and takes no room from the work.
      position={{ base: 'fixed', lg: 'static' }}
      insetX="0"
      bottom="0"
      zIndex={{ base: 9, lg: 'auto' }}
      borderTopWidth={{ base: '1px', lg: '0' }}
      borderBottomWidth={{ base: '0', lg: '1px' }}
      borderColor="rule"
      px={{ base: '3', lg: '4' }}
      minH="36px"
      display="flex"
      columnGap="5"
      alignItems="center"
      flexWrap={{ base: 'wrap', lg: 'nowrap' }}
      fontSize="sm"
    >
      <LastChange />
      <Next />
    </Box>
  );
}

const capital = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`;

function LastChange() {
  const reader = useReader();
  const change = useChange((state) => state.change);
  const { undoes } = useHistory();
  const { value: sensitivity } = useSpreads();
  const moves = change
    ? movesBetween(
        change.before.numbers,
        change.after.numbers,
        reader,
        sensitivity?.spreads,
        numberLabels(openDocument()),
      )
    : [];
  const words = moves.length > 0 ? moves.map(movedText).join(', ') : 'no number moved';
  const text = change ? `${capital(change.edit)}: ${words}` : '';
  const spoken = useLater(text, SPOKEN_AFTER_MS);
  const isPlanned = change !== undefined && !samePlan(change.before.system, change.after.system);
  return (
    <>
      {/* A live region is there before it speaks. */}
      <Box as="span" srOnly role="status" data-testid="change-spoken">
        {spoken}
      </Box>
      {change && (
        <Box display="flex" gap="2" alignItems="center" minW="0" flex="1 1 auto">
          <Box data-testid="change" minW="0" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap" title={text}>
            <Box as="span" color="soft">
              {capital(change.edit)}:{' '}
            </Box>
            <b>{words}</b>
          </Box>
          {isPlanned && undoes !== '' && (
            <chakra.button
              type="button"
              onClick={undoEdit}
              color="accent"
              fontWeight="650"
              minH="32px"
              px="2"
              cursor="pointer"
              textDecoration="underline"
              data-testid="change-undo"
            >
              Undo
            </chakra.button>
          )}
        </Box>
      )}
    </>
  );
}

/** A text when it has stayed the same for some time. */
function useLater(text: string, after_ms: number): string {
  const [later, setLater] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setLater(text), after_ms);
    return () => clearTimeout(timer);
  }, [text, after_ms]);
  return later;
}

/** The measurement that moves the numbers most, and the way to it. */
function Next() {
  const system = useDrawnSystem();
  const goTo = usePlace((place) => place.goTo);
  const { value, standing, reason } = useAnswer('spreads');
  if (!system) return null;
  const next = (value?.influences ?? []).find(
    ({ origin, path, score }) => origin === 'assumed' && score > 0 && valueAt(system, path) !== undefined,
  );
  const isKnown = standing === 'fresh';
  if (!next)
    return (
      <Box color="soft" ml={{ lg: 'auto' }} whiteSpace="nowrap">
        {reason !== undefined
          ? 'Next: not worked out'
          : isKnown
            ? 'Next: nothing that is assumed moves a number'
            : 'Next: working out what matters…'}
      </Box>
    );
  const words = pathWords(system, next.path);
  const [key] = Object.entries(next.moves).sort(([, a], [, b]) => Math.abs(b) - Math.abs(a))[0] ?? [];
  return (
    <chakra.button
      type="button"
      onClick={() => goTo(words.stage, next.path)}
      ml={{ lg: 'auto' }}
      minH="32px"
      px="1"
      cursor="pointer"
      textAlign="left"
      opacity={isKnown ? 1 : 0.6}
      data-testid="next"
      whiteSpace={{ lg: 'nowrap' }}
      title={key ? `It moves ${numberLabels(openDocument())[key as NumberKey]} most` : undefined}
    >
      <Box as="span" color="soft">
        Next: measure{' '}
      </Box>
      <Box as="b" color="accent" textDecoration="underline">
        {words.owner}: {words.label}
      </Box>
    </chakra.button>
  );
}
