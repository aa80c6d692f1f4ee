'use client';

import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { create } from 'zustand';
import {
  ANSWER_KEYS,
  ANSWERS,
  findingsHoldFor,
  holdsFor,
  type AnswerKey,
  type AnswerOf,
  type AskedOf,
} from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Judgement } from '@/core/rules';
import { failure } from '@/core/outcome';
import { askLane, dropSlots, stopSearch, URGENCY, type Question } from './lanes';
import { drawDocument, openDocument, useDrawnSystem, useEditor } from './editor';

/** What came last to a question. */
export type Came = {
  readonly key: AnswerKey;
  /** The document that it was asked of. */
  readonly of: SystemDocument;
  readonly value: unknown;
  readonly judged: Judgement | undefined;
  /** Why there is no answer. */
  readonly failed: string | undefined;
};

/** By slot. The one place where answers to the open document are kept. */
export const useCame = create<Readonly<Record<string, Came | undefined>>>()(() => ({}));

/**
 * How an answer stands: it belongs to the document on screen; it belongs to an
 * older one and another is on its way; the first is on its way; there is none.
 */
export type Standing = 'fresh' | 'stale' | 'on its way' | 'failed';

export type Answer<T> = {
  readonly standing: Standing;
  /** The last that came. */
  readonly value: T | undefined;
  /** Why there is none, where it failed. */
  readonly reason: string | undefined;
};

/** Whether what came holds for a document. */
const holds = (came: Came | undefined, system: SystemDocument | undefined): boolean =>
  came !== undefined && system !== undefined && holdsFor(came.key, came.of, system);

export function standingOf(came: Came | undefined, system: SystemDocument | undefined): Standing {
  if (!came) return 'on its way';
  if (!holds(came, system)) return came.value === undefined ? 'on its way' : 'stale';
  return came.failed === undefined ? 'fresh' : 'failed';
}

type Wanted = Question<AnswerKey> & { readonly wanted: number };

/** Answers that are wanted whatever is on screen, since findings and numbers hang on them: in the table's order. */
const ALWAYS = ANSWER_KEYS.filter((key) => ANSWERS[key].cost !== 'now' && ANSWERS[key].cost !== 'asked');
export const question = (key: AnswerKey, args: readonly unknown[], urgency: number): Question<AnswerKey> => ({
  slot: slotOf(key, args),
  urgency,
  key,
  args: args as never,
});
/** What nobody looks at: in the order of the list. */
const unseen = (key: AnswerKey): number => URGENCY.rest + ALWAYS.indexOf(key);
const wanted = new Map<string, Wanted>(ALWAYS.map((key) => [key, { ...question(key, [], unseen(key)), wanted: 1 }]));

/** The same question is the same slot. */
export function slotOf(key: AnswerKey, args: readonly unknown[]): string {
  return args.length === 0 ? key : `${key} ${JSON.stringify(args)}`;
}

/** The document that was asked of each slot last: what comes of an older one is nobody's. */
const asked = new Map<string, SystemDocument>();
/** What workers were told to leave off since: undone, the same document is asked of again. */
const leftOff = new Set<string>();

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Puts a question for a document; what comes stands in the store. */
async function ask(put: Question<AnswerKey>, system: SystemDocument): Promise<void> {
  const { slot, key } = put;
  asked.set(slot, system);
  leftOff.delete(slot);
  const come = (came: Omit<Came, 'key' | 'of'>): void => {
    if (asked.get(slot) === system) useCame.setState({ [slot]: { key, of: system, ...came } });
  };
  try {
    const given = await askLane(put, system);
    if (given) come({ ...given, failed: undefined });
  } catch (error) {
    come({ value: undefined, judged: undefined, failed: reason(error) });
  }
}

/** What failed is tried again with the next edit, whatever that is; rules read more of the plan than their answer. */
const isSettled = (slot: string, key: AnswerKey, system: SystemDocument): boolean => {
  const came = useCame.getState()[slot];
  if (!came || came.failed !== undefined) return came?.of === system;
  return (ANSWERS[key].judged ? findingsHoldFor : holdsFor)(key, came.of, system);
};

/** Asks for all that is wanted and is not there yet, or on its way. */
function askWanted(system: SystemDocument): void {
  for (const put of wanted.values()) {
    const isNext = ANSWERS[put.key].cost === 'next';
    if (isNext || isSettled(put.slot, put.key, system)) continue;
    if (asked.get(put.slot) === system && !leftOff.has(put.slot)) continue;
    void ask(put, system);
  }
}

/** When the next frame has been shown. */
const painted = (): Promise<void> =>
  new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve))));

const NUMBERS = question('numbers', [], URGENCY.now);
const DETAILS = question('details', [], URGENCY.next);

let numbersOf: SystemDocument | undefined;
let waiting: SystemDocument | undefined;

/**
 * Has the numbers worked out, of one document after the other and, where newer
 * ones came in meanwhile, of the newest: those that are under way are finished,
 * so that something moves while a value is held down.
 */
async function followWithNumbers(system: SystemDocument): Promise<void> {
  waiting = system;
  if (numbersOf) return;
  while (waiting) {
    const one: SystemDocument = waiting;
    numbersOf = one;
    waiting = undefined;
    await ask(NUMBERS, one);
    // The numbers of a newer document do not wait for these to be shown.
    void painted().then(() => {
      if (useEditor.getState().system !== one) return;
      void ask(DETAILS, one);
      // While the worker is at the drawings, the page is at the stage.
      drawDocument();
    });
  }
  numbersOf = undefined;
}

/** So long after the last edit what takes longer is begun: until then the numbers have the machine to themselves. */
const RESTED_MS = 300;
let rest: ReturnType<typeof setTimeout> | undefined;

function follow({ system }: { readonly system: SystemDocument | undefined }): void {
  if (!system || system === followed) return;
  followed = system;
  // What is at work on an older document leaves the machine to this one.
  const old = [...wanted.values()].filter(({ slot, key }) => !isSettled(slot, key, system)).map(({ slot }) => slot);
  for (const slot of old) leftOff.add(slot);
  dropSlots(old);
  void followWithNumbers(system);
  clearTimeout(rest);
  rest = setTimeout(() => askWanted(system), RESTED_MS);
}
let followed: SystemDocument | undefined;

/**
 * Keeps answers in step with the open document, from the change itself, before anything is drawn. Gives back what ends
 * it.
 */
export function followEditor(): () => void {
  follow(useEditor.getState());
  const unsubscribe = useEditor.subscribe(follow);
  return () => {
    unsubscribe();
    clearTimeout(rest);
    followed = undefined;
  };
}
export const useEvaluation = (): void => useEffect(followEditor, []);

/** Forgets what came of another system. */
export function forgetAnswers(): void {
  asked.clear();
  leftOff.clear();
  followed = undefined;
  useCame.setState({}, true);
}

/** Has a question asked as long as somebody looks at its answer. */
export function want(put: Question<AnswerKey>): () => void {
  const before = wanted.get(put.slot);
  wanted.set(put.slot, { ...put, wanted: (before?.wanted ?? 0) + 1 });
  const { system } = useEditor.getState();
  // While edits go on it is asked for with the rest.
  if (system && system === followed && !before && !isSettled(put.slot, put.key, system)) void ask(put, system);
  return () => {
    const now = wanted.get(put.slot);
    if (!now) return;
    if (now.wanted > 1) {
      const urgency = now.wanted === 2 && ALWAYS.includes(put.key) ? unseen(put.key) : now.urgency;
      return void wanted.set(put.slot, { ...now, urgency, wanted: now.wanted - 1 });
    }
    wanted.delete(put.slot);
    asked.delete(put.slot);
    dropSlots([put.slot]);
  };
}

/**
 * An answer of the table to the open document, asked for as long as it is
 * looked at, before what is not on screen; with what is asked beside the document.
 */
export function useAnswer<K extends AnswerKey>(key: K, ...args: AskedOf<K, Judgement>): Answer<AnswerOf<K, Judgement>> {
  const slot = slotOf(key, args);
  useEffect(
    () => want(question(key, args, URGENCY.screen)),
    // The slot says all that is asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [slot],
  );
  const came = useCame((all) => all[slot]);
  const open = useDrawnSystem();
  // Where something else is asked, what was there stands as old until that has come.
  const [kept, keep] = useState(came);
  if (came && came !== kept) keep(came);
  return useMemo(
    () => ({
      standing: came || !kept ? standingOf(came, open) : 'stale',
      value: (came ?? kept)?.value as AnswerOf<K, Judgement> | undefined,
      reason: came?.failed,
    }),
    [came, kept, open],
  );
}

/** The same of an answer that is an outcome; one that broke is a failure with the reason. */
export function useOutcome<K extends AnswerKey>(
  key: K,
  ...args: AskedOf<K, Judgement>
): { readonly value: AnswerOf<K, Judgement> | Broken | undefined; readonly fresh: boolean } {
  const { standing, value, reason: why } = useAnswer(key, ...args);
  return { value: why === undefined ? value : broken(why), fresh: standing === 'fresh' || standing === 'failed' };
}

export type Asked<K extends AnswerKey> = {
  readonly running: boolean;
  /** The last answer, and whether it belongs to the document on screen. */
  readonly answer: AnswerOf<K, Judgement> | Broken | undefined;
  readonly fresh: boolean;
  /** Calls back with the answer, where one comes. */
  readonly ask: (...args: AskedOf<K, Judgement>) => Promise<AnswerOf<K, Judgement> | Broken | undefined>;
  readonly stop: () => void;
  readonly forget: () => void;
};
type Broken = ReturnType<typeof broken>;
const broken = (why: string) => failure('broken', 'calculation', `The calculation broke: ${why}`);

/**
 * An answer of the table that takes a while and is asked for by a button; an
 * old one is known as old.
 */
export function useAsked<K extends AnswerKey>(key: K): Asked<K> {
  const open = useDrawnSystem();
  const id = useId();
  const turn = useRef(0);
  const [running, setRunning] = useState(false);
  const [shown, setShown] = useState<{ readonly of: SystemDocument; readonly answer: Asked<K>['answer'] }>();
  const slot = `${key} ${id}`;
  return {
    running,
    answer: shown?.answer,
    fresh: shown !== undefined && open !== undefined && holdsFor(key, shown.of, open),
    ask: async (...args) => {
      const system = openDocument();
      const mine = ++turn.current;
      setRunning(true);
      const given = await askLane({ slot, urgency: URGENCY.button, key, args }, system).catch((error: unknown) => ({
        value: broken(reason(error)),
      }));
      // What was stopped, or asked anew since, is nobody's answer any more.
      if (mine !== turn.current || !given) return undefined;
      setRunning(false);
      setShown({ of: system, answer: given.value as Asked<K>['answer'] });
      return given.value as Asked<K>['answer'];
    },
    stop: () => {
      turn.current++;
      setRunning(false);
      dropSlots([slot]);
      if (key === 'way' || key === 'wayOrder') stopSearch();
    },
    forget: () => setShown(undefined),
  };
}
