import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import {
  AT_REST,
  pouring,
  rigReading,
  settledReading,
  stepRig,
  type RigReading,
  type RigSetup,
  type RigState,
} from './rig';

const SETUP: RigSetup = {
  seed: 3,
  readingAt: (volume, lowered) => 240 - 2070 * volume - 100 * lowered,
  brim_m3: 0.1,
  volume_ratio: -0.04,
  lowered_m: 0.008,
  noise_ratio: 0.002,
  span: 207,
  sticksBelow_ratio: 0,
  pulsesPerLitre: 50,
  meter_ratio: 0.02,
  digit: 0.1,
};

function run(setup: RigSetup, state: RigState, seconds: number): { state: RigState; readings: RigReading[] } {
  const readings: RigReading[] = [];
  let now = state;
  for (let t = 0; t < seconds; t += 0.2) {
    now = stepRig(setup, now, 0.2);
    readings.push(rigReading(setup, now));
  }
  return { state: now, readings };
}

describe('the simulated rig', () => {
  it('pours what it is told, and its meter counts what it counts, error and all', () => {
    const { state, readings } = run(SETUP, pouring(SETUP, AT_REST, 0.01, 0.0005), 40);
    expectClose(state.volume_m3, 0.01, { rel: 1e-9, why: 'all of it went in' });
    expect(readings.at(-1)!.pulses).toBe(Math.floor(10 * 50 * 1.02));
    expect(readings.at(-1)!.pouring).toBe(false);
  });

  it('takes no more than its brim, and gives no more than it holds', () => {
    const full = run(SETUP, pouring(SETUP, AT_REST, 0.5, 0.01), 60).state;
    expectClose(full.volume_m3, 0.096, { rel: 1e-9, why: 'it holds 4 % less than drawn' });
    expectClose(run(SETUP, pouring(SETUP, full, -1, 0.01), 60).state.volume_m3, 0, { abs: 1e-12, why: 'empty' });
  });

  it('swings after a pour, then settles on the truth', () => {
    const after = run(SETUP, pouring(SETUP, AT_REST, 0.02, 0.002), 10);
    expect(settledReading(after.readings.slice(0, 40), 20, 1)).toBeUndefined();
    const later = run(SETUP, after.state, 60);
    const settled = settledReading(later.readings, 20, 1)!;
    expectClose(settled, 240 - (2070 * 0.02) / 0.96 - 0.8, {
      abs: 0.5,
      why: 'the truth, within the noise of 20 readings',
    });
  });

  it('the same seed reads the same, another reads otherwise', () => {
    const one = run(SETUP, AT_REST, 5).readings;
    expect(run(SETUP, AT_REST, 5).readings).toEqual(one);
    expect(run({ ...SETUP, seed: 4 }, AT_REST, 5).readings).not.toEqual(one);
  });

  it('a float that sticks at the bottom, and one that dies half-way', () => {
    const sticky = { ...SETUP, sticksBelow_ratio: 0.2, noise_ratio: 0 };
    const low = run(sticky, pouring(sticky, AT_REST, 0.01, 0.01), 60).readings.at(-1)!.reading;
    expectClose(low, SETUP.readingAt(0.02 / 0.96, 0.008), { abs: 0.051, why: 'as with a fifth in it' });
    const dies = { ...SETUP, diesAt_ratio: 0.5, noise_ratio: 0 };
    const half = run(dies, pouring(dies, AT_REST, 0.06, 0.01), 60);
    const more = run(dies, pouring(dies, half.state, 0.02, 0.01), 60);
    expectClose(more.readings.at(-1)!.reading, half.readings.at(-1)!.reading, { abs: 1e-9, why: 'dead' });
  });
});
