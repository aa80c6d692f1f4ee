import { expect, it } from 'vitest';
import { INCH_M, inchFraction } from '@/core/units';
import { onTape, tapeSteps } from './tapeSteps';

it('places go by whole millimetres, or by sixteenths of an inch', () => {
  expect(onTape(0.1234, tapeSteps('metric'))).toBe(0.123);
  expect(onTape(0.3, tapeSteps('metric'))).toBe(0.3);
  for (const reader of ['us', 'imperial'] as const) {
    const at = onTape(0.1, tapeSteps(reader));
    expect(inchFraction(at)).toBe('3 15/16');
    expect(at).toBeCloseTo(3.9375 * INCH_M, 12);
  }
});

it('with shift it is so many steps', () => {
  expect(tapeSteps('metric').large_m / tapeSteps('metric').step_m).toBeCloseTo(10, 12);
  expect(tapeSteps('us').large_m / tapeSteps('us').step_m).toBeCloseTo(8, 12);
});
