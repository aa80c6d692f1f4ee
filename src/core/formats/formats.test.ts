import { describe, expect, it } from 'vitest';
import { boxMesh } from '../geometry';
import { cornerLetter, csvText, stlBytes, templateSvg } from '.';

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

describe('a template as SVG', () => {
  const svg = templateSvg({
    title: 'Lid <1> & "more"',
    loops: [
      [
        [0, 0],
        [0.2, 0],
        [0.2, 0.3],
        [0, 0.3],
      ],
      [
        [0.05, 0.05],
        [0.05, 0.1],
        [0.1, 0.05],
      ],
    ],
    circles: [{ name: 'Filler', at_m: [0.15, 0.25], diameter_m: 0.04 }],
    notes: ['A-B 200.0 mm'],
  });

  it('is at true size: a millimetre of the sheet is a unit of the drawing', () => {
    const [, width, height, box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([\d. ]+)"/.exec(svg)!;
    expect(box).toBe(`0 0 ${width} ${height}`);
    const xs = [...svg.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].slice(0, 4).map(([, x, y]) => [Number(x), Number(y)]);
    expect(Math.max(...xs.map(([x]) => x!)) - Math.min(...xs.map(([x]) => x!))).toBeCloseTo(200, 9);
    expect(Math.max(...xs.map(([, y]) => y!)) - Math.min(...xs.map(([, y]) => y!))).toBeCloseTo(300, 9);
    expect(svg).toContain('r="20"');
    expect(svg).toContain('h100v-2');
  });

  it('is well-formed whatever the names are', () => {
    expect(svg).toContain('Lid &lt;1&gt; &amp; &quot;more&quot;');
    const opened = [...svg.matchAll(/<(\w+)(?:\s[^>]*)?>/g)]
      .filter(([whole]) => !whole.endsWith('/>'))
      .map(([, tag]) => tag);
    const shut = [...svg.matchAll(/<\/(\w+)>/g)].map(([, tag]) => tag);
    expect(opened.sort()).toEqual(shut.sort());
  });

  it('letters corners past Z', () =>
    expect([0, 25, 26, 51, 52].map(cornerLetter)).toEqual(['A', 'Z', 'A2', 'Z2', 'A3']));
});
