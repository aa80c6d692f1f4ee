import type { InferType } from 'yup';
import type { Vec3 } from '../geometry';
import type { Known } from '../schema/known';
import { byKind, keys } from '../schema/tools';
import { box } from './box';
import { cone } from './cone';
import { cylinder } from './cylinder';
import { loft } from './loft';
import { mesh } from './mesh';
import { lShape } from './lShape';
import { prism } from './prism';
import { saddle } from './saddle';
import { startSize, type ProfilePoint, type ShapeKindOf } from './shape';
import { stepped } from './stepped';
import { tapered } from './tapered';
import { tShape } from './tShape';
import { vBottom } from './vBottom';
import { wedge } from './wedge';

/** Every kind of body, in the order in which they are offered. */
export const SHAPES = {
  box,
  wedge,
  'v-bottom': vBottom,
  'l-shape': lShape,
  stepped,
  't-shape': tShape,
  saddle,
  tapered,
  cylinder,
  cone,
  prism,
  loft,
  mesh,
} as const;
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

/** A shape by what builders call it: a kind, and which of its names where it has several. */
export type NamedShape = { readonly id: string; readonly word: string; readonly kind: ShapeKind };

/** Every name that a body can be chosen by, in the order in which they are offered. */
export const NAMED_SHAPES: readonly NamedShape[] = SHAPE_KINDS.flatMap((kind): NamedShape[] => {
  const { word, names, start } = shapeKind({ kind });
  if (names) return names.map((name) => ({ id: name.id, word: name.word, kind }));
  return start ? [{ id: kind, word, kind }] : [];
});

/** What builders call a body: the last of its kind's names that holds for it. */
export function nameOfShape(document: ShapeDocument): NamedShape {
  const { word, names = [] } = shapeKind(document);
  const name = names.findLast(({ is }) => is(document));
  return { id: name?.id ?? document.kind, word: name?.word ?? word, kind: document.kind };
}

/**
 * The shape of another name that fills about the same room, keeping how sizes are known that both have; the very same
 * where only a file makes that kind, or it has that name already.
 */
export function asNamed(document: ShapeDocument, { id, kind }: NamedShape, span_m: Vec3): ShapeDocument {
  const { start, names } = shapeKind({ kind });
  const begin = names?.find((name) => name.id === id)?.start ?? start;
  if (id === nameOfShape(document).id || !begin) return document;
  const [length, width, height] = span_m.map((value) => startSize(value || UNKNOWN_M)) as [number, number, number];
  const begun = { kind, ...begin([length, width, height]) } as ShapeDocument;
  const kept = Object.entries(begun).filter(([key, value]) => isSame(document[key as keyof ShapeDocument], value));
  return { ...begun, ...Object.fromEntries(kept.map(([key]) => [key, document[key as keyof ShapeDocument]])) };
}
/** Whether a size of a new body is that of the old one, but for being rounded. */
const isSame = (old: unknown, begun: unknown): boolean =>
  isKnown(old) && isKnown(begun) && Math.abs(old.value - begun.value) <= STEP_M;
const isKnown = (value: unknown): value is Known => typeof value === 'object' && value !== null && 'origin' in value;
/** The step to which new sizes are rounded [m]. */
const STEP_M = 0.001;
/** What stands for the size of a body that makes no sense [m]. */
const UNKNOWN_M = 0.3;

export { ENDS_OF_AXIS } from './section';
export { AXES, type ProfilePoint, type ShapeChoice, type ShapeCode, type ShapeSize } from './shape';
export { meshText, textMesh, type MeshText, type MeshTextCode } from './meshText';
