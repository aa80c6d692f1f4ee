import { describe, expect, it } from 'vitest';
import type { FoundUnknown } from '@/core/gauge';
import type { CalibrationData } from '@/core/answers';
import { explanations, readingText } from './calibrationWords';

const data = (unknowns: readonly FoundUnknown[], more: object = {}): CalibrationData =>
  ({
    channel: 'resistance',
    lines: [{ id: 'a' }, { id: 'b' }],
    explained: {
      ok: true,
      value: {
        unknowns,
        noise: 1,
        farOff: [],
        miscounted: [],
        before_ratio: 0.004,
        after_ratio: 0.003,
        iterations: 3,
        curve: [],
        ...more,
      },
    },
  }) as unknown as CalibrationData;
const found = (key: FoundUnknown['key'], value: number, sigma: number): FoundUnknown => ({ key, value, sigma });
const sentences = (unknowns: readonly FoundUnknown[], more?: object): string =>
  explanations(data(unknowns, more), 'metric').join(' ');

describe('why it does not read as planned, in a builder’s words', () => {
  it('what stands out is said with how surely, the surest first', () => {
    const text = sentences([found('volume', -0.04, 0.005), found('lowered', 0.008, 0.0005)]);
    expect(text).toContain('The tank holds 4.0 % less than drawn (± 1.0 %).');
    expect(text).toContain('The sender sits 8 mm lower than planned (± 1 mm).');
    expect(text.indexOf('sits')).toBeLessThan(text.indexOf('holds'));
  });

  it('what does not stand out is not said', () => {
    expect(sentences([found('volume', 0.01, 0.02), found('lowered', 0.0001, 0.00001)])).toContain('Nothing stands out');
  });

  it('two that read alike are told as likely, not as found', () => {
    const text = sentences([found('volume', -0.029, 0.017), found('lowered', 0.0057, 0.0038)], {
      before_ratio: 0.031,
      after_ratio: 0.002,
    });
    expect(text).toContain('these pours alone do not tell why');
    expect(text).toContain('to tell them apart');
    expect(text).not.toContain('Nothing stands out');
  });

  it('a float that sticks, and a reading to look at again by its line', () => {
    const text = sentences([], { stuckBelow_m3: 0.012, farOff: ['b'] });
    expect(text).toContain('The float sticks below 12.0 L.');
    expect(text).toContain('(line 2): look at it again');
  });

  it('a log too short says what it wants', () => {
    expect(
      explanations(
        {
          ...data([]),
          explained: { ok: false, error: { code: 'too-few', at: 'log', detail: 'At least 4 readings.' } },
        },
        'metric',
      ),
    ).toEqual(['At least 4 readings.']);
  });

  it('readings stand with their units', () => {
    expect([
      readingText({ kind: 'resistance', reading_ohm: 103.4 }, 'metric'),
      readingText({ kind: 'voltage', reading_V: 2.5 }, 'metric'),
      readingText({ kind: 'needle', shown_ratio: 0.4 }, 'metric'),
      readingText({ kind: 'height', height_m: 0.1 }, 'us'),
      readingText({ kind: 'none' }, 'metric'),
    ]).toEqual(['103.4 Ω', '2.5 V', '40 %', '3 15/16 in', '']);
  });
});
