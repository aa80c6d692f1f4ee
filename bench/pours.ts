import { coverage, SLIP_KINDS, slipFound, TANKS } from '../tests/independent/pourTruths';
import type { Bench } from './measure';

const LOGS = 100;
const COVERED_LOGS = 330;
const FOUND_GOAL = 0.95;
const COVERED = [0.93, 0.97] as const;

/** Slips put into seeded logs: how many of a hundred of the worst kind are found within a pour. */
export const pourSlips: Bench = {
  name: 'pour-slips',
  async run() {
    const found = SLIP_KINDS.map((kind) => ({
      kind,
      share: Array.from({ length: LOGS }, (_, i) => slipFound(TANKS.box, kind, 1000 + i)).filter(Boolean).length / LOGS,
    }));
    const value = Math.min(...found.map(({ share }) => share));
    return {
      name: 'pour-slips',
      value,
      unit: 'of the logs',
      ratio: null,
      goal: FOUND_GOAL,
      met: value >= FOUND_GOAL,
      reference: found.map(({ kind, share }) => `${kind} ${share}`).join(', '),
    };
  },
};

/** Over drawn truths: how often what is stated as two standard deviations, or as 95 in 100, holds. */
export const pourCoverage: Bench = {
  name: 'pour-coverage',
  async run() {
    const found = Object.entries(TANKS).map(([name, tank]) => ({ name, ...coverage(tank, 2000, COVERED_LOGS) }));
    const shares = found.flatMap(({ inside_ratio, curveInside_ratio }) => [inside_ratio, curveInside_ratio]);
    const refused = found.reduce((sum, part) => sum + part.refused, 0);
    const value = Math.max(...shares.map((share) => Math.abs(share - 0.95)));
    return {
      name: 'pour-coverage',
      value,
      unit: 'from 0.95',
      ratio: null,
      goal: 0.02,
      met: refused === 0 && shares.every((share) => share >= COVERED[0] && share <= COVERED[1]),
      reference: `${refused} refused; ${found.map(({ name, inside_ratio, curveInside_ratio, slips }) => `${name}: unknowns ${inside_ratio.toFixed(3)}, curve ${curveInside_ratio.toFixed(3)}, ${slips} false slips`).join('; ')}`,
    };
  },
};
