import { explained, loggedPours, measuredCurve, type LoggedPour, type Plan, type Pour } from '@/core/gauge';
import { seeded } from '@/core/seeded';

/**
 * Made-up tanks with swing arms and the logs that builders would keep of
 * them. The arm is worked out here anew: a float on a flat surface in an
 * upright box or wedge, its angle an arc sine.
 */
export type Truth = {
  readonly volume: number;
  readonly lowered: number;
  readonly arm: number;
  readonly emptyEnd: number;
  readonly fullEnd: number;
};

export type MadeTank = { readonly brim_m3: number; readonly plan: Plan; readonly arm_m: number };

/**
 * A tank `high_m` high whose section widens upward by `flare` (0: a box), an arm that reaches from near the floor to
 * near the lid.
 */
export function madeTank({ high_m = 0.3, area_m2 = 0.3, flare = 0, arm_m = 0.16, pivot_m = 0.15 } = {}): MadeTank {
  const volumeAt = (h: number): number => area_m2 * (h + (flare * h * h) / (2 * high_m));
  const heightAt = (volume: number): number => {
    const inside = Math.max(0, volume);
    return flare === 0
      ? inside / area_m2
      : (high_m / flare) * (Math.sqrt(1 + (2 * flare * inside) / (area_m2 * high_m)) - 1);
  };
  const stop = Math.PI / 3;
  const readingAt: Plan['readingAt'] = (volume, lowered, arm) => {
    const sine = (Math.min(high_m, heightAt(volume)) - (pivot_m - lowered)) / (arm_m * (1 + arm));
    const angle = Math.min(stop, Math.max(-stop, Math.asin(Math.min(1, Math.max(-1, sine)))));
    return 240 - (207 * (angle + stop)) / (2 * stop);
  };
  return {
    brim_m3: volumeAt(high_m),
    arm_m,
    plan: {
      readingAt,
      empty: 240,
      full: 33,
      hasEnds: true,
      hasArm: true,
      floor: 0.3,
      prior: { volume_ratio: 0.03, lowered_m: 0.008, arm_ratio: 0.05, end_ratio: 0.01, start_m3: 1e-9 },
    },
  };
}

/** A truth drawn as it is expected. */
export function drawnTruth(seed: number, { prior }: Plan): Truth {
  const { normal } = seeded(seed);
  return {
    volume: prior.volume_ratio * normal(),
    lowered: prior.lowered_m * normal(),
    arm: prior.arm_ratio * normal(),
    emptyEnd: prior.end_ratio * normal(),
    fullEnd: prior.end_ratio * normal(),
  };
}

export const trueReading = ({ plan }: MadeTank, truth: Truth, volume_m3: number): number => {
  const planned = plan.readingAt(volume_m3 / (1 + truth.volume), truth.lowered, truth.arm);
  const share = (planned - plan.empty) / (plan.full - plan.empty);
  return planned + (plan.full - plan.empty) * (truth.emptyEnd * (1 - share) + truth.fullEnd * share);
};

export type Faults = {
  /** The float stands where it does with so much in, until there is more. */
  readonly stuckBelow_m3?: number;
  /** It lies at the reading `at` until there is more than `below_m3`, then comes free and jumps. */
  readonly lies?: { readonly below_m3: number; readonly at: number };
  readonly stuckAbove_m3?: number;
  /** A reading written down so much off. */
  readonly misread?: { readonly line: number; readonly by: number };
  /** So much more went in than was written. */
  readonly miscounted?: { readonly line: number; readonly by_m3: number };
};

/** The log of a tank filled in even pours, each with an error of its own and a reading with noise. */
export function madeLog(
  tank: MadeTank,
  truth: Truth,
  seed: number,
  { count = 16, noise = 0.6, pourSigma_m3 = 0.00005, faults = {} as Faults } = {},
): Pour[] {
  const { normal } = seeded(7_000_000 + seed);
  const each = (0.97 * tank.brim_m3) / count;
  let inside = 0;
  return Array.from({ length: count }, (_, i): Pour => {
    inside += each + pourSigma_m3 * normal() + (faults.miscounted?.line === i ? faults.miscounted.by_m3 : 0);
    const seen = Math.min(faults.stuckAbove_m3 ?? Infinity, Math.max(faults.stuckBelow_m3 ?? 0, inside));
    const clean = faults.lies && inside < faults.lies.below_m3 ? faults.lies.at : trueReading(tank, truth, seen);
    return {
      id: `p${i}`,
      added_m3: each,
      spread_m3: 2 * pourSigma_m3,
      reading: clean + noise * normal() + (faults.misread?.line === i ? faults.misread.by : 0),
      state: 'counts',
    };
  });
}

export const readLog = (tank: MadeTank, pours: readonly Pour[]): LoggedPour[] =>
  loggedPours(pours, {
    start_m3: 0,
    startSpread_m3: 0,
    brim_m3: tank.brim_m3,
    range: [20, 260],
    rises: false,
    resolution: 1,
  });

/** Tanks whose arm reaches into all of them, into a flared one, and one whose top and bottom an arm does not reach. */
export const TANKS = {
  box: madeTank(),
  flared: madeTank({ flare: 1 }),
  short: madeTank({ high_m: 0.2, arm_m: 0.12, pivot_m: 0.12 }),
} as const;

export const SLIP_KINDS = ['sticks', 'lies', 'sticks-above', 'misread', 'miscounted'] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

/** Whether a slip of this kind, put into a drawn log, is found within a pour. */
export function slipFound(tank: MadeTank, kind: SlipKind, seed: number): boolean {
  const { uniform } = seeded(31 * seed);
  const each = (0.97 * tank.brim_m3) / COUNT;
  const truth = drawnTruth(seed, tank.plan);
  const at = uniform();
  const [low, high] = [tank.brim_m3 * (0.2 + 0.3 * at), tank.brim_m3 * (0.5 + 0.3 * at)];
  const line = 2 + Math.floor((COUNT - 4) * at);
  const sign = uniform() < 0.5 ? -1 : 1;
  const faults = (
    {
      sticks: { stuckBelow_m3: low },
      lies: { lies: { below_m3: low, at: trueReading(tank, truth, 0) } },
      'sticks-above': { stuckAbove_m3: high },
      misread: { misread: { line, by: sign * (10 + 40 * uniform()) } },
      miscounted: { miscounted: { line, by_m3: each * (sign > 0 ? 1 : -0.5) } },
    } satisfies Record<SlipKind, Faults>
  )[kind];
  const answer = explained(readLog(tank, madeLog(tank, truth, seed, { count: COUNT, faults })), tank.plan);
  if (!answer.ok) return false;
  const { stuckBelow_m3 = NaN, stuckAbove_m3 = NaN, farOff, miscounted } = answer.value;
  const near = (id: string): boolean => Math.abs(Number(id.slice(1)) - line) <= 1;
  switch (kind) {
    case 'sticks':
    case 'lies':
      return Math.abs(stuckBelow_m3 - low) <= each;
    case 'sticks-above':
      return Math.abs(stuckAbove_m3 - high) <= each;
    case 'misread':
      return farOff.includes(`p${line}`);
    case 'miscounted':
      return miscounted.some(({ id }) => near(id));
  }
}
const COUNT = 16;

export type Coverage = {
  readonly inside_ratio: number;
  readonly curveInside_ratio: number;
  readonly refused: number;
  readonly slips: number;
};

/**
 * Over drawn truths: how often an unknown lies within two standard deviations, and the truth within the measured
 * curve's band.
 */
export function coverage(tank: MadeTank, from: number, logs: number): Coverage {
  let [inside, all, curveInside, curveAll, refused, slips] = [0, 0, 0, 0, 0, 0];
  for (let seed = from; seed < from + logs; seed++) {
    const truth = drawnTruth(seed, tank.plan);
    const lines = readLog(tank, madeLog(tank, truth, seed));
    const answer = explained(lines, tank.plan);
    const curve = measuredCurve(lines, tank.plan.floor, 0, seed);
    if (!answer.ok || !curve.ok) {
      refused++;
      continue;
    }
    const { unknowns, farOff, miscounted, stuckBelow_m3, stuckAbove_m3 } = answer.value;
    if (farOff.length + miscounted.length > 0 || stuckBelow_m3 !== undefined || stuckAbove_m3 !== undefined) slips++;
    for (const { key, value, sigma } of unknowns) {
      if (key === 'start') continue;
      all++;
      if (Math.abs(value - truth[key]) <= 2 * sigma) inside++;
    }
    for (const { volume_m3, low, high } of curve.value.points) {
      const really = trueReading(tank, truth, volume_m3);
      curveAll++;
      if (really >= low && really <= high) curveInside++;
    }
  }
  return { inside_ratio: inside / all, curveInside_ratio: curveInside / curveAll, refused, slips };
}
