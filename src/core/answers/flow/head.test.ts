import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { loadKernel, meshBounds } from '../../geometry';
import { inletNode } from '../../model/networkParts';
import { unwrap } from '../../outcome';
import { chosen, parseSystem, type SystemDocument } from '../../plan';
import { checkedAnswers, JOBS } from '../../plan/jobs';
import { seeded } from '../../seeded';
import { evaluateSystem } from '../evaluate';
import { askedNumbers, numbersOf } from '../numbers';
import { flowInputsOf } from './flowInputs';
import { steadySolution } from './flowSolve';
import { headOf } from './head';

beforeAll(loadKernel);

const job = JOBS.find(({ key }) => key === 'bottle')!;
const bottle = (holds_m3: number, above_m: number): SystemDocument =>
  unwrap(
    parseSystem(job.draft('A bottle', unwrap(checkedAnswers(job, { ...job.usual, holds_m3, above_m, power_W: 20e3 })))),
  );
const inputsOf = (system: SystemDocument) => {
  const inputs = flowInputsOf(system, system.consumers[0]);
  if (!inputs) throw new Error('No inputs.');
  return inputs;
};

describe('head over a consumer that gravity feeds', () => {
  it('standing level: its foot over the carburettor, and what stands in a box', () => {
    const system = bottle(1.5e-3, 0.5);
    const inputs = inputsOf(system);
    const [level] = inputs.levels;
    const { min, max } = meshBounds(level!.tank.mesh);
    // A box inside: its volume stands over its floor.
    const standing_m = level!.volume_m3 / ((max[0] - min[0]) * (max[1] - min[1]));
    const head = headOf(inputs, system.consumers[0]!)!;
    expectClose(head.now_m, 0.5 + standing_m, { abs: 1e-6, why: 'volume over area' });
    expect(head.last_m).toBeGreaterThanOrEqual(0.5);
    expect(head.last_m).toBeLessThan(0.51);
  });

  it('seeded bottles on slopes: a gauge at the inlet, with nothing drawn, reads it', () => {
    const { uniform } = seeded(17);
    let tried = 0;
    for (let n = 0; n < 60; n++) {
      const start = bottle(0.3e-3 + 4e-3 * uniform(), 0.1 + uniform());
      const system: SystemDocument = {
        ...start,
        conditions: {
          ...start.conditions,
          fills: [{ tank: 'bottle', fill_ratio: 0.3 + 0.65 * uniform() }],
          pitch_deg: 40 * (uniform() - 0.5),
          roll_deg: 40 * (uniform() - 0.5),
        },
      };
      const inputs = inputsOf(system);
      const consumer = system.consumers[0]!;
      const head = headOf(inputs, consumer)!;
      const still = steadySolution(inputs, [{ consumer: consumer.id, outflow_m3PerS: 0 }], consumer.id);
      if (!still.ok) continue;
      tried++;
      const weight = inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2;
      const gauge_Pa = still.value.solution.nodes.get(inletNode(consumer.id))!.gauge_Pa;
      expectClose(gauge_Pa / weight, head.now_m, { abs: 1e-6, why: 'liquid at rest' });
      expect(head.last_m).toBeLessThanOrEqual(head.now_m);
      expectClose(head.needed_m * weight, consumer.neededPressure_Pa.value, { rel: 1e-12, why: 'hydrostatics' });
    }
    expect(tried).toBeGreaterThan(40);
  });

  it('is asked for where gravity feeds, by the same rule that works it out, and nowhere else', () => {
    const system = bottle(1.5e-3, 0.5);
    const sucks = { ...system, consumers: [{ ...system.consumers[0]!, neededPressure_Pa: chosen(-2e3) }] };
    for (const each of [system, sucks]) {
      const asks = askedNumbers(each).includes('head');
      const evaluation = unwrap(evaluateSystem(each, 'numbers'));
      expect(numbersOf(each, evaluation).head.ok).toBe(asks);
      expect(asks).toBe(each === system);
    }
  });
});
