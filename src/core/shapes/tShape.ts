import type { InferType } from 'yup';
import { chosen } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import {
  ACROSS,
  doesNotFit,
  ENDS_OF_AXIS,
  mirrored,
  overall,
  overallSizes,
  overallStart,
  sectionMesh,
  sectionSize,
  sizeAlong_m,
  startAcross_m,
} from './section';
import { AXES, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('t-shape'),
  ...overall(),
  axis: oneOf(AXES),
  stem_m: sectionSize('width of the stem'),
  stemAt_m: sectionSize('place of the stem'),
  head_m: sectionSize('height of the head'),
  headEnd: oneOf(ENDS_OF_AXIS),
});
type TShape = InferType<typeof schema>;

/** A head over its whole width and a narrower stem: a T from the side, from the end or from above. */
export const tShape: ShapeKindOf<TShape> & { readonly schema: typeof schema } = {
  schema,
  word: 'T-shaped',
  mesh(shape) {
    const [across, up] = ACROSS[shape.axis].map((axis) => sizeAlong_m(shape, axis)) as [number, number];
    const [from, head] = [shape.stemAt_m.value, shape.head_m.value];
    const to = from + shape.stem_m.value;
    if (head > up)
      return doesNotFit('head_m', 'The head is more than the whole: enter no more than the size over all.');
    if (to > across) return doesNotFit('stemAt_m', 'The stem stands out beside the head: move it or make it narrower.');
    if (head === 0 || to === from)
      return doesNotFit(head === 0 ? 'head_m' : 'stem_m', 'Head and stem must both be above zero.');
    // As told of a head at the higher end.
    const section = mirrored(
      [
        [from, 0],
        [to, 0],
        [to, up - head],
        [across, up - head],
        [across, up],
        [0, up],
        [0, up - head],
        [from, up - head],
      ],
      [across, up],
      { across: false, up: shape.headEnd === 'lower' },
    );
    return sectionMesh(shape, shape.axis, section);
  },
  start(span) {
    const [across, up] = startAcross_m(span, 'x');
    const stem = startSize(across / 3);
    return {
      ...overallStart(span),
      axis: 'x',
      stem_m: chosen(stem),
      stemAt_m: chosen(startSize((across - stem) / 2)),
      head_m: chosen(startSize(up / 2)),
      headEnd: 'higher',
    };
  },
  sizes: [
    ...overallSizes,
    { key: 'stem_m', word: 'Stem, width', byAxis: { y: 'Stem, length', z: 'Stem, length' }, isSided: false },
    { key: 'stemAt_m', word: 'Stem, from the {lower}', along: ({ axis }) => ACROSS[axis][0], isSided: false },
    { key: 'head_m', word: 'Head, height', byAxis: { z: 'Head, width' }, isSided: false },
  ],
  axes: { word: 'T seen', options: { x: 'from the end', y: 'from the side', z: 'from above' } },
  choices: [{ key: 'headEnd', word: 'Head at', along: ({ axis }) => ACROSS[axis][1] }],
};
