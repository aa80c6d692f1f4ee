import { expose } from 'comlink';
import { stlShape, unsavable, type StlShape, type SystemDocument } from '@/core/plan';
import { ANSWERS, answerWork, type AnswerKey, type PlayNews, type WayNews } from '@/core/answers';
import type { StlUnit } from '@/core/formats';
import { loadKernel } from '@/core/geometry';
import type { Outcome } from '@/core/outcome';
import { findingKeys, judge, judgedBy, type Judgement } from '@/core/rules';
import type { Steps } from '@/core/steps';
import { workQueue } from './queue';
import { receiving } from './sent';

/** An answer, and what the rules say that read it. */
export type Given = { readonly value: unknown; readonly judged: Judgement | undefined };

const ready = loadKernel();
const queue = workQueue();
const WORK = answerWork({ judge, findingKeys });

/** As much of a document as an answer may read. */
const readBy = (key: AnswerKey, system: SystemDocument): Partial<SystemDocument> =>
  Object.fromEntries(ANSWERS[key].reads.map((part) => [part, system[part]]));

const TELL_EVERY_MS = 250;
type News = WayNews | PlayNews;
type Tell = (news: News) => void;

/** Tells no more often than can be read, and since when; what opens a way at once. */
function seldom(tell: Tell): Tell {
  const from = performance.now();
  let told = 0;
  return (news) => {
    if (news.progress && performance.now() - told < TELL_EVERY_MS) return;
    told = performance.now();
    tell({ ...news, seconds: (told - from) / 1000 });
  };
}

function* given(key: AnswerKey, system: SystemDocument, args: readonly unknown[]): Steps<Given> {
  const work = WORK[key] as (of: unknown, ...args: readonly unknown[]) => Steps<unknown>;
  const value = yield* work(readBy(key, system), ...args);
  return { value, judged: judgedBy(key, system, value) };
}

const api = {
  /**
   * An answer of the table; nothing where it was dropped, or asked anew in the same slot, before it was done.
   * @param urgency the smaller, the sooner
   */
  async ask(
    slot: string,
    urgency: number,
    key: AnswerKey,
    system: SystemDocument,
    args: readonly unknown[],
    tell?: Tell,
  ): Promise<Given | undefined> {
    await ready;
    const whole = await queue.run(slot, urgency, given(key, system, tell ? [...args, seldom(tell)] : args));
    return whole?.value;
  },
  /** Leaves off what nobody waits for any more. */
  drop: (slots: readonly string[]): void => queue.drop(slots),
  async readStl(bytes: Uint8Array, unit: StlUnit, file: string): Promise<Outcome<StlShape, string>> {
    await ready;
    return stlShape(bytes, unit, file);
  },
  /** Why a system would be refused when it is saved. */
  unsavable: (system: SystemDocument): string | undefined => unsavable(system),
};

export type AnswersApi = typeof api;

expose(receiving(api));
