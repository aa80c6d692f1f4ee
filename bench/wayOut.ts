import { readFileSync } from 'node:fs';
import { parseSystemText } from '../src/core/plan';
import { orderOut } from '../src/core/answers';
import { loadKernel } from '../src/core/geometry';
import { unwrap } from '../src/core/outcome';
import { findWay } from '../src/core/fit';
import { wayScenes } from '../tests/wayScenes';
import type { Bench } from './measure';

const GOAL_S = 1;

/** From the document to the order in which the snow vehicle's main tank comes out, each part with its way. */
export const wayOutSnow: Bench = {
  name: 'way-out',
  async run() {
    await loadKernel();
    const system = unwrap(parseSystemText(readFileSync('demo/snow-vehicle.json', 'utf8')));
    const from = performance.now();
    const order = orderOut(system, 'main', { seed: 1, mostSamples: 30_000 });
    const value = Number(((performance.now() - from) / 1000).toFixed(2));
    return {
      name: 'way-out',
      value,
      unit: 's',
      ratio: null,
      goal: GOAL_S,
      met: order.ok && value < GOAL_S,
      reference: order.ok ? `${order.value.length} parts in order, first run` : `none found: ${order.error.detail}`,
    };
  },
};

const SEEDS = [11, 12, 13, 14, 15];
const MOST_SAMPLES = 200_000;

/**
 * Places that were made with one way out: through turned and raised holes, slanted sleeves, round corners at 90 to 97 %
 * of the longest box, an S; half of them turned anyhow.
 */
export const wayScenesFound: Bench = {
  name: 'way-scenes',
  async run() {
    await loadKernel();
    const scenes = SEEDS.flatMap((seed) => wayScenes(seed).map((scene) => ({ seed, scene })));
    const times: number[] = [];
    const missed: string[] = [];
    for (const { seed, scene } of scenes) {
      const from = performance.now();
      const way = findWay(scene.part, scene.blockers, { seed: 1, mostSamples: MOST_SAMPLES });
      times.push((performance.now() - from) / 1000);
      if (!way.ok || !way.value.check.isOut) missed.push(`${scene.name} (${seed})`);
    }
    times.sort((a, b) => a - b);
    const value = (scenes.length - missed.length) / scenes.length;
    return {
      name: 'way-scenes',
      value,
      unit: 'of the ways found',
      ratio: null,
      goal: 1,
      met: missed.length === 0,
      reference: `${scenes.length} places, median ${times[times.length >> 1]!.toFixed(1)} s, longest ${times.at(-1)!.toFixed(1)} s${missed.length > 0 ? `; not found: ${missed.join(', ')}` : ''}`,
    };
  },
};
