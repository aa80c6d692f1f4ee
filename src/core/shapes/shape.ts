import type { Schema } from 'yup';
import type { ClosedMesh, ExtrudeAxis, LoftCode, Point2, Vec3, VesselCode } from '../geometry';
import type { Outcome } from '../outcome';
import { bounded, ORIGINS, type FieldWords, type Origin } from '../schema/known';
import { closed, listOf, oneOf } from '../schema/tools';
import type { MeshTextCode } from './meshText';

export const AXES = ['x', 'y', 'z'] as const;
/** Axes that lie level; across them a section has height. */
export const AXES_LEVEL = ['x', 'y'] as const;
export type ShapeCode = LoftCode | VesselCode | MeshTextCode | 'does-not-fit';

const cornerSpread = (label: string) =>
  bounded(0, 0.5)
    .optional()
    .meta({ label, role: 'tape' } satisfies FieldWords);

/**
 * An outline in the two axes across the third, in order (y, z), (x, z) or (x, y). Corners are known as the profile
 * says of them all, but those that say themselves how.
 */
export const profile = () =>
  listOf(
    closed({
      u_m: bounded(-20, 20),
      v_m: bounded(-20, 20),
      origin: oneOf(ORIGINS).optional(),
      spread_m: cornerSpread('corner of its profile'),
    }),
    200,
  );
/** How far its corners may be off. */
export const profileSpread = () => cornerSpread('corners of its profile');

export type ProfilePoint = {
  readonly u_m: number;
  readonly v_m: number;
  readonly origin?: Origin | undefined;
  readonly spread_m?: number | undefined;
};
/** Corners of a profile as points [m]. */
export const points = (list: readonly ProfilePoint[]): Point2[] => list.map(({ u_m, v_m }) => [u_m, v_m]);
/** Corners of a rectangle from the origin [m]. */
export const rectangle = (u: number, v: number): { u_m: number; v_m: number }[] =>
  [
    [0, 0],
    [u, 0],
    [u, v],
    [0, v],
  ].map(([a, b]) => ({ u_m: a!, v_m: b! }));

/**
 * A size as it is entered: sided ones are taken inside or outside, by what the tank says. In words, `{lower}` and
 * `{higher}` stand for what the ends of an axis are called, such as *rear* and *front*: the axis that the body runs
 * along, or another.
 */
export type ShapeSize<D = never> = {
  readonly key: string;
  readonly word: string;
  /** What it is called where the body runs along one axis. */
  readonly byAxis?: Readonly<Partial<Record<ExtrudeAxis, string>>>;
  readonly along?: (shape: D) => ExtrudeAxis;
  readonly isSided: boolean;
};
/** A choice of one end of an axis, or of its middle. */
export type ShapeChoice<D> = {
  readonly key: string;
  readonly word: string;
  readonly along: (shape: D) => ExtrudeAxis;
  readonly hasMiddle?: boolean;
};
/** What builders call a body of a kind that has several names. */
export type ShapeName<D> = {
  readonly id: string;
  readonly word: string;
  readonly is: (shape: D) => boolean;
  readonly start: (span_m: Vec3) => Omit<D, 'kind'>;
};
/** A size that is told by its side. */
export const sided = (key: string, word: string): ShapeSize<unknown> => ({ key, word, isSided: true });

/**
 * All that there is to say of one kind of body that tanks, parts of them and
 * what stands round them are put together from. `shapes/index.ts` lists the kinds.
 */
export type ShapeKindOf<D extends { readonly kind: string }> = {
  readonly schema: Schema<D>;
  /** What it is. */ readonly word: string;
  /** Wherever it lies; the tank frame begins at its lowest corner. */
  readonly mesh: (shape: D) => Outcome<ClosedMesh, ShapeCode>;
  /** One that fills about so much room [m]; none of what only a file makes. */
  readonly start?: (span_m: Vec3) => Omit<D, 'kind'>;
  readonly sizes: readonly ShapeSize<D>[];
  /** Which way it runs, where it is called anything else than that, and in what words. */
  readonly axes?: { readonly word: string; readonly options: Readonly<Partial<Record<ExtrudeAxis, string>>> };
  /** Which sides are which. */ readonly choices?: readonly ShapeChoice<D>[];
  /** Ends that are chosen, near and far. */ readonly ends?: readonly ShapeSize<D>[];
  /** Names that builders have for it, where one does not do. */ readonly names?: readonly ShapeName<D>[];
  /** Outlines that are drawn, with what each is called. */
  readonly profiles?: readonly { readonly key: keyof D & string; readonly title: string }[];
};
/** Sizes of a new body are no finer than a millimetre, and none is less than the format takes [m]. */
export const startSize = (value_m: number): number => Math.max(0.02, Number(value_m.toFixed(3)));
