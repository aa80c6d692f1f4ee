import { expose } from 'comlink';
import type { SystemDocument, WayStep } from '@/core/document';
import {
  fitForSteps,
  reachFor,
  type FitOutcome,
  type ReachOutcome,
  builtResult,
  changesOf,
  MANY_LOOKS,
  checkedWay,
  fitDrawing,
  foundWay,
  largestTanks,
  orderOut,
  sheetsOf,
  templatesOf,
  wayPicture,
  type FitGap,
  type Opening,
  type SheetsOutcome,
  type WayProgress,
} from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import { judgeFit, judgeReach, judgeSheets, type Judgement } from '@/core/rules';
import type { Steps } from '@/core/steps';
import { receiving } from './sent';
import { stoppable } from './stoppable';

export type FitAnswer = { readonly fit: FitOutcome | undefined; readonly judged: Judgement };

export type SheetsAnswer = { readonly sheets: SheetsOutcome; readonly judged: Judgement };

export type ReachedAnswer = { readonly reach: ReachOutcome | undefined; readonly judged: Judgement };

const ready = loadKernel();
const work = stoppable();

/** What steps come to, told apart from their having been left off. */
function* inWhole<T>(steps: Steps<T>): Steps<{ readonly whole: T }> {
  return { whole: yield* steps };
}

const SEED = 1;
const TELL_EVERY_MS = 250;

/** What is told while a way is looked for. */
export type WayNews = {
  readonly progress?: WayProgress;
  readonly seconds?: number;
  readonly openings?: readonly Opening[];
};

/** What is asked of the space beside the clearances. A search is stopped by ending the worker. */
const api = {
  /** Clearances, and what the rules say of them; nothing when it was stopped. */
  async clearances(system: SystemDocument): Promise<FitAnswer | undefined> {
    await ready;
    const fit = await work.run(inWhole(fitForSteps(system)));
    return fit && { fit: fit.whole, judged: judgeFit(system, fit.whole) };
  },
  /** Leaves off: the document has changed. */
  stop: work.stop,
  /** What hands and tools get to, and what the rules say of it. */
  async reach(system: SystemDocument): Promise<ReachedAnswer> {
    await ready;
    const reach = reachFor(system);
    return { reach, judged: judgeReach(system, reach) };
  },
  /** The faces as sheets, and what the rules say of them. */
  async sheets(system: SystemDocument): Promise<SheetsAnswer> {
    await ready;
    const sheets = sheetsOf(system);
    return { sheets, judged: judgeSheets(system, sheets) };
  },
  async drawing(system: SystemDocument, tankIndex: number) {
    await ready;
    return fitDrawing(system, tankIndex);
  },
  async changes(system: SystemDocument, tankIndex: number, gap?: FitGap) {
    await ready;
    return changesOf(system, tankIndex, gap);
  },
  async templates(system: SystemDocument, tankIndex: number) {
    await ready;
    return templatesOf(system, tankIndex);
  },
  async built(system: SystemDocument, tankIndex: number) {
    await ready;
    return builtResult(system, tankIndex);
  },
  async largest(system: SystemDocument) {
    await ready;
    return largestTanks(system);
  },
  async check(system: SystemDocument, part: string, steps: readonly WayStep[]) {
    await ready;
    return checkedWay(system, part, steps);
  },
  /** Goes on until there is a way, or until the worker is ended; tells how far it has come. */
  async find(system: SystemDocument, part: string, tell: (news: WayNews) => void) {
    await ready;
    const from = performance.now();
    let told = 0;
    return foundWay(
      system,
      part,
      {
        seed: SEED,
        mostLooks: Infinity,
        onProgress: (progress) => {
          if (performance.now() - told < TELL_EVERY_MS) return;
          told = performance.now();
          tell({ progress, seconds: (told - from) / 1000 });
        },
      },
      (openings) => tell({ openings }),
    );
  },
  async order(system: SystemDocument, part: string) {
    await ready;
    return orderOut(system, part, { seed: SEED, mostLooks: Math.ceil(MANY_LOOKS / 4) });
  },
  async picture(system: SystemDocument, part: string) {
    await ready;
    return wayPicture(system, part);
  },
};

export type FitApi = typeof api;

expose(receiving(api));
