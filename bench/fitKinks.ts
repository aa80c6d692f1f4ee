import { loadKernel } from '../src/core/geometry';
import { seeded } from '../src/core/seeded';
import { kinkyWorld, statedChance, trueChance } from '../tests/independent/fitWorlds';
import type { Bench } from './measure';

const WORLDS = 40;
const DRAWS = 4000;
const GOAL = 0.02;
/**
 * The chance found by so many draws strays itself; a world counts as off by what is over this many of its deviations.
 */
const OPEN_SIGMAS = 2;

/**
 * Worlds full of places where the nearest point changes: the chance stated against that of drawing every value and
 * measuring anew.
 */
export const fitKinks: Bench = {
  name: 'fit-kinks',
  async run() {
    await loadKernel();
    const chance = seeded(2024);
    const offs = Array.from({ length: WORLDS }, (_, world) => {
      const system = kinkyWorld(1000 + world);
      const [stated, real] = [statedChance(system), trueChance(system, DRAWS, chance)];
      const open = OPEN_SIGMAS * Math.sqrt(Math.max(real * (1 - real), 1 / DRAWS) / DRAWS);
      return { off: stated - real, sure: Math.max(0, Math.abs(stated - real) - open) };
    });
    const value = Number(Math.max(...offs.map(({ sure }) => sure)).toFixed(3));
    const raw = Math.max(...offs.map(({ off }) => Math.abs(off)));
    const mean = offs.reduce((sum, { off }) => sum + off, 0) / WORLDS;
    return {
      name: 'fit-kinks',
      value,
      unit: 'worst stated less true chance beyond what the draws leave open',
      ratio: null,
      goal: GOAL,
      met: value <= GOAL,
      reference: `${WORLDS} seeded worlds, ${DRAWS} draws each: ${raw.toFixed(3)} at worst with theirs, ${mean.toFixed(4)} in the mean`,
    };
  },
};
