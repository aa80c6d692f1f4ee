import type { Schema } from 'yup';
import type { ClosedMesh, LoftCode, Point2, Vec3, VesselCode } from '../geometry';
import type { Outcome } from '../outcome';
import { bounded, type FieldWords } from '../schema/known';
import { closed, listOf } from '../schema/tools';
import type { MeshTextCode } from './meshText';

export const AXES = ['x', 'y', 'z'] as const;
export type ShapeCode = LoftCode | VesselCode | MeshTextCode;

/** An outline in the two axes across the third, in order (y, z), (x, z) or (x, y). */
export const profile = () => listOf(closed({ u_m: bounded(-20, 20), v_m: bounded(-20, 20) }), 200);
/** How far its corners may be off. */
export const profileSpread = () =>
  bounded(0, 0.5)
    .optional()
    .meta({ label: 'corners of its profile', role: 'tape' } satisfies FieldWords);

export type ProfilePoint = { readonly u_m: number; readonly v_m: number };
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

/** A size as it is entered: sided ones are taken inside or outside, by what the tank says. */
export type ShapeSize = {
  readonly key: string;
  readonly word: string;
  /** What it is called where the body stands upright. */ readonly upright?: string;
  readonly isSided: boolean;
};
/** A size that is told by its side. */
export const sided = (key: string, word: string): ShapeSize => ({ key, word, isSided: true });

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
  readonly sizes: readonly ShapeSize[];
  /** Ends that are chosen, near and far. */ readonly ends?: readonly ShapeSize[];
  /** Outlines that are drawn, with what each is called. */
  readonly profiles?: readonly { readonly key: keyof D & string; readonly title: string }[];
};
/** Sizes of a new body are no finer than a millimetre, and none is less than the format takes [m]. */
export const startSize = (value_m: number): number => Math.max(0.02, Number(value_m.toFixed(3)));
