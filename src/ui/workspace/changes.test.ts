import { describe, expect, it } from 'vitest';
import type { Numbers } from '@/core/answers';
import { failure, success } from '@/core/outcome';
import { movedText, movesBetween } from './changes';

const figure = (value: number, role: string) => success({ value, role } as never) as Numbers['holds'];
const NUMBERS = {
  holds: figure(0.179, 'tankVolume'),
  usable: figure(0.16, 'tankVolume'),
  delivers: figure(66.2 / 3.6e6, 'burn'),
  goes: figure(354e3, 'seaTrip'),
  gauge: figure(0.133, 'share'),
} as Numbers;

describe('what a change moved', () => {
  it('is nothing where every number reads as before, though it is another by rounding', () => {
    expect(movesBetween(NUMBERS, NUMBERS, 'metric')).toEqual([]);
    expect(movesBetween(NUMBERS, { ...NUMBERS, holds: figure(0.179 + 1e-9, 'tankVolume') }, 'metric')).toEqual([]);
  });

  it('is said with its unit once, in the reader’s units', () => {
    const after = { ...NUMBERS, delivers: figure(70 / 3.6e6, 'burn') };
    expect(movesBetween(NUMBERS, after, 'metric').map(movedText)).toEqual(['Delivers 66.2 → 70.0 L/h']);
    expect(movesBetween(NUMBERS, after, 'us').map(movedText)[0]).toMatch(/^Delivers 17\.5 → 18\.5 US gal\/h$/);
  });

  it('has as many digits as its spread leaves, as the number itself', () => {
    const after = { ...NUMBERS, delivers: figure(70 / 3.6e6, 'burn') };
    expect(movesBetween(NUMBERS, after, 'metric', { delivers: 9 / 3.6e6 }).map(movedText)).toEqual([
      'Delivers 66 → 70 L/h',
    ]);
  });

  it('what is not known any more, or is known now, is none', () => {
    const lost = { ...NUMBERS, goes: failure('no-range', 'range', 'No speed.') } as unknown as Numbers;
    expect(movesBetween(NUMBERS, lost, 'metric').map(movedText)).toEqual([
      expect.stringMatching(/^Goes 191 nmi → none$/),
    ]);
    expect(movesBetween(lost, NUMBERS, 'metric').map(movedText)).toEqual(['Goes none → 191 nmi']);
    expect(movesBetween(NUMBERS, undefined, 'metric')).toHaveLength(5);
  });
});
