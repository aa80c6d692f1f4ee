import { tankBody } from '../model';
import { stlBytes } from '../formats';
import { failure, success, type Failure, type Outcome } from '../outcome';
import type { Steps } from '../steps';
import type { Plan, WayStep } from '../plan/schema';
import type { AnswerKey, Read } from './table';
import type { EvaluationCode } from './at';
import { cardOf, failedCard, type Card, type Counted } from './card';
import { evaluateSystem, evaluation, type Evaluation } from './evaluate';
import { comparedFigures, type ComparedFigure } from './figures';
import { numbersOf, type Numbers } from './numbers';
import { fitDrawing } from './fit/fitDrawing';
import type { FitGap } from './fit/fit';
import { fitForSteps, reachFor } from './fit/fitCache';
import { largestTanks } from './fit/largestTanks';
import { sheetsOf } from './fit/sheets';
import { cutObstacles, obstacleTemplates, templatesOf } from './fit/templates';
import { checkedWay, foundWay, MANY_SAMPLES, orderOut, wayPicture } from './fit/ways';
import { calibrationResult, taughtByPours, type CalibrationResult } from './gauge/calibration';
import { designedSender, refittedSender } from './gauge/senderDesign';
import { costliest, sizeTable, type Costliest, type SizeTable } from './lines';
import { influencesOf, combinedUncertainty, type Influence, type Sensitivity } from './sensitivity';
import { tankMap, type MapMode } from './tank/attitudeMap';
import { heightForReserve, pickupCuts } from './tank/pickups';
import { sizeForVolume } from './tank/sizeForVolume';
import { changesOf as mountChangesOf } from './mounts/changes';
import { mountDrawing } from './mounts/drawing';
import { layoutsFor } from './mounts/layouts';
import { mountsOf } from './mounts/mounts';
import { carriedOf, type Lifted } from './tank/carried';
import { tipsOf } from './tank/tips';
import { standDrawing } from './weight/drawing';
import { standsOf } from './weight/stands';
import { tankSolid } from './tank/solid';
import { ventDesign } from './tank/ventDesign';
import { momentOf, playedFor, readyFor, transferDesign, type Instant, type PlayNews } from './time';
import { tankTable, type TableAt } from './tank/table';
import { builtResult, changesOf } from './tank/tankChanges';
import { radians } from '../units';
import type { CorrectionTable } from '../gauge';
import type { Opening, WayProgress } from '../fit';

/** The numbers with all that they hang on. */
export type Results =
  | { readonly ok: true; readonly evaluation: Evaluation; readonly numbers: Numbers }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

export type CalibrationData = CalibrationResult & {
  readonly tables: { readonly even: Outcome<CorrectionTable>; readonly best: Outcome<CorrectionTable> };
};

/** What is told while a way is looked for. */
export type WayNews = {
  readonly progress?: WayProgress;
  readonly openings?: readonly Opening[];
  /** Since the search began. */ readonly seconds?: number;
};

/** What rules say of a system: they stand above this folder and are handed in. */
export type AskedRules<J> = {
  readonly judge: (plan: Plan, evaluation: Evaluation) => J;
  readonly findingKeys: (plan: Plan, evaluation: Evaluation) => readonly string[];
};

export type Compared<J> =
  | {
      readonly ok: true;
      readonly figures: readonly ComparedFigure[];
      readonly judged: J;
      readonly evaluation: Evaluation;
    }
  | { readonly ok: false; readonly error: Failure<EvaluationCode> };

type Worked = (of: never, ...args: never[]) => Steps<unknown>;

/** The same search each time. */
const SEED = 1;

// An answer that takes one step.

const atOnce = <A extends readonly unknown[], T>(answer: (...args: A) => T) =>
  function* (...args: A): Steps<T> {
    return answer(...args);
  };

const resultsOf = (plan: Plan, outcome: Outcome<Evaluation, EvaluationCode>): Results =>
  outcome.ok
    ? { ok: true, evaluation: outcome.value, numbers: numbersOf(plan, outcome.value) }
    : { ok: false, error: outcome.error };

/** How each answer of the table is worked out: of what it reads, and of what is asked beside that. */
export const answerWork = <J extends Counted>(rules: AskedRules<J>) =>
  ({
    numbers: atOnce((system: Read<'numbers'>): Results =>
      resultsOf(system, evaluateSystem(system, 'first', 'without-fit')),
    ),
    *details(system: Read<'details'>): Steps<Results> {
      return resultsOf(system, yield* evaluation(system, 'full', 'without-fit'));
    },
    sheets: atOnce((space: Read<'sheets'>) => sheetsOf(space)),
    clearances: (space: Read<'clearances'>) => fitForSteps(space),
    *spreads(system: Read<'spreads'>): Steps<Sensitivity> {
      const found: Influence[] = [];
      for (const influence of influencesOf(system, rules.findingKeys)) {
        found.push(influence);
        yield;
      }
      return combinedUncertainty(found);
    },
    reach: atOnce((space: Read<'reach'>) => reachFor(space)),
    /** Laid over a slope and an acceleration upward. */
    attitudeMap: atOnce(
      (
        tanks: Read<'attitudeMap'>,
        t: number,
        mode: MapMode,
        steps: number,
        pitch_deg: number,
        roll_deg: number,
        up_mPerS2: number,
      ) =>
        tankMap(
          tanks,
          { pitch_rad: radians(pitch_deg), roll_rad: radians(roll_deg), acceleration_mPerS2: [0, 0, up_mPerS2] },
          t,
          mode,
          steps,
        ),
    ),
    solid: atOnce((stood: Read<'solid'>, t: number) => tankSolid(stood, t)),
    strapping: atOnce((stood: Read<'strapping'>, t: number, step_m: number, at: TableAt, bay?: number) =>
      tankTable(stood, t, step_m, at, bay),
    ),
    tips: atOnce((stood: Read<'tips'>, t: number) => tipsOf(stood, t)),
    mounts: atOnce((system: Read<'mounts'>) => mountsOf(system)),
    carried: atOnce((system: Read<'carried'>, t: number, how: Lifted) => carriedOf(system, t, how)),
    stands: atOnce((system: Read<'stands'>) => standsOf(system)),
    mountDrawing: atOnce((plan: Read<'mountDrawing'>, t: number) => mountDrawing(plan, t)),
    standDrawing: atOnce((plan: Read<'standDrawing'>) => standDrawing(plan)),
    layouts: atOnce((system: Read<'layouts'>, t: number) => layoutsFor(system, t)),
    mountChanges: atOnce((system: Read<'mountChanges'>, t: number) => mountChangesOf(system, t)),
    stl: atOnce(({ tanks }: Read<'stl'>, t: number): Uint8Array<ArrayBuffer> | undefined => {
      const tank = tanks[t];
      const body = tank && tankBody(tank);
      return body?.ok ? stlBytes(body.value.shell, tank!.name) : undefined;
    }),
    fitDrawing: atOnce((plan: Read<'fitDrawing'>, t: number) => fitDrawing(plan, t)),
    changes: atOnce((system: Read<'changes'>, t: number, gap?: FitGap) => success(changesOf(system, t, gap))),
    templates: atOnce((plan: Read<'templates'>, t: number, obstacle?: string) => {
      const of = cutObstacles(plan).find(({ id }) => id === obstacle);
      return of ? obstacleTemplates(plan, of) : templatesOf(plan, t);
    }),
    built: atOnce((system: Read<'built'>, t: number) => success(builtResult(system, t))),
    sizeFor: atOnce((plan: Read<'sizeFor'>, t: number, key: string, holds_m3: number) =>
      sizeForVolume(plan, t, key, holds_m3),
    ),
    largest: atOnce((plan: Read<'largest'>) => largestTanks(plan)),
    wayCheck: atOnce((plan: Read<'wayCheck'>, part: string, steps: readonly WayStep[]) =>
      checkedWay(plan, part, steps),
    ),
    wayPicture: atOnce((plan: Read<'wayPicture'>, part: string) => wayPicture(plan, part)),
    wayOrder: atOnce((plan: Read<'wayOrder'>, part: string) =>
      orderOut(plan, part, { seed: SEED, mostSamples: Math.ceil(MANY_SAMPLES / 4) }),
    ),
    /** Goes on until there is a way, or until its worker is ended; tells how far it has come. */
    way: atOnce((plan: Read<'way'>, part: string, tell: (news: WayNews) => void) =>
      foundWay(
        plan,
        part,
        { seed: SEED, mostSamples: Infinity, onProgress: (progress) => tell({ progress }) },
        (openings) => tell({ openings }),
      ),
    ),
    design: atOnce((plan: Read<'design'>, t: number, s: number, turn: 'as-set' | 'any') =>
      designedSender(plan, t, s, turn),
    ),
    refit: atOnce((plan: Read<'refit'>, t: number, s: number) => refittedSender(plan, t, s)),
    cuts: atOnce((plan: Read<'cuts'>, t: number) => pickupCuts(plan, t)),
    /** By a scenario, or the key of a ready one. */
    played: (system: Read<'played'>, asked: unknown, tell?: (news: PlayNews) => void) => playedFor(system, asked, tell),
    scenarios: atOnce((plan: Read<'scenarios'>) => readyFor(plan)),
    moment: atOnce((stood: Read<'moment'>, instant: Instant, solid: number) => momentOf(stood, instant, solid)),
    /** From a tank to another, by their numbers. */
    transfer: (system: Read<'transfer'>, s: number, t: number) => transferDesign({ ...system, records: [] }, s, t),
    ventDesign: atOnce((system: Read<'ventDesign'>, t: number) => ventDesign(system, t)),
    reserveHeight: atOnce((plan: Read<'reserveHeight'>, t: number, first: string, second: string, reserve_m3: number) =>
      heightForReserve(plan, t, first, second, reserve_m3),
    ),
    calibration: atOnce(
      (plan: Read<'calibration'>, t: number, index: number, points: number): Outcome<CalibrationData> => {
        const result = calibrationResult(plan, t, index);
        if (!result.ok) return result;
        const [even, best] = (['even', 'best'] as const).map((placed) => taughtByPours(result.value, points, placed));
        return success({ ...result.value, tables: { even: even!, best: best! } });
      },
    ),
    sizes: atOnce((system: Read<'sizes'>, line: string): Outcome<SizeTable> => {
      const table = sizeTable(system, line);
      return table
        ? success(table)
        : failure('no-line', line, 'That line is not there, or it has no length of its own.');
    }),
    /** Of one consumer's feed, by its number. */
    costliest: atOnce((system: Read<'costliest'>, k: number): Outcome<readonly Costliest[]> => {
      const all = evaluateSystem(system, 'numbers', 'without-fit');
      if (!all.ok) return all;
      const flow = all.value.flows[k];
      const consumer = system.consumers[k];
      if (!flow || !consumer) return failure('no-consumer', 'consumers', 'Nothing burns the fuel yet.');
      return flow.ok ? success(costliest(system, consumer, flow.value.losses)) : flow;
    }),
    *card(system: Read<'card'>): Steps<Card> {
      const all = yield* evaluation(system, 'full', 'with-fit');
      return all.ok
        ? cardOf(numbersOf(system, all.value), rules.judge(system, all.value))
        : failedCard(all.error.detail);
    },
    *compared(system: Read<'compared'>): Steps<Compared<J>> {
      const all = yield* evaluation(system, 'full', 'with-fit');
      if (!all.ok) return { ok: false, error: all.error };
      return {
        ok: true,
        figures: comparedFigures(system, all.value),
        judged: rules.judge(system, all.value),
        evaluation: all.value,
      };
    },
  }) satisfies Readonly<Record<AnswerKey, Worked>>;

export type AnswerWork<J extends Counted> = ReturnType<typeof answerWork<J>>;
/** What is asked beside the document, and what comes of it. */
export type AskedOf<K extends AnswerKey, J extends Counted> = AnswerWork<J>[K] extends (
  of: never,
  ...args: infer A
) => unknown
  ? A
  : never;
export type AnswerOf<K extends AnswerKey, J extends Counted> = AnswerWork<J>[K] extends (
  ...args: never[]
) => Steps<infer T>
  ? T
  : never;
