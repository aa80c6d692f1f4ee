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
} from './section';
import { AXES_LEVEL, sided, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('wedge'),
  ...overall(),
  axis: oneOf(AXES_LEVEL),
  thinHeight_m: sectionSize('height of the thin end'),
  thinEnd: oneOf(ENDS_OF_AXIS),
  slopingFace: oneOf(ENDS_OF_AXIS),
});
type Wedge = InferType<typeof schema>;

/** A box of which floor or top slopes to a thin end. */
export const wedge: ShapeKindOf<Wedge> & { readonly schema: typeof schema } = {
  schema,
  word: 'wedge',
  mesh(shape) {
    const [run, high, thin] = [
      sizeAlong_m(shape, ACROSS[shape.axis][0]),
      shape.height_m.value,
      shape.thinHeight_m.value,
    ];
    if (thin > high)
      return doesNotFit('thinHeight_m', 'The thin end is higher than the tank: enter no more than its height.');
    // As told of a top that slopes to the higher end.
    const section = mirrored(
      [
        [0, 0],
        [run, 0],
        [run, thin],
        [0, high],
      ],
      [run, high],
      { across: shape.thinEnd === 'lower', up: shape.slopingFace === 'lower' },
    );
    return sectionMesh(shape, shape.axis, section);
  },
  start: (span) => ({
    ...overallStart(span),
    axis: 'y',
    thinHeight_m: chosen(startSize(span[2] / 2)),
    thinEnd: 'higher',
    slopingFace: 'higher',
  }),
  sizes: [...overallSizes, sided('thinHeight_m', 'height at the thin end')],
  axes: { word: 'Slopes', options: { y: 'along its length', x: 'across its width' } },
  choices: [
    { key: 'thinEnd', word: 'Thin end', along: ({ axis }) => ACROSS[axis][0] },
    { key: 'slopingFace', word: 'Sloping face', along: () => 'z' },
  ],
};
