import { describe, expect, it } from 'vitest';
import { boxMesh, meshVolume } from '@/core/geometry';
import { formatQuantity, parseQuantity, US_GALLON_M3 } from '@/core/units';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';

/** Common practice, no published source: volumes that builders have reckoned and filled. */
const inch = (text: string): number => unwrap(parseQuantity(text, { kind: 'length', unit: 'in' })).si;

describe('check values of the trade (common practice)', () => {
  it('a box of 60 x 15 x 23 in holds 89.6 US gal gross', () => {
    const box = boxMesh(inch('60'), inch('15'), inch('23'));
    expectClose(meshVolume(box) / US_GALLON_M3, 89.6, { abs: 0.05, why: 'given to a tenth' });
    expect(formatQuantity(meshVolume(box), 'tankVolume', { reader: 'us' }).text).toBe('89.6 US gal');
  });

  it('a box of 21 x 27 x 8.5 in holds 20.9 US gal', () => {
    expectClose(meshVolume(boxMesh(inch('21'), inch('27'), inch('8 1/2'))) / US_GALLON_M3, 20.9, {
      abs: 0.05,
      why: 'given to a tenth',
    });
  });

  it('a sump of 165 x 100 x 25 mm holds 0.41 L', () => {
    expectClose(meshVolume(boxMesh(0.165, 0.1, 0.025)) * 1e3, 0.41, { abs: 0.005, why: 'given to a hundredth' });
  });
});
