import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { ofJob } from '../../../../tests/raisedSystems';
import { unwrap } from '../../outcome';
import { chosen, type SystemDocument } from '../../plan';
import { evaluateSystem } from '..';

const primings = (system: SystemDocument) => unwrap(evaluateSystem(system, 'full', 'without-fit')).lines!.primings;

/** A heater of 4 kW whose pump gives 0.04 mL a stroke, five times a second, through 3 m of 2 mm line. */
function heater(): SystemDocument {
  const system = ofJob('appliance', { run_m: 3 });
  return {
    ...system,
    conditions: { ...system.conditions, pumpVoltage_V: 12 },
    lines: system.lines.map((line) => ({ ...line, bore_m: chosen(0.002), length_m: chosen(1) })),
    components: system.components.map((part) =>
      part.kind === 'pump'
        ? {
            ...part,
            stroke_m3: chosen(0.04e-6),
            output_ratio: chosen(1),
            curve: [
              { flow_m3PerS: 0, rise_Pa: 25e3 },
              { flow_m3PerS: 0.2e-6, rise_Pa: 0 },
            ],
          }
        : part,
    ),
  };
}

describe('a dosing pump', () => {
  it('primes what is dry, and strokes as often as the heater burns: by hand', () => {
    const system = heater();
    const [priming] = primings(system);
    const [pickup] = system.tanks[0]!.pickups;
    // π/4 × 2² mm² = 3.142 mm²; three lines of a metre are 9.42 mL; the tube in the tank comes to it.
    const tube_m3 = priming!.dry_m3 - 3 * (Math.PI / 4) * 0.002 ** 2;
    const tube_m = tube_m3 / ((Math.PI / 4) * pickup!.bore_m.value ** 2);
    expect(tube_m).toBeGreaterThan(0);
    expect(tube_m).toBeLessThan(0.3);
    // 0.2 mL/s: a millilitre in five seconds.
    expectClose(priming!.time_s!, (priming!.dry_m3 / 1e-6) * 5, { rel: 1e-12, why: 'by hand' });
    const { burnFull_m3PerS, burnIdle_m3PerS } = system.consumers[0]!;
    expectClose(priming!.strokes!.full_perS, burnFull_m3PerS.value / 0.04e-6, { rel: 1e-12, why: 'by hand' });
    expectClose(priming!.strokes!.idle_perS, burnIdle_m3PerS.value / 0.04e-6, { rel: 1e-12, why: 'by hand' });
    expectClose(priming!.strokes!.most_perS, 5, { rel: 1e-12, why: '0.2 mL/s over 0.04 mL' });
  });

  it('strokes no more often at a lower voltage, and primes nothing while it stands still', () => {
    const system = heater();
    const low = { ...system, conditions: { ...system.conditions, pumpVoltage_V: 9 } };
    expectClose(primings(low)[0]!.strokes!.most_perS, 5 * (9 / 12), { rel: 1e-12, why: 'in step with its voltage' });
    const still = {
      ...system,
      components: system.components.map((part) => (part.kind === 'pump' ? { ...part, running: false } : part)),
    };
    expect(primings(still)[0]).not.toHaveProperty('time_s');
  });

  it('is told of each consumer with a pump, and of none on gravity', () => {
    expect(primings(ofJob('appliance', { from: 'tank' })).map(({ consumerName }) => consumerName)).toHaveLength(2);
    expect(primings(ofJob('bottle'))).toEqual([]);
    expect(primings(ofJob('main'))[0]).not.toHaveProperty('strokes');
  });
});
