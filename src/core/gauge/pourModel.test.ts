import { describe, expect, it } from 'vitest';
import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';
import { seeded } from '../seeded';
import { expectClose } from '../../../tests/expectClose';
import {
  fitted,
  keysOf,
  logOf,
  NO_SLIPS,
  partsOf,
  reading,
  screened,
  type Log,
  type Plan,
  type Slips,
} from './pourModel';
import { likelihood, posteriorDraws } from './pourPosterior';
import { loggedPours, type LoggedPour } from './pours';

/**
 * An instrument whose reading is straight in everything that may be off, so
 * that all that is asked of its log has a closed form: height by eye, with no
 * ends, read in a box.
 */
const AREA_M2 = 0.2;
const BOX: Plan = {
  readingAt: (volume_m3, lowered_m) => volume_m3 / AREA_M2 + lowered_m,
  empty: 0,
  full: 0.5,
  hasEnds: false,
  hasArm: false,
  floor: 1e-4,
  prior: { volume_ratio: 1e-9, lowered_m: 0.008, arm_ratio: 0.05, end_ratio: 0.01, start_m3: 4e-4 },
};
const NOISE = 0.002;

function logged(
  seed: number,
  { count = 12, lowered_m = 0.004, start_m3 = 2e-4, pourSigma_m3 = 1e-4, wrong = {} as Record<number, number> } = {},
): LoggedPour[] {
  const { normal } = seeded(seed);
  let inside = start_m3;
  const pours = Array.from({ length: count }, (_, i) => {
    inside += 0.006 + pourSigma_m3 * normal();
    return {
      id: `p${i}`,
      added_m3: 0.006,
      spread_m3: 2 * pourSigma_m3,
      reading: inside / AREA_M2 + lowered_m + NOISE * normal() + (wrong[i] ?? 0),
      state: 'counts' as const,
    };
  });
  return loggedPours(pours, {
    start_m3: 0,
    startSpread_m3: 0,
    brim_m3: 0.1,
    range: [-1, 2],
    rises: true,
    resolution: 0.01,
  });
}

/** Unknowns that play a part: how much lower, and what was in it at the start. */
const SLOPES = [1, 1 / AREA_M2] as const;
const PRIORS = [BOX.prior.lowered_m, BOX.prior.start_m3] as const;

/**
 * Means, covariance and evidence by the formulas for straight models (C. Bishop, Pattern Recognition and Machine
 * Learning, 2006, equations 2.113 to 2.117).
 */
function closedForm(lines: readonly LoggedPour[], noise: number) {
  const count = lines.length;
  const scatter = new Matrix(
    lines.map((a, i) =>
      lines.map((b, j) => Math.min(a.poured_m6, b.poured_m6) / AREA_M2 ** 2 + (i === j ? noise ** 2 : 0)),
    ),
  );
  const J = new Matrix(lines.map(() => [...SLOPES]));
  const P = Matrix.diag(PRIORS.map((prior) => prior ** 2));
  const r = Matrix.columnVector(lines.map((line) => line.reading! - line.volume_m3 / AREA_M2));
  const all = Matrix.add(scatter, J.mmul(P).mmul(J.transpose()));
  const cholesky = new CholeskyDecomposition(Matrix.add(all, all.transpose()).mul(0.5));
  const gain = P.mmul(J.transpose()).mmul(inverse(all));
  const logDet = 2 * cholesky.lowerTriangularMatrix.diagonal().reduce((sum, value) => sum + Math.log(value), 0);
  return {
    means: gain.mmul(r).to1DArray(),
    covariance: Matrix.sub(P, gain.mmul(J).mmul(P)).to2DArray(),
    evidence: r.transpose().mmul(cholesky.solve(r)).get(0, 0) + logDet + count * Math.log(2 * Math.PI),
  };
}

const at = (key: string): number => keysOf(BOX).indexOf(key as never);

describe('a straight instrument, all in closed form', () => {
  it('likeliest unknowns, their covariance and the evidence of the log', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const log = logOf(logged(seed));
      const noise = 0.001 + 0.0005 * seed;
      const fit = fitted(log, BOX, NO_SLIPS, noise);
      const { means, covariance, evidence } = closedForm(log.lines, noise);
      expect(fit.settled).toBe(true);
      [at('lowered'), at('start')].forEach((k, i) => {
        expectClose(fit.theta[k]!, means[i]!, { abs: 2e-3 * Math.sqrt(covariance[i]![i]!), why: 'the posterior mean' });
        expectClose(fit.covariance[k]![k]!, covariance[i]![i]!, { rel: 1e-6, why: 'the posterior variance' });
      });
      expectClose(fit.covariance[at('lowered')]![at('start')]!, covariance[0]![1]!, {
        rel: 1e-6,
        why: 'and how they hang together',
      });
      expectClose(fit.evidence, evidence, { abs: 1e-4, why: 'the marginal likelihood' });
    }
  });

  it('a guess of the evidence is the evidence itself, whatever the slips', () => {
    const slips: Slips[] = [
      NO_SLIPS,
      { ...NO_SLIPS, low: 3 },
      { ...NO_SLIPS, high: 2 },
      { ...NO_SLIPS, misread: ['p4'] },
      { ...NO_SLIPS, miscounted: ['p6'] },
      { low: 2, high: 2, misread: ['p5', 'p1'], miscounted: ['p3', 'p8'] },
    ];
    for (let seed = 1; seed <= 6; seed++) {
      const log = logOf(logged(seed, { wrong: { 4: 0.05 } }));
      for (const before of slips.slice(0, 5)) {
        const guess = screened(log, BOX, before, fitted(log, BOX, before, NOISE), NOISE);
        for (const next of slips)
          expectClose(guess(next), fitted(log, BOX, next, NOISE).evidence, {
            abs: 1e-3,
            why: `${JSON.stringify(before)} to ${JSON.stringify(next)}`,
          });
      }
    }
  });

  it('draws lie as the closed form has it, over all noises that may be', () => {
    const log = logOf(logged(5));
    const noises = Array.from({ length: 300 }, (_, i) => BOX.floor * ((6 * NOISE) / BOX.floor) ** (i / 299));
    const forms = noises.map((noise) => closedForm(log.lines, noise));
    const least = Math.min(...forms.map(({ evidence }) => evidence));
    const weights = forms.map(({ evidence }) => Math.exp((least - evidence) / 2));
    const sum = weights.reduce((a, b) => a + b, 0);
    const over = (of: (form: (typeof forms)[number], i: number) => number): number =>
      forms.reduce((total, form, i) => total + weights[i]! * of(form, i), 0) / sum;
    const draws = posteriorDraws(log, BOX, NO_SLIPS, NOISE, 3);
    [at('lowered'), at('start')].forEach((k, i) => {
      const mean = over(({ means }) => means[i]!);
      const sigma = Math.sqrt(over(({ means, covariance }) => covariance[i]![i]! + (means[i]! - mean) ** 2));
      const drawn = draws.thetas.map((theta) => theta[k]!);
      const middle = drawn.reduce((a, b) => a + b, 0) / drawn.length;
      expectClose(middle, mean, { abs: 0.15 * sigma, why: 'the mean' });
      expectClose(Math.sqrt(drawn.reduce((a, b) => a + (b - middle) ** 2, 0) / drawn.length), sigma, {
        rel: 0.12,
        why: 'the deviation',
      });
    });
    expectClose(
      draws.noises.reduce((a, b) => a + b, 0) / draws.noises.length,
      over((_, i) => noises[i]!),
      { rel: 0.12, why: 'the noise' },
    );
    expect(draws.taken_ratio).toBeGreaterThan(0.1);
  });

  it('the same seed draws the same, another draws others', () => {
    const log = logOf(logged(2));
    expect(posteriorDraws(log, BOX, NO_SLIPS, NOISE, 1).thetas[0]).toEqual(
      posteriorDraws(log, BOX, NO_SLIPS, NOISE, 1).thetas[0],
    );
    expect(posteriorDraws(log, BOX, NO_SLIPS, NOISE, 1).thetas[0]).not.toEqual(
      posteriorDraws(log, BOX, NO_SLIPS, NOISE, 2).thetas[0],
    );
  });

  it('the noise that is left is that of the readings, within what so few of them tell', () => {
    let sum = 0;
    const runs = 40;
    for (let seed = 1; seed <= runs; seed++) {
      const log = logOf(logged(100 + seed, { count: 20 }));
      let noise = NOISE * 2;
      for (let round = 0; round < 8; round++) noise = fitted(log, BOX, NO_SLIPS, noise).noise;
      sum += noise ** 2;
    }
    // A variance of 18 free readings strays by a third; of 40 such by a twentieth.
    expectClose(Math.sqrt(sum / runs), NOISE, { rel: 0.1, why: 'restricted maximum likelihood does not lean' });
  });
});

describe('the parts of a log', () => {
  const log: Log = logOf(logged(1));
  it('lines that stand still at the ends, lines not believed, and the rest: each once', () => {
    const { used, still, misread } = partsOf(log, { low: 3, high: 2, misread: ['p1', 'p5'], miscounted: [] });
    expect(still.map((run) => run.map(({ id }) => id))).toEqual([
      ['p0', 'p2'],
      ['p10', 'p11'],
    ]);
    expect(misread.map(({ id }) => id)).toEqual(['p1', 'p5']);
    expect([...used, ...misread, ...still.flat()].map(({ id }) => id).sort()).toEqual(
      log.lines.map(({ id }) => id).sort(),
    );
  });

  it('a pour counted wrongly moves every later line and none before', () => {
    const slips: Slips = { ...NO_SLIPS, miscounted: ['p6'] };
    const theta = [...keysOf(BOX).map(() => 0), 0.002];
    const chanceOf = likelihood(log, BOX, slips);
    const shifted = logOf(
      log.lines.map((line) => (log.placeOf.get(line.id)! >= 6 ? { ...line, volume_m3: line.volume_m3 + 0.002 } : line)),
    );
    expectClose(chanceOf(theta, NOISE), likelihood(shifted, BOX, NO_SLIPS)(theta, NOISE), {
      rel: 1e-12,
      why: 'the same volumes',
    });
  });

  it('ends of a sender add in proportion to where it stands', () => {
    const sender: Plan = { ...BOX, hasEnds: true, hasArm: true };
    const theta = [0, 0, 0, 0.02, -0.01, 0];
    expect(keysOf(sender)).toHaveLength(theta.length);
    const share = 0.06 / AREA_M2 / 0.5;
    expectClose(reading(sender, theta, 0.06), 0.3 + 0.5 * (0.02 * (1 - share) - 0.01 * share), {
      rel: 1e-12,
      why: 'by hand',
    });
  });
});
