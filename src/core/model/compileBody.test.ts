import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { boxMesh, meshVolume, revolvedMesh, triangleCount } from '../geometry';
import { unwrap } from '../outcome';
import {
  atConditionsOf,
  chosen,
  differences,
  draftSystem,
  measured,
  meshText,
  parseSystem,
  textMesh,
  withValue,
  type PartDocument,
  type PlateDocument,
  type TankDocument,
} from '../plan';
import { tankBody } from './';

const SYSTEM = draftSystem({
  name: 'Body',
  vehicle: 'road',
  consumer: 'diesel-engine',
  power_W: 40e3,
  holds_m3: 0.06,
  length_m: 0.8,
  width_m: 0.4,
  height_m: 0.25,
});
const TANK: TankDocument = SYSTEM.tanks[0]!;
const at = (x: number, y: number, z: number) => ({ x_m: chosen(x), y_m: chosen(y), z_m: chosen(z) });
const box = (l: number, w: number, h: number) => ({
  kind: 'box' as const,
  length_m: chosen(l),
  width_m: chosen(w),
  height_m: chosen(h),
});
const SUMP: PartDocument = {
  id: 'sump',
  name: 'Sump',
  operation: 'add',
  shape: box(0.165, 0.1, 0.025),
  ...at(0.3, 0.1, -0.025),
};
const body = (tank: Partial<TankDocument>) => unwrap(tankBody({ ...TANK, ...tank }));

describe('the body of a tank', () => {
  it('a sump adds its own volume and says so (check value: 165 x 100 x 25 mm is 0.41 L)', () => {
    const { changes, shell, pieces } = body({ parts: [SUMP] });
    expectClose(changes.get('sump')! * 1e3, 0.41, { abs: 0.005, why: 'given to a hundredth' });
    expectClose(meshVolume(shell), 0.08 + 0.0004125, { rel: 1e-12, why: 'sum' });
    expect(pieces).toBe(1);
  });

  it('a notch costs what it cuts, a part beside the tank is in pieces, one inside is idle', () => {
    expectClose(
      body({ parts: [{ ...SUMP, operation: 'take', shape: box(0.2, 0.4, 0.1), ...at(0, 0, 0.15) }] }).changes.get(
        'sump',
      )!,
      -0.008,
      { rel: 1e-10, why: 'closed form' },
    );
    expect(body({ parts: [{ ...SUMP, ...at(3, 0, 0) }] }).pieces).toBe(2);
    expect(body({ parts: [{ ...SUMP, ...at(0.3, 0.1, 0.1) }] }).idle).toEqual(['sump']);
  });

  it('what stands inside takes volume and leaves the walls', () => {
    const { shell, space, insideArea_m2 } = body({
      parts: [{ ...SUMP, operation: 'displace', ...at(0.3, 0.1, 0.05) }],
    });
    expectClose(meshVolume(shell), 0.08, { rel: 1e-12, why: 'walls' });
    expectClose(meshVolume(space), 0.08 - 0.0004125, { rel: 1e-10, why: 'less the module' });
    expectClose(insideArea_m2, 2 * (0.32 + 0.2 + 0.1), { rel: 1e-12, why: 'the module is not lined' });
  });

  it('a band taken out costs area times width', () => {
    expectClose(
      body({ slices: [{ id: 'band', name: 'Band', axis: 'x', at_m: chosen(0.4), width_m: chosen(0.05) }] }).changes.get(
        'band',
      )!,
      -0.05 * 0.1,
      { rel: 1e-10, why: 'closed form' },
    );
  });

  it('outside sizes: the wall is taken off, and its metal is the difference', () => {
    const { shell, metal_m3, outsideArea_m2 } = body({ dimensions: 'outside' });
    const inside = 0.794 * 0.394 * 0.244;
    expectClose(meshVolume(shell), inside, { rel: 1e-12, why: '3 mm off each side' });
    // The eight corner cubes are 8 x 27 mm³ of 3.8 L, and 24 of their faces 9 mm² each of 1.24 m².
    expectClose(metal_m3, 0.08 - inside - 8 * 0.003 ** 3, { rel: 1e-10, why: 'closed form less corner cubes' });
    expectClose(outsideArea_m2, 2 * (0.32 + 0.2 + 0.1) - 24 * 0.003 ** 2, {
      rel: 1e-10,
      why: 'as given less corner cubes',
    });
    expectClose(body({}).outsideArea_m2, 2 * (0.806 * 0.406 + 0.806 * 0.256 + 0.406 * 0.256), {
      rel: 2e-4,
      why: '3 mm on each side, corner cubes left out',
    });
  });

  it('foam and the metal of baffles take their share evenly', () => {
    expectClose(meshVolume(body({ foam_ratio: chosen(0.03) }).space), 0.08 * 0.97, { rel: 1e-12, why: 'closed form' });
    const plate: PlateDocument = {
      id: 'p',
      name: 'P',
      axis: 'x',
      at_m: chosen(0.4),
      thickness_m: chosen(0.003),
      cornerCut_m: chosen(0),
      topGap_m: chosen(0.025),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    };
    expectClose(meshVolume(body({ plates: [plate] }).space), 0.08 - 0.4 * 0.225 * 0.003, {
      rel: 1e-9,
      why: 'less the plate',
    });
  });

  it('baffles that leave no room are refused, and one that misses the tank is idle, as is a band beyond it', () => {
    const plate = (at_m: number, thickness_m: number): PlateDocument => ({
      id: `p-${at_m * 1000}`,
      name: 'P',
      axis: 'x',
      at_m: chosen(at_m),
      thickness_m: chosen(thickness_m),
      cornerCut_m: chosen(0),
      topGap_m: chosen(0),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    });
    const thick = Array.from({ length: 8 }, (_, i) => plate(0.06 + 0.02 * i, 0.03));
    expect(tankBody({ ...TANK, shape: box(0.22, 0.4, 0.25), plates: thick })).toMatchObject({
      ok: false,
      error: { code: 'nothing-left' },
    });
    expect(
      body({
        plates: [plate(3, 0.003)],
        slices: [{ id: 'band', name: 'Band', axis: 'x', at_m: chosen(2), width_m: chosen(0.1) }],
      }).idle,
    ).toEqual(['band', 'p-3000']);
  });

  it('a plate’s outline is trimmed where it begins and ends', () => {
    const short: PlateDocument = {
      id: 's',
      name: 'S',
      axis: 'x',
      at_m: chosen(0.4),
      thickness_m: chosen(0.003),
      from_m: chosen(0.1),
      to_m: chosen(0.25),
      cornerCut_m: chosen(0),
      topGap_m: chosen(0),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    };
    const [{ plate, area_m2 }] = body({ plates: [short] }).plates as [ReturnType<typeof body>['plates'][number]];
    expectClose(area_m2, 0.15 * 0.25, { rel: 1e-12, why: 'closed form' });
    expect([
      Math.min(...plate.outline.flat().map(([u]) => u)),
      Math.max(...plate.outline.flat().map(([u]) => u)),
    ]).toEqual([0.1, 0.25]);
  });

  it('edges of a box are its twelve', () => {
    expectClose(body({}).edges_m, 4 * (0.8 + 0.4 + 0.25), { rel: 1e-12, why: 'closed form' });
  });

  it('the same sizes give the same body whatever it is called and however it is known', () => {
    expect(tankBody({ ...TANK, name: 'Other', shape: { ...box(0.8, 0.4, 0.25), length_m: measured(0.8, 0.01) } })).toBe(
      tankBody(TANK),
    );
  });

  it('says which part fails', () => {
    const gone: TankDocument = {
      ...TANK,
      parts: [{ ...SUMP, name: 'Too much', operation: 'take', shape: box(3, 3, 3), ...at(-1, -1, -1) }],
    };
    expect(tankBody(gone)).toMatchObject({ ok: false, error: { code: 'nothing-left', at: 'Too much' } });
    expect(
      tankBody({
        ...TANK,
        dimensions: 'outside',
        shape: box(0.8, 0.02, 0.25),
        material: { ...TANK.material, thickness_m: chosen(0.012) },
      }),
    ).toMatchObject({ ok: false, error: { code: 'wall-too-thick' } });
  });
});

describe('a mesh in a document', () => {
  const mesh = boxMesh(0.5, 0.25, 0.125);
  const shaped = (shape: object): unknown =>
    withValue(SYSTEM as unknown, ['tanks', 0, 'shape'], { kind: 'mesh', file: 'x.stl', ...shape });

  it('comes back as it went in', () => {
    const back = unwrap(textMesh(meshText(mesh)));
    expect(triangleCount(back)).toBe(12);
    expect(meshVolume(back)).toBe(meshVolume(mesh));
    expect(parseSystem(shaped(meshText(mesh))).ok).toBe(true);
  });

  it.each<[string, object, string]>([
    ['not base64', { ...meshText(mesh), vertices_m: '%%%' }, 'tanks[0].shape.vertices_m'],
    ['half a corner', { ...meshText(mesh), vertices_m: 'AAAA' }, 'tanks[0].shape.vertices_m'],
    [
      'a side left out',
      { ...meshText(mesh), triangles: meshText({ ...mesh, triangles: mesh.triangles.slice(3) }).triangles },
      'tanks[0].shape.triangles',
    ],
    ['absurd in size', meshText(boxMesh(300, 1, 1)), 'tanks[0].shape'],
    [
      'more triangles than are taken',
      meshText(
        revolvedMesh(
          [
            [0, 0.2],
            [0.5, 0.2],
          ],
          'x',
          5100,
        ),
      ),
      'tanks[0].shape',
    ],
  ])('%s is refused with the path of its fault', (_, shape, path) => {
    expect(parseSystem(shaped(shape))).toMatchObject({ ok: false, error: { code: 'invalid', at: path } });
  });
});

describe('what the validator says of it', () => {
  it('is the same at the second look, with the path of where it then stands', () => {
    const bad = { kind: 'mesh', file: 'x.stl', ...meshText(boxMesh(250, 1, 1)) };
    const inPart: unknown = withValue(SYSTEM as unknown, ['tanks', 0, 'parts'], [{ ...SUMP, shape: bad }]);
    const inShape: unknown = withValue(SYSTEM as unknown, ['tanks', 0, 'shape'], bad);
    for (const [system, path] of [
      [inPart, 'tanks[0].parts[0].shape'],
      [inShape, 'tanks[0].shape'],
      [inPart, 'tanks[0].parts[0].shape'],
    ] as const) {
      expect(parseSystem(system)).toMatchObject({ ok: false, error: { at: path } });
    }
  });

  it('a baffle that ends before it begins is refused', () => {
    const plate = {
      id: 'p',
      name: 'P',
      axis: 'x',
      at_m: chosen(0.4),
      thickness_m: chosen(0.003),
      from_m: chosen(0.3),
      to_m: chosen(0.1),
      cornerCut_m: chosen(0),
      topGap_m: chosen(0),
      holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
    };
    expect(parseSystem(withValue(SYSTEM as unknown, ['tanks', 0, 'plates'], [plate]))).toMatchObject({
      ok: false,
      error: { code: 'invalid', at: 'tanks[0].plates[0].to_m.value' },
    });
    expect(
      parseSystem(withValue(SYSTEM as unknown, ['tanks', 0, 'plates'], [{ ...plate, to_m: chosen(0.35) }])).ok,
    ).toBe(true);
  });
});

describe('differences', () => {
  it('none but in name and conditions is none', () => {
    expect(
      differences(SYSTEM, {
        ...structuredClone(SYSTEM),
        name: 'Other',
        conditions: { ...SYSTEM.conditions, pitch_deg: 9 },
      }),
    ).toEqual([]);
  });

  it('a changed value, an added part and a removed line, each once', () => {
    const changed = withValue(
      withValue(structuredClone(SYSTEM), ['tanks', 0, 'shape', 'height_m'], measured(0.3, 0.002)),
      ['tanks', 0, 'parts'],
      [SUMP],
    );
    const after = { ...changed, lines: changed.lines.slice(1) };
    expect(
      differences(SYSTEM, after).map(({ path, before, after: now }) => [
        path.join('.'),
        before === undefined,
        now === undefined,
      ]),
    ).toEqual([
      ['tanks.0.parts.0', true, false],
      ['tanks.0.shape.height_m', false, false],
      ['lines.0', false, true],
    ]);
  });

  it('another kind of shape is one difference, and how a value is known is none', () => {
    expect(
      differences(SYSTEM, withValue(structuredClone(SYSTEM), ['tanks', 0, 'shape', 'kind'], 'cone')).map(({ path }) =>
        path.join('.'),
      ),
    ).toEqual(['tanks.0.shape']);
    expect(
      differences(
        SYSTEM,
        withValue(
          structuredClone(SYSTEM),
          ['tanks', 0, 'shape', 'height_m'],
          chosen(TANK.shape.kind === 'box' ? TANK.shape.height_m.value : 0),
        ),
      ),
    ).toEqual([]);
  });

  it('at the conditions of another, its own fills where the other has no such tank', () => {
    const other = {
      ...SYSTEM,
      conditions: { ...SYSTEM.conditions, roll_deg: 7, fills: [{ tank: 'elsewhere', fill_ratio: 0.1 }] },
    };
    expect(atConditionsOf(SYSTEM, other).conditions).toMatchObject({ roll_deg: 7, fills: SYSTEM.conditions.fills });
  });
});
