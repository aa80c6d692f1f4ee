import { expect, it } from 'vitest';
import { applied, RAISED_BY, SOUND, T, type Changes } from '../../../tests/raisedSystems';
import { evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import { chosen, type SystemDocument } from '../plan';
import { PEAKLESS_RATIO } from '../tank';
import { findingsOf } from '.';

const ID = 'inside.slosh-meets-movement';

it('foam takes the note of swinging in step away where it takes the peak, and only there', () => {
  const swinging = applied(SOUND, RAISED_BY[ID] as Changes);
  const seen = (foam: boolean, fluid: SystemDocument['fluids'][number]['fluid']) => {
    const system: SystemDocument = {
      ...(foam ? applied(swinging, [[`${T}foam_ratio`, chosen(0.001)]]) : swinging),
      fluids: swinging.fluids.map((each) => ({ ...each, fluid })),
    };
    const evaluation = unwrap(evaluateSystem(system));
    const damping = evaluation.tanks[0]!.inside.compartments[0]!.foam?.damping;
    return {
      least: damping ? Math.min(damping.lengthwise, damping.crosswise) : 0,
      noted: findingsOf(system, evaluation).some(({ id }) => id === ID),
    };
  };
  for (const fluid of ['petrol', 'diesel', 'engine-oil'] as const) {
    expect(seen(false, fluid)).toEqual({ least: 0, noted: true });
    const { least, noted } = seen(true, fluid);
    expect(noted).toBe(least <= PEAKLESS_RATIO);
  }
  expect(seen(true, 'petrol').noted).toBe(true);
  expect(seen(true, 'diesel').noted).toBe(false);
});
