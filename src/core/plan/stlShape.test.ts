import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { stlBytes } from '../formats';
import { boxMesh, combine, meshVolume, movedMesh, vesselMesh, type ClosedMesh } from '../geometry';
import { unwrap } from '../outcome';
import { seeded } from '../seeded';
import { parseSystem, stlShape, textMesh, type SystemDocument } from './';

const boat = JSON.parse(readFileSync('demo/crab-boat.json', 'utf8')) as SystemDocument;
const withShape = (shape: SystemDocument['tanks'][number]['shape']): SystemDocument => ({
  ...boat,
  tanks: [
    {
      ...boat.tanks[0]!,
      shape,
      parts: [],
      slices: [],
      plates: [],
      ports: [],
      pickups: [],
      senders: [],
      sightTubes: [],
      dipsticks: [],
      calibrations: [],
      built: [],
    },
  ],
  lines: [],
  mounts: [],
  fit: { ...boat.fit, removals: [], spots: [] },
  conditions: { ...boat.conditions, fills: [] },
});

describe('an STL as a document holds it', () => {
  it('is taken by the document’s validator, whatever is joined (seeded)', () => {
    const chance = seeded(12);
    for (let run = 0; run < 10; run++) {
      const some = (): ClosedMesh =>
        movedMesh(
          run % 2
            ? boxMesh(0.2 + chance.uniform(), 0.2 + chance.uniform(), 0.2 + chance.uniform())
            : unwrap(
                vesselMesh({
                  radius_m: 0.1 + 0.2 * chance.uniform(),
                  shell_m: 0.5,
                  axis: 'x',
                  nearEnd: 'torispherical',
                  farEnd: 'flat',
                }),
              ),
          [chance.uniform() / 3, chance.uniform() / 3, chance.uniform() / 3],
        );
      const body = unwrap(combine(some(), some(), 'add'));
      const taken = stlShape(stlBytes(body, 'x'), 'mm', 'joined\u202E.stl');
      if (!taken.ok) throw new Error(taken.error.detail);
      expect(parseSystem(withShape(taken.value.shape))).toMatchObject({ ok: true });
      expectClose(meshVolume(unwrap(textMesh(taken.value.shape))), meshVolume(body), {
        rel: 1e-5,
        why: 'single precision, twice',
      });
      expect(taken.value.shape.file).toBe('joined .stl');
    }
  });

  it('corners that single precision cannot keep apart in metres are refused, not saved as something else', () => {
    // 20 km from the file's origin a float keeps millimetres to 2 mm.
    const thin = stlShape(
      stlBytes(movedMesh(boxMesh(0.5, 0.4, 0.0005), [20_000, 0, 20_000]), 'thin'),
      'mm',
      'thin.stl',
    );
    expect(thin.ok).toBe(false);
  });
});
