'use client';

import { proxy, wrap, type Remote } from 'comlink';
import type { AnswerKey, AnswerOf, AskedOf, PlayNews, WayNews } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Judgement } from '@/core/rules';
import type { AnswersApi } from '@/workers/answers.worker';
import { liveWorker, type LiveWorker } from './liveWorker';

/** What comes of a question: the value, and what the rules say of it; nothing where it was left off. */
export type Given<K extends AnswerKey> =
  { readonly value: AnswerOf<K, Judgement>; readonly judged: Judgement | undefined } | undefined;

const make = () => {
  const worker = new Worker(new URL('../../workers/answers.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<AnswersApi>(worker) };
};

type Lane = LiveWorker<Remote<AnswersApi>>;

/**
 * Workers, each with all of the core: one for the numbers, which must wait for
 * nothing; one for all that takes longer, the most urgent first; where the
 * machine has room, another for a part of that; and one for searches that go on
 * until they are stopped.
 */
const LANES = {
  front: liveWorker<Remote<AnswersApi>>('the numbers', make),
  back: liveWorker<Remote<AnswersApi>>('what takes longer', make),
  beside: liveWorker<Remote<AnswersApi>>('what takes longer', make),
  search: liveWorker<Remote<AnswersApi>>('ways out', make, Infinity),
} as const satisfies Readonly<Record<string, Lane>>;

const LANE_OF: Partial<Readonly<Record<AnswerKey, keyof typeof LANES>>> = {
  numbers: 'front',
  moment: 'front',
  way: 'search',
  wayOrder: 'search',
};
/** About half of what is worked out at rest, and what shares least with the other half. */
const BESIDE: ReadonlySet<AnswerKey> = new Set(['spreads', 'mounts', 'stands']);
/** With fewer cores than this the page and the numbers would have to wait for it. */
const CORES_FOR_BESIDE = 4;
const hasRoom = (): boolean => (globalThis.navigator?.hardwareConcurrency ?? 1) >= CORES_FOR_BESIDE;
const laneOf = (key: AnswerKey): Lane => LANES[LANE_OF[key] ?? (BESIDE.has(key) && hasRoom() ? 'beside' : 'back')];

/** The sooner, the smaller. */
export const URGENCY = { now: 0, next: 1, button: 2, screen: 3, rest: 4 } as const;

/** Where a question stands in the queue: asked anew there, the older is left off. */
export type Question<K extends AnswerKey> = {
  readonly slot: string;
  readonly urgency: number;
  readonly key: K;
  readonly args: Readonly<AskedOf<K, Judgement>>;
};

/** Asks a worker. Ends with an answer, with nothing where it was left off, or with the reason why there is none. */
export const askLane = <K extends AnswerKey>(
  { slot, urgency, key, args }: Question<K>,
  system: SystemDocument,
): Promise<Given<K>> => {
  // A function among what is asked is called back from the worker.
  const [tell] = args.filter((arg) => typeof arg === 'function') as ((news: WayNews | PlayNews) => void)[];
  const plain = args.filter((arg) => typeof arg !== 'function');
  const { remote } = laneOf(key);
  return (
    tell ? remote.ask(slot, urgency, key, system, plain, proxy(tell)) : remote.ask(slot, urgency, key, system, plain)
  ) as Promise<Given<K>>;
};

/** Has workers leave off what nobody waits for. */
export function dropSlots(slots: readonly string[]): void {
  if (slots.length === 0) return;
  for (const lane of [LANES.front, LANES.back, LANES.beside])
    lane
      .running()
      ?.drop(slots)
      .catch(() => undefined);
}

/** Has the worker of the numbers loaded before anything is asked of it; on the server there is none. */
export function wakeNumbers(): void {
  if (typeof Worker !== 'undefined') LANES.front.wake();
}

/** Ends a search by ending the worker that runs it; the next question starts another. */
export const stopSearch = (): void => LANES.search.stop();

/** For what is asked of no system: a file that is read, a document that is looked through. */
export const helper = (): Remote<AnswersApi> => LANES.back.remote;
