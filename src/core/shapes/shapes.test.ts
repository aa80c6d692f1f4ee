import { describe, expect, it } from 'vitest';
import { chosen, type ShapeDocument } from '@/core/plan';
import { shapeMesh, shapeSpan } from '@/core/model';
import { unwrap } from '@/core/outcome';
import { asKind, SHAPE_KINDS, shapeKind, type ShapeKind } from '.';

const BOX: ShapeDocument = { kind: 'box', length_m: chosen(0.8), width_m: chosen(0.5), height_m: chosen(0.3) };
/** A file makes the others; there is no choosing them. */
const KINDS = SHAPE_KINDS.filter((kind) => shapeKind({ kind }).start);
const to = (shape: ShapeDocument, kind: ShapeKind): ShapeDocument => asKind(shape, kind, shapeSpan(shape));

it('every kind has sizes, ends and outlines that its schema has', () => {
  for (const kind of SHAPE_KINDS) {
    const { sizes, ends = [], profiles = [], schema } = shapeKind({ kind });
    const keys = Object.keys((schema as unknown as { fields: object }).fields);
    for (const { key } of [...sizes, ...ends, ...profiles]) expect(keys, kind).toContain(key);
  }
});

describe('changing the kind of a shape', () => {
  it.each(KINDS.flatMap((from) => KINDS.map((kind) => [from, kind] as const)))(
    '%s to %s gives a body about as large',
    (from, kind) => {
      const shape = to(to(BOX, from), kind);
      expect(shape.kind).toBe(kind);
      unwrap(shapeMesh(shape));
      shapeSpan(shape).forEach((size) => {
        expect(size).toBeGreaterThan(0.1);
        expect(size).toBeLessThan(1.2);
      });
    },
  );

  it('to the same kind keeps it as it is', () => {
    expect(to(BOX, 'box')).toBe(BOX);
  });

  it('a box told as a profile and back keeps its sizes', () => {
    expect(to(to(BOX, 'prism'), 'box')).toEqual(BOX);
  });
});
