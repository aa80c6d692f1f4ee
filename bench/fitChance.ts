import { chanceAllPositive, seeded } from '../src/core/fit';
import type { Bench } from './measure';

const WORLDS = 3000;
const GAPS = 4;
/** Stated chances are put into so many classes. */
const CLASSES = 5;
const GOAL = 0.04;

/**
 * Whether the stated chance is what happens: worlds are drawn, measured with
 * errors, and the chance stated from the measurement is compared with how
 * often the tank then really fits, class by class.
 */
export const fitChance: Bench = {
  name: 'fit-chance',
  async run() {
    const chance = seeded(4);
    const classes = Array.from({ length: CLASSES }, () => ({ count: 0, stated: 0, fitted: 0 }));
    for (let world = 0; world < WORLDS; world++) {
      const moves = Array.from({ length: GAPS }, () => Array.from({ length: 6 }, () => 0.002 * chance.normal()));
      const errors = Array.from({ length: 6 }, () => chance.normal());
      const measured = Array.from({ length: GAPS }, () => 0.004 + 0.006 * chance.normal());
      // What is really there differs from what was measured by the errors.
      const real = measured.map((margin, g) => margin + moves[g]!.reduce((sum, move, j) => sum + move * errors[j]!, 0));
      const stated = chanceAllPositive(
        measured.map((margin_m, g) => ({
          margin_m,
          profiles: moves[g]!.map((move) => ({ at: [1], moves_m: [move] })),
        })),
      );
      const into = classes[Math.min(CLASSES - 1, Math.floor(stated * CLASSES))]!;
      into.count++;
      into.stated += stated;
      into.fitted += real.every((margin) => margin >= 0) ? 1 : 0;
    }
    const worst = Math.max(
      ...classes
        .filter(({ count }) => count > 100)
        .map(({ count, stated, fitted }) => Math.abs(stated - fitted) / count),
    );
    const value = Number(worst.toFixed(3));
    return {
      name: 'fit-chance',
      value,
      unit: 'worst gap between stated chance and share that fitted',
      ratio: null,
      goal: GOAL,
      met: value <= GOAL,
      reference: `${WORLDS} seeded worlds: ${classes.map(({ count, stated, fitted }) => (count ? `${(stated / count).toFixed(2)} said, ${(fitted / count).toFixed(2)} fitted` : '–')).join('; ')}`,
    };
  },
};
