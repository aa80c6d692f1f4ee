import { describe, expect, it } from 'vitest';
import { chosen, shapeMesh, shapeSpan, type ShapeDocument } from '@/core/document';
import { unwrap } from '@/core/outcome';
import { asKind, type ShapeKind } from './shapeKinds';

const BOX: ShapeDocument = { kind: 'box', length_m: chosen(0.8), width_m: chosen(0.5), height_m: chosen(0.3) };
const KINDS: readonly ShapeKind[] = ['box', 'prism', 'loft', 'cylinder', 'cone'];

describe('changing the kind of a shape', () => {
  it.each(KINDS.flatMap((from) => KINDS.map((to) => [from, to] as const)))(
    '%s to %s gives a body about as large',
    (from, to) => {
      const shape = asKind(asKind(BOX, from), to);
      expect(shape.kind).toBe(to);
      unwrap(shapeMesh(shape));
      shapeSpan(shape).forEach((size) => {
        expect(size).toBeGreaterThan(0.1);
        expect(size).toBeLessThan(1.2);
      });
    },
  );

  it('to the same kind keeps it as it is', () => {
    expect(asKind(BOX, 'box')).toBe(BOX);
  });

  it('a box told as a profile and back keeps its sizes', () => {
    expect(asKind(asKind(BOX, 'prism'), 'box')).toEqual(BOX);
  });
});
