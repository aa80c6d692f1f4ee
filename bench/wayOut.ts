import { readFileSync } from 'node:fs';
import { parseSystemText } from '../src/core/document';
import { orderOut } from '../src/core/evaluate';
import { loadKernel } from '../src/core/geometry';
import { unwrap } from '../src/core/outcome';
import type { Bench } from './measure';

const GOAL_S = 10;

/** From the document to the order in which the snow vehicle's main tank comes out, each part with its way. */
export const wayOutSnow: Bench = {
  name: 'way-out',
  async run() {
    await loadKernel();
    const system = unwrap(parseSystemText(readFileSync('demo/snow-vehicle.json', 'utf8')));
    const from = performance.now();
    const order = orderOut(system, 'main', { seed: 1, mostLooks: 30_000 });
    const value = Number(((performance.now() - from) / 1000).toFixed(2));
    return { name: 'way-out', value, unit: 's', ratio: null, goal: GOAL_S, met: order.ok && value < GOAL_S, reference: order.ok ? `${order.value.length} parts in order, first run` : `none found: ${order.error.detail}` };
  },
};
