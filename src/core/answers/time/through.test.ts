import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { airState } from '../../fluids';
import { checkedLaw, orificeLaw, solveGraph, ventLaw, type LossLaw } from '../../network';
import { unwrap } from '../../outcome';
import { flowThrough } from './through';

const AIR = airState(288.15, 101_325);
const WATER = { density_kgPerM3: 999, kinematicViscosity_m2PerS: 1.1e-6 };

describe('the flow through one law alone', () => {
  it('is what the network’s solver gives, shut valves and none at all included (seeded)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<(bore_m: number) => LossLaw>(
          (bore_m) => ventLaw(bore_m, 0.5, AIR),
          (bore_m) => ventLaw(bore_m, 0, AIR),
          (bore_m) => orificeLaw(bore_m, 0.61, WATER),
          (bore_m) => checkedLaw(ventLaw(bore_m, 0.1, AIR)),
        ),
        fc.double({ min: 5e-4, max: 0.05, noNaN: true }),
        fc.oneof(
          fc.constant(0),
          fc.double({ min: -5e4, max: 5e4, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
        ),
        fc.double({ min: -1e-2, max: 1e-2, noNaN: true }),
        (lawOf, bore_m, drop_Pa, start_m3PerS) => {
          const law = lawOf(bore_m);
          const flow = flowThrough(law, drop_Pa, start_m3PerS);
          expect(flow).toBeDefined();
          const nodes = [
            { id: 'a', fixed_Pa: drop_Pa },
            { id: 'b', fixed_Pa: 0 },
          ];
          const { flow_m3PerS } = unwrap(solveGraph({ nodes, links: [{ id: 'l', from: 0, to: 1, law }] }));
          // Both meet what is given: the solver to a ten-thousandth of a pascal, and to a milliardth of it.
          const loss_Pa = (each: number): number => law(each).pressure_Pa + each;
          expectClose(loss_Pa(flow!), drop_Pa, { rel: 1e-12, abs: 1e-8, why: 'its own law' });
          expectClose(loss_Pa(flow_m3PerS[0]!), loss_Pa(flow!), { rel: 2e-9, abs: 2e-4, why: 'the network solver' });
        },
      ),
      { seed: 808, numRuns: 400 },
    );
  });
});
