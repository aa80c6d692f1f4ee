import { describe, expect, it } from 'vitest';
import { boxMesh } from '../geometry';
import { csvText, stlBytes } from '.';

describe('CSV', () => {
  it('quotes only what needs it (RFC 4180)', () => {
    expect(
      csvText(
        ['depth_mm', 'a,b'],
        [
          [1.5, 'say "x"'],
          [2, 'plain'],
        ],
      ),
    ).toBe('depth_mm,"a,b"\r\n1.5,"say ""x"""\r\n2,plain\r\n');
  });
});

describe('STL', () => {
  const bytes = stlBytes(boxMesh(1, 0.5, 0.2), 'box');
  const view = new DataView(bytes.buffer);

  it('has a header that is not taken for text, a count, and fifty bytes a triangle', () => {
    expect(new TextDecoder().decode(bytes.subarray(0, 5))).not.toBe('solid');
    expect(view.getUint32(80, true)).toBe(12);
    expect(bytes.length).toBe(84 + 12 * 50);
  });

  it('encloses the same volume in cubic millimetres, and its normals are unit vectors', () => {
    let six = 0;
    for (let i = 0; i < 12; i++) {
      const at = (k: number): number => view.getFloat32(84 + i * 50 + 4 * k, true);
      expect(Math.hypot(at(0), at(1), at(2))).toBeCloseTo(1, 6);
      const [a, b, c] = [3, 6, 9].map((k) => [at(k), at(k + 1), at(k + 2)]) as [number[], number[], number[]];
      six +=
        a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
        a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
        a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
    }
    expect(six / 6 / (1000 * 500 * 200)).toBeCloseTo(1, 6);
  });
});
