import type { InferType } from 'yup';
import { END_SHAPES, vesselMesh } from '../geometry';
import { chosen, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { AXES, sided, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('cylinder'),
  axis: oneOf(AXES),
  diameter_m: known(0.02, 10, 'diameter', 'tape'),
  shell_m: known(0, 20, 'straight shell', 'tape'),
  nearEnd: oneOf(END_SHAPES),
  farEnd: oneOf(END_SHAPES),
});
type Cylinder = InferType<typeof schema>;

export const cylinder: ShapeKindOf<Cylinder> & { readonly schema: typeof schema } = {
  schema,
  word: 'cylinder with ends',
  mesh: ({ diameter_m, shell_m, axis, nearEnd, farEnd }) =>
    vesselMesh({ radius_m: diameter_m.value / 2, shell_m: shell_m.value, axis, nearEnd, farEnd }),
  start: ([length, width, height]) => ({
    axis: 'x',
    diameter_m: chosen(startSize(Math.min(width, height))),
    shell_m: chosen(length),
    nearEnd: 'flat',
    farEnd: 'flat',
  }),
  sizes: [sided('diameter_m', 'diameter'), { key: 'shell_m', word: 'Straight shell', isSided: false }],
  ends: [
    { key: 'nearEnd', word: 'Near end', upright: 'Lower end', isSided: false },
    { key: 'farEnd', word: 'Far end', upright: 'Upper end', isSided: false },
  ],
};
