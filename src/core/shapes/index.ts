import type { InferType } from 'yup';
import type { Vec3 } from '../geometry';
import { byKind, keys } from '../schema/tools';
import { box } from './box';
import { cone } from './cone';
import { cylinder } from './cylinder';
import { loft } from './loft';
import { mesh } from './mesh';
import { prism } from './prism';
import { startSize, type ProfilePoint, type ShapeKindOf } from './shape';

/** Every kind of body, in the order in which they are offered. */
export const SHAPES = { box, prism, loft, cylinder, cone, mesh } as const;
export type ShapeKind = keyof typeof SHAPES;
export const SHAPE_KINDS = keys(SHAPES);

type Schemas = { readonly [K in ShapeKind]: (typeof SHAPES)[K]['schema'] };
export const shape = byKind(Object.fromEntries(SHAPE_KINDS.map((kind) => [kind, SHAPES[kind].schema])) as Schemas);
export type ShapeDocument = InferType<typeof shape>;

/** What there is to say of a body's kind, for bodies of any. */
export const shapeKind = ({ kind }: Pick<ShapeDocument, 'kind'>): ShapeKindOf<ShapeDocument> =>
  SHAPES[kind] as unknown as ShapeKindOf<ShapeDocument>;

/** A body's outlines, by the key that each stands under. */
export const profilesOf = (
  document: ShapeDocument,
): readonly { readonly key: string; readonly points: readonly ProfilePoint[] }[] =>
  (shapeKind(document).profiles ?? []).map(({ key }) => ({
    key,
    points: document[key] as unknown as readonly ProfilePoint[],
  }));

/** The shape of another kind that fills about the same room; the very same where only a file makes that kind. */
export function asKind(document: ShapeDocument, kind: ShapeKind, span_m: Vec3): ShapeDocument {
  const { start } = shapeKind({ kind });
  if (kind === document.kind || !start) return document;
  const [length, width, height] = span_m.map((value) => startSize(value || UNKNOWN_M)) as [number, number, number];
  return { kind, ...start([length, width, height]) } as ShapeDocument;
}
/** What stands for the size of a body that makes no sense [m]. */
const UNKNOWN_M = 0.3;

export { AXES, type ShapeCode, type ShapeSize } from './shape';
export { meshText, textMesh, type MeshText, type MeshTextCode } from './meshText';
