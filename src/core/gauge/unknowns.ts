import { failure, success, type Outcome } from '../outcome';
import { seeded } from '../seeded';
import { noiseOf } from './calibrate';
import {
  fitted,
  keysOf,
  logOf,
  NO_SLIPS,
  partsOf,
  priorsOf,
  reading,
  screened,
  volumeWith,
  type Fit,
  type Log,
  type Plan,
  type Slips,
  type Theta,
  type UnknownKey,
} from './pourModel';
import { likelihood, posteriorDraws } from './pourPosterior';
import type { LoggedPour } from './pours';

/**
 * A physical unknown as the pours show it: `volume` as a share more than drawn, `lowered` [m], `arm` as a share longer,
 * ends as shares of the span, `start` [m³].
 */
export type FoundUnknown = {
  readonly key: UnknownKey;
  readonly value: number;
  /** Standard deviation, that of the noise not being known put in. */ readonly sigma: number;
};

export type Explained = {
  readonly unknowns: readonly FoundUnknown[];
  /** Root mean square of what the plan misses by, before and after, as shares of the span. */
  readonly before_ratio: number;
  readonly after_ratio: number;
  /** Standard deviation of a single reading. */
  readonly noise: number;
  /** Readings too far from all others to be believed: told, and left out of the fit. */
  readonly farOff: readonly string[];
  /** Pours of which more (less where negative) went in than was written [m³]. */
  readonly miscounted: readonly { readonly id: string; readonly by_m3: number; readonly sigma_m3: number }[];
  /** The float did not move until so much was in the tank; and from there on no more [m³]. */
  readonly stuckBelow_m3?: number;
  readonly stuckAbove_m3?: number;
  readonly iterations: number;
  /** What the plan reads with the unknowns put in. */
  readonly readingAt: (volume_m3: number) => number;
};

export type ExplainCode = 'too-few' | 'not-converged';

const LEAST = 4;
/** A float that stands still is told from so many lines on. */
const LEAST_STILL = 2;
/** Slips are looked for one by one, the likeliest first, and no more than this share of the lines. */
const MOST_SLIPS_RATIO = 0.2;
/** Of each kind of slip that could be, so many are fitted; of all kinds, so many to the end. */
const SHORTLIST = 3;
const FINALISTS = 2;
const NOISE_ROUNDS = 4;
/** Fewer of the last moves taken than this, and the draws say nothing. */
const LEAST_TAKEN = 0.02;
/** So many of the draws are enough for a curve. */
const CURVE_EVERY = 16;

/**
 * The few physical unknowns that best explain why the pours do not read as
 * planned, and which lines are slips: a float that stands still at either
 * end, readings written down wrongly, pours counted wrongly. A slip is
 * believed where the log is likelier with it than without, rare as it is.
 *
 * @param lines in the order in which they were poured
 * @source the fit and its evidence: see `fitted`; what remains possible: see `posteriorDraws`; slips chosen step by
 * step by evidence, R. Kass and A. Raftery, J. Am. Stat. Assoc. 90 (1995) 773
 */
export function explained(lines: readonly LoggedPour[], plan: Plan): Outcome<Explained, ExplainCode> {
  const log = logOf(lines);
  const count = log.lines.length;
  if (count < LEAST)
    return failure(
      'too-few',
      'log',
      `At least ${LEAST} readings that count are needed to explain a difference; there are ${count}.`,
    );
  const { slips, noise: near } = chosenSlips(log, plan);
  const { thetas, noises, stages, taken_ratio } = posteriorDraws(log, plan, slips, near);
  if (taken_ratio < LEAST_TAKEN)
    return failure(
      'not-converged',
      'log',
      `What explains this log did not settle in ${stages} stages; the log and the plan may be of different tanks.`,
    );
  const keys = keysOf(plan);
  const [means, sigmas] = [
    thetas[0]!.map((_, i) => meanOf(thetas.map((theta) => theta[i]!))),
    thetas[0]!.map((_, i) => deviationOf(thetas.map((theta) => theta[i]!))),
  ];
  const { used } = partsOf(log, slips);
  const span = Math.abs(plan.full - plan.empty);
  const rms = (read: (line: LoggedPour) => number): number =>
    Math.sqrt(meanOf(used.map((line) => (line.reading! - read(line)) ** 2))) / span;
  const some = thetas.filter((_, i) => i % CURVE_EVERY === 0);
  const between = (index: number): number => (log.lines[index - 1]!.volume_m3 + log.lines[index]!.volume_m3) / 2;
  // What was in it at the start shifts the log, not the curve.
  const lasting = some.map((theta) => theta.map((value, i) => (keys[i] === 'start' ? 0 : value)));
  return success({
    unknowns: keys.map((key, i) => ({ key, value: means[i]!, sigma: sigmas[i]! })),
    noise: meanOf(noises),
    iterations: stages,
    farOff: slips.misread,
    miscounted: slips.miscounted.map((id, i) => ({
      id,
      by_m3: means[keys.length + i]!,
      sigma_m3: sigmas[keys.length + i]!,
    })),
    before_ratio: rms(({ volume_m3 }) => plan.readingAt(volume_m3, 0, 0)),
    after_ratio: rms((line) =>
      meanOf(some.map((theta) => reading(plan, theta, volumeWith(log, slips, theta, keys.length, line)))),
    ),
    ...(slips.low > 0 ? { stuckBelow_m3: between(slips.low) } : {}),
    ...(slips.high > 0 ? { stuckAbove_m3: between(log.lines.length - slips.high) } : {}),
    readingAt: (volume_m3) => meanOf(lasting.map((theta) => reading(plan, theta, volume_m3))),
  });
}

const meanOf = (list: readonly number[]): number => list.reduce((sum, value) => sum + value, 0) / list.length;
function deviationOf(list: readonly number[]): number {
  const mean = meanOf(list);
  return Math.sqrt(meanOf(list.map((value) => (value - mean) ** 2)));
}

type Chosen = { readonly slips: Slips; readonly fit: Fit; readonly noise: number };

/** Slips taken in one by one while each makes the log likelier; one that a later one explains is given back. */
function chosenSlips(log: Log, plan: Plan): Chosen {
  // What the plan does not explain hardly bends, so that neighbours tell its noise.
  const first = Math.max(
    plan.floor,
    noiseOf(
      log.lines.map(({ volume_m3 }) => volume_m3),
      log.lines.map((line) => line.reading! - plan.readingAt(line.volume_m3, 0, 0)),
    ),
  );
  let best = settledNoise(log, plan, NO_SLIPS, first, []);
  const most = Math.max(1, Math.floor(MOST_SLIPS_RATIO * log.lines.length));
  for (let round = 0; round <= most; round++) {
    const guess = screened(log, plan, best.slips, best.fit, best.noise);
    const tried = Object.values(slipsFrom(log, best.slips, most))
      .flatMap((kind) => leastOf(kind, guess, SHORTLIST))
      .map((slips) => ({ slips, fit: fitted(log, plan, slips, best.noise, startOf(plan, best, slips)) }));
    const next = leastOf(tried, ({ fit }) => fit.evidence, FINALISTS)
      .map(({ slips, fit }) => settledNoise(log, plan, slips, best.noise, fit.theta))
      .sort((a, b) => a.fit.evidence - b.fit.evidence)[0];
    if (!next || next.fit.evidence >= best.fit.evidence) return best;
    best = next;
  }
  return best;
}

const leastOf = <T>(list: readonly T[], value: (one: T) => number, count: number): T[] =>
  list
    .map((one) => ({ one, at: value(one) }))
    .sort((a, b) => a.at - b.at)
    .slice(0, count)
    .map(({ one }) => one);

/** Where to begin with other slips: the unknowns of the plan as they were, the miscounted by what they were. */
function startOf(plan: Plan, { slips: before, fit }: Chosen, { miscounted }: Slips): Theta {
  const keys = keysOf(plan).length;
  return [...fit.theta.slice(0, keys), ...miscounted.map((id) => fit.theta[keys + before.miscounted.indexOf(id)] ?? 0)];
}

/** A fit at the noise that its own residuals speak for. */
function settledNoise(log: Log, plan: Plan, slips: Slips, from: number, theta: Theta): Chosen {
  let noise = from;
  let fit = fittedFromMany(log, plan, slips, noise, theta);
  for (let round = 0; round < NOISE_ROUNDS; round++) {
    const next = Math.max(plan.floor, fit.noise);
    if (Math.abs(next / noise - 1) < NOISE_SETTLED) break;
    noise = next;
    fit = fitted(log, plan, slips, noise, fit.theta);
  }
  return { slips, fit, noise };
}
const NOISE_SETTLED = 0.03;

/**
 * The likeliest unknowns wherever they lie: stops and dead ends bend what is
 * read so sharply that a search stands still at false bottoms. It is begun at
 * the likeliest of many places, each at a noise that first hides the bends.
 */
function fittedFromMany(log: Log, plan: Plan, slips: Slips, noise: number, from: Theta): Fit {
  const { normal } = seeded(START_SEED);
  const scales = priorsOf(log, plan, slips);
  const chanceOf = likelihood(log, plan, slips);
  const drawn = Array.from({ length: PLACES }, () => scales.map((scale) => scale * normal()));
  const begins = [
    from,
    scales.map(() => 0),
    ...leastOf(drawn, (theta) => -chanceOf(theta, SOFTENED[0] * noise), STARTS),
  ];
  const fits = begins.map((begin) =>
    SOFTENED.slice(1).reduce(
      (fit, times) => fitted(log, plan, slips, noise * times, fit.theta),
      fitted(log, plan, slips, noise * SOFTENED[0], begin),
    ),
  );
  return leastOf(fits, ({ evidence }) => evidence, 1)[0]!;
}
const START_SEED = 1;
const PLACES = 300;
const STARTS = 5;
const SOFTENED = [16, 4, 1] as const;

/** All slips one step away, by kind: one more, one fewer, or a run that is longer or shorter. */
function slipsFrom(
  { lines }: Log,
  slips: Slips,
  most: number,
): Record<'low' | 'high' | 'misread' | 'miscounted' | 'fewer', Slips[]> {
  const { low, high, misread, miscounted } = slips;
  const ids = lines.map(({ id }) => id);
  const runs = [0, ...ids.map((_, i) => i).filter((i) => i >= LEAST_STILL)];
  const inRun = (id: string, l: number, h: number): boolean => ids.indexOf(id) < l || ids.indexOf(id) >= ids.length - h;
  const left = (l: number, h: number): boolean => ids.length - l - h >= LEAST;
  const more = misread.length + miscounted.length < most;
  return {
    low: runs
      .filter((l) => l !== low && left(l, high))
      .flatMap((l) => withAndWithout({ ...slips, low: l }, (id) => inRun(id, l, high))),
    high: runs
      .filter((h) => h !== high && left(low, h))
      .flatMap((h) => withAndWithout({ ...slips, high: h }, (id) => inRun(id, low, h))),
    misread: more
      ? ids
          .filter((id) => !misread.includes(id) && left(low + misread.length + 1, high))
          .map((id) => ({ ...slips, misread: [...misread, id] }))
      : [],
    miscounted: more
      ? ids.filter((id) => !miscounted.includes(id)).map((id) => ({ ...slips, miscounted: [...miscounted, id] }))
      : [],
    fewer: [
      ...misread.map((id) => ({ ...slips, misread: misread.filter((other) => other !== id) })),
      ...miscounted.map((id) => ({ ...slips, miscounted: miscounted.filter((other) => other !== id) })),
    ],
  };
}

/** A run that stands still, and the same with the slips inside it given back. */
function withAndWithout(slips: Slips, inside: (id: string) => boolean): Slips[] {
  const fewer = {
    ...slips,
    misread: slips.misread.filter((id) => !inside(id)),
    miscounted: slips.miscounted.filter((id) => !inside(id)),
  };
  return fewer.misread.length + fewer.miscounted.length < slips.misread.length + slips.miscounted.length
    ? [slips, fewer]
    : [slips];
}
