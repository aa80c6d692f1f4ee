import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import {
  boxMesh,
  combine,
  meshVolume,
  movedMesh,
  triangle,
  triangleCount,
  vesselMesh,
  type ClosedMesh,
} from '../geometry';
import { unwrap } from '../outcome';
import { readStl, stlBytes } from '.';

const text = (mesh: ClosedMesh, scale: number, keep = (_: number): boolean => true, turn = false): Uint8Array => {
  const facets = Array.from({ length: triangleCount(mesh) }, (_, i) => i)
    .filter(keep)
    .map((i) => {
      const corners = [...triangle(mesh, i)];
      if (turn) corners.reverse();
      return `facet normal 0 0 0\n outer loop\n${corners.map((corner) => `  vertex ${corner.map((value) => value * scale).join(' ')}\n`).join('')} endloop\nendfacet`;
    });
  return new TextEncoder().encode(`solid tank\n${facets.join('\n')}\nendsolid tank\n`);
};

describe('reading an STL', () => {
  it('what was written comes back, to single precision', () => {
    const vessel = unwrap(
      vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'torispherical', farEnd: 'elliptical' }),
    );
    expectClose(meshVolume(unwrap(readStl(stlBytes(vessel, 'tank'), 'mm'))), meshVolume(vessel), {
      rel: 1e-6,
      why: 'single precision',
    });
  });

  it.each([
    ['mm', 1000],
    ['in', 1 / 0.0254],
    ['m', 1],
  ] as const)('text in %s', (unit, scale) => {
    expectClose(meshVolume(unwrap(readStl(text(boxMesh(0.6, 0.4, 0.3), scale), unit))), 0.072, {
      rel: 1e-9,
      why: 'closed form',
    });
  });

  it.each<[string, Uint8Array, 'mm' | 'm', string, RegExp]>([
    ['a picture', new TextEncoder().encode('PNG...'), 'mm', 'not-stl', /not an STL/],
    ['a text cut off in the middle', text(boxMesh(1, 1, 1), 1).subarray(0, 700), 'm', 'not-stl', /ends too early/],
    ['a side left out', text(boxMesh(1, 1, 1), 1, (i) => i !== 3), 'm', 'open', /3 edges/],
    ['faces that look inward', text(boxMesh(1, 1, 1), 1, undefined, true), 'm', 'inside-out', /look inward/],
    ['millimetres taken for metres', text(boxMesh(600, 400, 300), 1), 'm', 'absurd-size', /600 m long/],
    ['metres taken for millimetres', text(boxMesh(1, 1, 1), 1), 'mm', 'absurd-size', /0\.001 m long/],
    [
      'not a number',
      new TextEncoder().encode('solid x\nvertex 0 0 zero\nvertex 0 1 0\nvertex 1 0 0\nendsolid'),
      'm',
      'not-stl',
      /not a number/,
    ],
  ])('%s is refused with what is wrong', (_, bytes, unit, code, detail) => {
    const read = readStl(bytes, unit);
    expect(read).toMatchObject({ ok: false, error: { code } });
    if (!read.ok) expect(read.error.detail).toMatch(detail);
  });

  it('text in capital letters', () => {
    const loud = new TextEncoder().encode(new TextDecoder().decode(text(boxMesh(0.6, 0.4, 0.3), 1)).toUpperCase());
    expectClose(meshVolume(unwrap(readStl(loud, 'm'))), 0.072, { rel: 1e-9, why: 'closed form' });
  });

  const [cube, inner] = [boxMesh(0.4, 0.3, 0.2), movedMesh(boxMesh(0.1, 0.1, 0.1), [0.1, 0.1, 0.05])];
  it.each<[string, Uint8Array[], string, RegExp]>([
    ['24 L drawn twice', [text(cube, 1), text(cube, 1)], 'counted-twice', /space twice/],
    ['a lower half upon the whole', [text(cube, 1), text(boxMesh(0.4, 0.3, 0.1), 1)], 'counted-twice', /space twice/],
    ['two that overlap flush', [text(cube, 1), text(movedMesh(cube, [0.2, 0, 0]), 1)], 'counted-twice', /space twice/],
    ['two face to face', [text(cube, 1), text(movedMesh(cube, [0.4, 0, 0]), 1)], 'counted-twice', /upon one/],
    ['an outward body within another', [text(cube, 1), text(inner, 1)], 'counted-twice', /lies in another/],
    [
      'a second body that is inside-out',
      [text(cube, 1), text(movedMesh(inner, [1, 0, 0]), 1, undefined, true)],
      'inside-out',
      /looks inward/,
    ],
  ])('%s is refused', (_, parts, code, detail) => {
    const read = readStl(new Uint8Array(parts.flatMap((part) => [...part])), 'm');
    expect(read).toMatchObject({ ok: false, error: { code } });
    if (!read.ok) expect(read.error.detail).toMatch(detail);
  });

  it.each<[string, Uint8Array[], number]>([
    ['a hollow', [text(cube, 1), text(inner, 1, undefined, true)], 0.023],
    ['a body beside another', [text(cube, 1), text(movedMesh(inner, [1, 0, 0]), 1)], 0.025],
    ['two that share an edge', [text(cube, 1), text(movedMesh(cube, [0.4, 0.3, 0]), 1)], 0.048],
  ])('%s is taken for what it is', (_, parts, volume_m3) => {
    expectClose(meshVolume(unwrap(readStl(new Uint8Array(parts.flatMap((part) => [...part])), 'm'))), volume_m3, {
      rel: 1e-9,
      why: 'closed form',
    });
  });

  it('bodies that run through each other are refused, and joined ones are taken', () => {
    const [a, b] = [boxMesh(1, 1, 1), movedMesh(boxMesh(1, 1, 1), [0.5, 0.4, 0.3])];
    const both = new Uint8Array([...text(a, 1), ...text(b, 1)]);
    expect(readStl(both, 'm')).toMatchObject({ ok: false, error: { code: 'crosses-itself' } });
    const joined = unwrap(combine(a, b, 'add'));
    expectClose(meshVolume(unwrap(readStl(text(joined, 1), 'm'))), 2 - 0.5 * 0.6 * 0.7, {
      rel: 1e-6,
      why: 'inclusion and exclusion',
    });
  });
});
