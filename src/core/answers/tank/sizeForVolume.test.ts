import { beforeAll, describe, expect, it } from 'vitest';
import { loadKernel } from '../../geometry';
import { compileTank } from '../../model/compileTank';
import { unwrap } from '../../outcome';
import { assumed, chosen, draftSystem, withValue, type ShapeDocument, type SystemDocument } from '../../plan';
import { seeded } from '../../seeded';
import { NAMED_SHAPES, asNamed, shapeKind } from '../../shapes';
import { sizeForVolume } from './sizeForVolume';

beforeAll(loadKernel);

const DRAFT = draftSystem({ name: 'x', vehicle: 'boat', consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.06 });
const BOX: ShapeDocument = { kind: 'box', length_m: chosen(0.8), width_m: chosen(0.5), height_m: chosen(0.3) };
const LIMIT = 0.95;

/** One bare tank of a shape, sizes inside, filled to 95 %. */
const withShape = (shape: ShapeDocument): SystemDocument => ({
  ...DRAFT,
  tanks: [
    {
      ...DRAFT.tanks[0]!,
      shape,
      dimensions: 'inside',
      fillLimit_ratio: chosen(LIMIT),
      parts: [],
      slices: [],
      plates: [],
    },
  ],
});
const holds = (system: SystemDocument): number => unwrap(compileTank(system, system.tanks[0]!)).gross_m3 * LIMIT;
const withSize = (system: SystemDocument, key: string, value: number): SystemDocument =>
  withValue(system, ['tanks', 0, 'shape', key, 'value'], value);

describe('a box: litres over the floor are its height', () => {
  it.each([0.02, 0.06, 0.114, 0.4, 1.9])('%d m³', (wanted) => {
    const { value, holds_m3 } = unwrap(sizeForVolume(withShape(BOX), 0, 'height_m', wanted));
    expect(Math.abs(value - wanted / (0.8 * 0.5 * LIMIT))).toBeLessThanOrEqual(5.1e-5);
    expect(holds_m3).toBeCloseTo(value * 0.8 * 0.5 * LIMIT, 9);
  });

  it('the same litres leave the size as it is', () => {
    const box = withShape(BOX);
    expect(unwrap(sizeForVolume(box, 0, 'length_m', holds(box))).value).toBeCloseTo(0.8, 9);
  });

  it('with a sump added, and a wall of its own', () => {
    const system = withShape(BOX);
    const withSump = withValue(
      system,
      ['tanks', 0, 'parts'],
      [
        {
          id: 'sump',
          name: 'Sump',
          operation: 'add',
          shape: { kind: 'box', length_m: chosen(0.2), width_m: chosen(0.2), height_m: chosen(0.05) },
          x_m: chosen(0.1),
          y_m: chosen(0.1),
          z_m: chosen(-0.05),
        },
      ],
    );
    const inside = unwrap(sizeForVolume(withSump, 0, 'height_m', 0.08)).value;
    expect(Math.abs(inside - (0.08 / LIMIT - 0.2 * 0.2 * 0.05) / 0.4)).toBeLessThanOrEqual(5.1e-5);
    const wall = 0.003;
    const outside = withValue(
      withValue(system, ['tanks', 0, 'dimensions'], 'outside'),
      ['tanks', 0, 'material', 'thickness_m'],
      assumed(wall, 0.0001),
    );
    const size = unwrap(sizeForVolume(outside, 0, 'height_m', 0.08)).value;
    expect(Math.abs(size - (0.08 / LIMIT / ((0.8 - 2 * wall) * (0.5 - 2 * wall)) + 2 * wall))).toBeLessThanOrEqual(
      5.1e-5,
    );
  });
});

it('a lying cylinder goes with the square of its diameter', () => {
  const round = asNamed(
    BOX,
    NAMED_SHAPES.find(({ id }) => id === 'round')!,
    [0.8, 0.5, 0.3],
  );
  const one = unwrap(sizeForVolume(withShape(round), 0, 'diameter_m', 0.05)).value;
  const four = unwrap(sizeForVolume(withShape(round), 0, 'diameter_m', 0.2)).value;
  expect(Math.abs(four / one - 2)).toBeLessThan(1e-3);
});

it('more deadrise holds less, so that fewer litres are found with more', () => {
  const hull = withShape(
    asNamed(
      BOX,
      NAMED_SHAPES.find(({ id }) => id === 'v-bottom')!,
      [0.8, 0.5, 0.3],
    ),
  );
  const { value } = unwrap(sizeForVolume(hull, 0, 'deadrise_deg', 0.09));
  // Half the width times the tangent is the rise; a quarter of the width times the rise is gone on each side.
  const gone = 0.8 * 0.5 * 0.3 - 0.09 / LIMIT;
  expect(Math.abs(value - (Math.atan((4 * gone) / (0.8 * 0.5 * 0.5)) * 180) / Math.PI)).toBeLessThanOrEqual(0.0051);
});

it('litres past what can be built are told as that, and neither size nor volume made up', () => {
  const hull = withShape(
    asNamed(
      BOX,
      NAMED_SHAPES.find(({ id }) => id === 'v-bottom')!,
      [0.8, 0.5, 0.3],
    ),
  );
  expect(sizeForVolume(hull, 0, 'deadrise_deg', 0.2)).toMatchObject({ ok: false, error: { code: 'too-much' } });
  expect(sizeForVolume(hull, 0, 'deadrise_deg', 0.01)).toMatchObject({ ok: false, error: { code: 'too-little' } });
  expect(sizeForVolume(hull, 0, 'diameter_m', 0.05)).toMatchObject({ ok: false, error: { code: 'no-size' } });
  expect(sizeForVolume(hull, 7, 'height_m', 0.05)).toMatchObject({ ok: false, error: { code: 'no-size' } });
});

describe('there and back: a size is put elsewhere, and its litres asked for from where it was', () => {
  const { uniform: chance } = seeded(404);
  const bodies = NAMED_SHAPES.filter(({ id }) => id !== 'prism' && id !== 'loft').map(({ id }) => id);
  it.each(bodies.flatMap((id) => [1, 2, 3].map((turn) => [id, turn] as const)))('%s, %i', (id) => {
    const system = withShape(
      asNamed(
        BOX,
        NAMED_SHAPES.find((name) => name.id === id)!,
        [0.8, 0.5, 0.3],
      ),
    );
    const { shape } = system.tanks[0]!;
    for (const { key } of shapeKind(shape).sizes) {
      const now = (shape as unknown as Record<string, { value: number }>)[key]!.value;
      const moved = withSize(system, key, Number((now * (0.8 + 0.4 * chance())).toFixed(4)));
      const made = compileTank(moved, moved.tanks[0]!);
      if (!made.ok) continue;
      const wanted = made.value.gross_m3 * LIMIT;
      const found = sizeForVolume(system, 0, key, wanted);
      // A size that moves no litres, such as where a stem stands, is found as it was, or is told.
      if (Math.abs(wanted - holds(system)) < 1e-9) continue;
      const { value, holds_m3 } = unwrap(found);
      expect(Math.abs(holds_m3 - wanted), key).toBeLessThan(2e-3 * wanted);
      expect(holds(withSize(system, key, value)), key).toBeCloseTo(holds_m3, 12);
    }
  });
});
