import { describe, expect, it } from 'vitest';
import { clockText } from './clock';

describe('a time in words', () => {
  it.each([
    [0, '0 s'],
    [0.04, '0 s'],
    [4.26, '4.3 s'],
    [9.96, '10 s'],
    [45.4, '45 s'],
    [59.6, '1 min'],
    [130, '2 min 10 s'],
    [3600, '1 h'],
    [3725, '1 h 2 min 5 s'],
    [7199.7, '2 h'],
    [12_240, '3 h 24 min'],
    [86_399, '1 d'],
    [90_000, '1 d 1 h'],
    [2 * 86_400 + 60, '2 d 1 min'],
  ])('%s s is %s', (time_s, words) => expect(clockText(time_s)).toBe(words));

  it('comes back to its time, to within what it leaves out', () => {
    const unit = { d: 86_400, h: 3600, min: 60, s: 1 } as const;
    for (let time_s = 0.1; time_s < 6e5; time_s *= 1.07) {
      const back = [...clockText(time_s).matchAll(/([\d.]+) (d|h|min|s)/g)].reduce(
        (sum, [, count, symbol]) => sum + Number(count) * unit[symbol as keyof typeof unit],
        0,
      );
      const off = time_s < 9.9 ? 0.05 : time_s < 7199 ? 0.5 : 30;
      expect(Math.abs(back - time_s)).toBeLessThanOrEqual(off + 1e-9);
    }
  });
});
