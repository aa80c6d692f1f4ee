import { prismMesh, type ClosedMesh, type ExtrudeAxis, type Point2 } from '../geometry';
import { failure, type Outcome } from '../outcome';
import { chosen, known, type Known } from '../schema/known';
import type { Vec3 } from '../geometry';
import { sided, type ShapeCode } from './shape';

/**
 * What bodies have in common that are a box with something off it: their sizes over all, along x, y and z, and a
 * section across one of these, the same all along it.
 */
export const overall = () => ({
  length_m: known(0.02, 20, 'length', 'tape'),
  width_m: known(0.02, 20, 'width', 'tape'),
  height_m: known(0.02, 20, 'height', 'tape'),
});
export type Overall = { readonly length_m: Known; readonly width_m: Known; readonly height_m: Known };

/** How they are entered. */
export const overallSizes = [sided('length_m', 'length'), sided('width_m', 'width'), sided('height_m', 'height')];
/** The same for a new body. */
export const overallStart = ([length, width, height]: Vec3): Overall => ({
  length_m: chosen(length),
  width_m: chosen(width),
  height_m: chosen(height),
});

/** A size of a part of a section, which may be nothing [m]. */
export const sectionSize = (label: string) => known(0, 20, label, 'tape');

/** Which end of an axis: where its coordinate is least or greatest. */
export const ENDS_OF_AXIS = ['lower', 'higher'] as const;
export type EndOfAxis = (typeof ENDS_OF_AXIS)[number];

/** The two axes across a third, in the order in which a profile has them. */
export const ACROSS: Readonly<Record<ExtrudeAxis, readonly [ExtrudeAxis, ExtrudeAxis]>> = {
  x: ['y', 'z'],
  y: ['x', 'z'],
  z: ['x', 'y'],
};
const OVERALL_KEY: Readonly<Record<ExtrudeAxis, keyof Overall>> = { x: 'length_m', y: 'width_m', z: 'height_m' };
/** A body's size along an axis [m]. */
export const sizeAlong_m = (shape: Overall, axis: ExtrudeAxis): number => shape[OVERALL_KEY[axis]].value;
/** Of a new body: its sizes across an axis [m], as a profile has them. */
export const startAcross_m = (span_m: Vec3, axis: ExtrudeAxis): readonly [number, number] => {
  const [u, v] = ACROSS[axis];
  return [span_m['xyz'.indexOf(u)]!, span_m['xyz'.indexOf(v)]!];
};

/** A section turned end for end in either direction, so that a corner that is told of one side serves all four. */
export const mirrored = (
  points: readonly Point2[],
  [width_m, height_m]: readonly [number, number],
  { across, up }: { readonly across: boolean; readonly up: boolean },
): Point2[] => points.map(([u, v]) => [across ? width_m - u : u, up ? height_m - v : v]);

/** The same section all along an axis, without corners that fall together or lie in a straight side. */
export const sectionMesh = (
  shape: Overall,
  axis: ExtrudeAxis,
  section: readonly Point2[],
): Outcome<ClosedMesh, ShapeCode> => prismMesh(withoutIdle(section), axis, sizeAlong_m(shape, axis));

/** Of the larger coordinate: corners nearer than this to the chord of their neighbours are none. */
const IDLE_REL = 1e-9;

function withoutIdle(section: readonly Point2[]): Point2[] {
  const size = Math.max(...section.flat());
  const corners = section.filter(([u, v], i) => {
    const [a, b] = section[(i + 1) % section.length]!;
    return Math.hypot(u - a, v - b) > IDLE_REL * size;
  });
  return corners.filter((corner, i) => {
    const [before, after] = [corners.at(i - 1)!, corners[(i + 1) % corners.length]!];
    const [a, b] = [corner[0] - before[0], corner[1] - before[1]];
    const [c, d] = [after[0] - corner[0], after[1] - corner[1]];
    return Math.abs(a * d - b * c) > IDLE_REL * Math.hypot(a, b) * Math.hypot(c, d);
  });
}

/** What is to be said of a size that leaves nothing of the body. */
export const doesNotFit = (at: string, detail: string) => failure('does-not-fit' as const, at, detail);
