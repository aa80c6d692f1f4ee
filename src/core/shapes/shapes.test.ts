import { describe, expect, it } from 'vitest';
import { chosen, measured, type ShapeDocument } from '@/core/plan';
import { shapeMesh, shapeSpan } from '@/core/model';
import { unwrap } from '@/core/outcome';
import { asNamed, nameOfShape, NAMED_SHAPES, SHAPE_KINDS, shapeKind } from '.';

const BOX: ShapeDocument = { kind: 'box', length_m: chosen(0.8), width_m: chosen(0.5), height_m: chosen(0.3) };
const to = (shape: ShapeDocument, id: string): ShapeDocument =>
  asNamed(
    shape,
    NAMED_SHAPES.find((name) => name.id === id)!,
    shapeSpan(shape),
  );
const NAMES = NAMED_SHAPES.map(({ id }) => id);

it('every kind has sizes, ends and outlines that its schema has', () => {
  for (const kind of SHAPE_KINDS) {
    const { sizes, ends = [], profiles = [], choices = [], schema } = shapeKind({ kind });
    const keys = Object.keys((schema as unknown as { fields: object }).fields);
    for (const { key } of [...sizes, ...ends, ...profiles, ...choices]) expect(keys, kind).toContain(key);
  }
});

describe('changing the name of a shape', () => {
  it.each(NAMES.flatMap((from) => NAMES.map((id) => [from, id] as const)))(
    '%s to %s gives a body about as large',
    (from, id) => {
      const shape = to(to(BOX, from), id);
      expect(nameOfShape(shape).id).toBe(id);
      unwrap(shapeMesh(shape));
      shapeSpan(shape).forEach((size) => {
        expect(size).toBeGreaterThan(0.05);
        expect(size).toBeLessThan(1.2);
      });
    },
  );

  it('to the same name keeps it as it is', () => {
    for (const id of NAMES) {
      const shape = to(BOX, id);
      expect(to(shape, id)).toBe(shape);
    }
  });

  it('a box told as a profile and back keeps its sizes', () => {
    expect(to(to(BOX, 'prism'), 'box')).toEqual(BOX);
  });

  it('a size that both have stays as it was measured', () => {
    const measuredBox = { ...BOX, length_m: measured(0.8004, 0.002) };
    for (const id of ['wedge', 'v-bottom', 'l-shape', 'stepped', 't-shape', 'saddle', 'tapered', 'prism'])
      expect(to(measuredBox, id), id).toMatchObject({ length_m: measuredBox.length_m });
  });
});
