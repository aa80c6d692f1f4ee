import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { pumpRise } from '../../../tests/independent/networkLaws';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { atVoltage, parsePumpCurve, pumpLaw, wiredPumpLaw, type PumpPoint } from '.';

const MOST_PA = 40e3;
const FREE_M3_PER_S = 45e-6;
const POINTS: readonly PumpPoint[] = [
  { flow_m3PerS: 0, rise_Pa: MOST_PA },
  { flow_m3PerS: 30e-6, rise_Pa: 25e3 },
  { flow_m3PerS: FREE_M3_PER_S, rise_Pa: 0 },
];
const CURVE = unwrap(parsePumpCurve(POINTS, 'Pump'));

/** A falling curve of two to five points, from shut off or from some flow on, down to nothing or not. */
function randomCurve(uniform: () => number): PumpPoint[] {
  const count = 2 + Math.floor(4 * uniform());
  const sorted = (): number[] => Array.from({ length: count }, () => 0.02 + uniform()).sort((a, b) => a - b);
  const [flows, rises] = [sorted(), sorted().reverse()];
  const [fromNone, toNone] = [uniform() < 0.8, uniform() < 0.8];
  return flows.map((flow, i) => ({
    flow_m3PerS: i === 0 && fromNone ? 0 : flow * 1e-4,
    rise_Pa: i === count - 1 && toNone ? 0 : rises[i]! * 1e5,
  }));
}

describe('a pump on its wires', () => {
  it('is a plain pump where both its drives are one', () => {
    const [wired, plain] = [unwrap(wiredPumpLaw(CURVE, 0.9, 0.9, 'Pump')), pumpLaw(atVoltage(CURVE, 0.9))];
    for (let flow = -2e-5; flow < 8e-5; flow += 1.7e-6) {
      expectClose(wired(flow).pressure_Pa, plain(flow).pressure_Pa, { rel: 1e-12, abs: 1e-9, why: 'nothing lost' });
      expectClose(wired(flow).slope_PaSPerM3, plain(flow).slope_PaSPerM3, { rel: 1e-12, why: 'nothing lost' });
    }
  });

  it('against a shut line: the root of its square, by hand', () => {
    // u = 1 − 0.2 u²: what it gives is u² of 40 kPa, and that share of a fifth is lost.
    const drive = (Math.sqrt(1.8) - 1) / 0.4;
    const law = unwrap(wiredPumpLaw(CURVE, 1, 0.8, 'Pump'));
    expectClose(-law(0).pressure_Pa, MOST_PA * drive * drive, { rel: 1e-14, why: 'closed form' });
    expectClose(-law(FREE_M3_PER_S).pressure_Pa, 0, { abs: 1e-9, why: 'moves freely on what it has then' });
  });

  it('takes no more than its largest current, however high its voltage', () => {
    const law = unwrap(wiredPumpLaw(CURVE, 1.4, 1.2, 'Pump'));
    expectClose(-law(0).pressure_Pa, MOST_PA * 1.2 ** 2, { rel: 1e-14, why: 'no more beyond' });
  });

  it('gives what halving for the voltage finds, falls with flow, and its slope is that of differences', () => {
    const { uniform } = seeded(15);
    let tried = 0;
    for (let n = 0; n < 400; n++) {
      const points = randomCurve(uniform);
      const curve = parsePumpCurve(points, 'Pump');
      if (!curve.ok) continue;
      const [voltageRatio, shutOffVoltageRatio] = [0.05 + 1.3 * uniform(), -0.5 + 1.8 * uniform()];
      const law = wiredPumpLaw(curve.value, voltageRatio, shutOffVoltageRatio, 'Pump');
      if (!law.ok) continue;
      tried++;
      const element = { kind: 'pump', curve: points, voltageRatio, shutOffVoltageRatio } as const;
      let before = Infinity;
      for (let i = -10; i <= 40; i++) {
        const flow = i * 4e-6 + 1e-7;
        const { pressure_Pa, slope_PaSPerM3 } = law.value(flow);
        const byHalving = pumpRise(element, flow);
        expectClose(-pressure_Pa, byHalving, { rel: 1e-9, abs: 1e-6, why: `curve ${n} at ${flow}` });
        expect(-pressure_Pa).toBeLessThan(before);
        before = -pressure_Pa;
        const step = 1e-10;
        const [left, right] = [-step, step].map((by) => law.value(flow + by).pressure_Pa) as [number, number];
        const [down, up] = [(pressure_Pa - left) / step, (right - pressure_Pa) / step];
        // At a corner of the curve either side's will do.
        const near = Math.abs(down - slope_PaSPerM3) < Math.abs(up - slope_PaSPerM3) ? down : up;
        expectClose(slope_PaSPerM3, near, { rel: 1e-3, abs: 10, why: `slope of curve ${n} at ${flow}` });
      }
    }
    expect(tried).toBeGreaterThan(200);
  });

  it('is refused just where a flow would have more than one voltage at which it rests', () => {
    const { uniform } = seeded(16);
    const seen = { refused: 0, given: 0 };
    for (let n = 0; n < 300; n++) {
      const curve = parsePumpCurve(randomCurve(uniform), 'Pump');
      if (!curve.ok) continue;
      const free = 0.1 + 0.9 * uniform();
      const shutOff = free + 1.2 * uniform();
      const law = wiredPumpLaw(curve.value, free, shutOff, 'Pump');
      const most = curve.value.points[0]!.rise_Pa;
      // Flow by rise: each rise has one drive, and on that the curve has one flow.
      const flowAt = (rise: number): number => {
        const drive = free + ((shutOff - free) * rise) / most;
        const given = (flow: number): number => -pumpLaw(atVoltage(curve.value, drive))(flow).pressure_Pa;
        let [low, high] = [-1e-2, 1e-2];
        for (let i = 0; i < 60; i++) {
          const middle = (low + high) / 2;
          if (given(middle) > rise) low = middle;
          else high = middle;
        }
        return (low + high) / 2;
      };
      const flows = Array.from({ length: 101 }, (_, i) => flowAt((most * i) / 100));
      const turns = flows.some((flow, i) => i > 0 && flow > flows[i - 1]! + 1e-9);
      if (turns) expect(law.ok).toBe(false);
      if (!law.ok) {
        expect(law.error.code).toBe('voltage-unsteady');
        // Where it hardly turns, so coarse a look may miss it.
        expect(Math.min(...flows.slice(1).map((flow, i) => flows[i]! - flow))).toBeLessThan(2e-6);
      }
      seen[law.ok ? 'given' : 'refused']++;
    }
    expect(Math.min(seen.given, seen.refused)).toBeGreaterThan(40);
  });
});
