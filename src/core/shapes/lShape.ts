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
  kind: kindIs('l-shape'),
  ...overall(),
  axis: oneOf(AXES),
  cutAcross_m: sectionSize('width of the cut-out'),
  cutUp_m: sectionSize('height of the cut-out'),
  cutSide: oneOf(ENDS_OF_AXIS),
  cutEnd: oneOf(ENDS_OF_AXIS),
});
type LShape = InferType<typeof schema>;

/** A box without one of its edges: an L from the side, from the end or from above. */
export const lShape: ShapeKindOf<LShape> & { readonly schema: typeof schema } = {
  schema,
  word: 'L-shaped',
  mesh(shape) {
    const [across, up] = ACROSS[shape.axis].map((axis) => sizeAlong_m(shape, axis)) as [number, number];
    const [u, v] = [shape.cutAcross_m.value, shape.cutUp_m.value];
    if (u >= across) return doesNotFit('cutAcross_m', 'The cut-out takes the whole of one leg: make it narrower.');
    if (v >= up) return doesNotFit('cutUp_m', 'The cut-out takes the whole of one leg: make it lower.');
    // As told of a cut-out at the higher end of both.
    const section = mirrored(
      [
        [0, 0],
        [across, 0],
        [across, up - v],
        [across - u, up - v],
        [across - u, up],
        [0, up],
      ],
      [across, up],
      { across: shape.cutSide === 'lower', up: shape.cutEnd === 'lower' },
    );
    return sectionMesh(shape, shape.axis, section);
  },
  start(span) {
    const [across, up] = startAcross_m(span, 'y');
    return {
      ...overallStart(span),
      axis: 'y',
      cutAcross_m: chosen(startSize(across / 3)),
      cutUp_m: chosen(startSize(up / 2)),
      cutSide: 'higher',
      cutEnd: 'higher',
    };
  },
  sizes: [
    ...overallSizes,
    {
      key: 'cutAcross_m',
      word: 'Cut-out, width',
      byAxis: { y: 'Cut-out, length', z: 'Cut-out, length' },
      isSided: false,
    },
    { key: 'cutUp_m', word: 'Cut-out, height', byAxis: { z: 'Cut-out, width' }, isSided: false },
  ],
  axes: { word: 'L seen', options: { y: 'from the side', x: 'from the end', z: 'from above' } },
  choices: [
    { key: 'cutSide', word: 'Cut out at', along: ({ axis }) => ACROSS[axis][0] },
    { key: 'cutEnd', word: 'and at', along: ({ axis }) => ACROSS[axis][1] },
  ],
};
