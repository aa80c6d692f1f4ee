import { chosen, shapeSpan, type ShapeDocument } from '@/core/document';

export type ShapeKind = ShapeDocument['kind'];

const round = (value: number): number => Math.max(0.02, Number(value.toFixed(3)));
const rectangle = (u: number, v: number) =>
  [
    [0, 0],
    [u, 0],
    [u, v],
    [0, v],
  ].map(([a, b]) => ({ u_m: a!, v_m: b! }));

/** The shape of another kind that fills about the same room. */
export function asKind(shape: ShapeDocument, kind: ShapeKind): ShapeDocument {
  if (kind === shape.kind) return shape;
  const [length, width, height] = shapeSpan(shape).map((value) => round(value || 0.3)) as [number, number, number];
  switch (kind) {
    case 'box':
      return { kind, length_m: chosen(length), width_m: chosen(width), height_m: chosen(height) };
    case 'prism':
      return { kind, axis: 'x', length_m: chosen(length), profile: rectangle(width, height), profileOrigin: 'chosen' };
    case 'loft':
      return {
        kind,
        axis: 'x',
        length_m: chosen(length),
        near: rectangle(width, height),
        far: rectangle(width, height),
        profileOrigin: 'chosen',
      };
    case 'cylinder':
      return {
        kind,
        axis: 'x',
        diameter_m: chosen(round(Math.min(width, height))),
        shell_m: chosen(length),
        nearEnd: 'flat',
        farEnd: 'flat',
      };
    case 'cone':
      return {
        kind,
        axis: 'z',
        nearDiameter_m: chosen(round(Math.min(length, width) * 0.8)),
        farDiameter_m: chosen(round(Math.min(length, width))),
        length_m: chosen(height),
      };
    case 'mesh':
      return shape; // A file makes one; there is no choosing it.
  }
}
