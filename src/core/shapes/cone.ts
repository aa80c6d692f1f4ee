import type { InferType } from 'yup';
import { coneMesh } from '../geometry';
import { chosen, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { AXES, sided, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('cone'),
  axis: oneOf(AXES),
  nearDiameter_m: known(0, 10, 'near diameter', 'tape'),
  farDiameter_m: known(0, 10, 'far diameter', 'tape'),
  length_m: known(0.02, 20, 'length', 'tape'),
});
type Cone = InferType<typeof schema>;

export const cone: ShapeKindOf<Cone> & { readonly schema: typeof schema } = {
  schema,
  word: 'cone or tapered tube',
  mesh: ({ nearDiameter_m, farDiameter_m, length_m, axis }) =>
    coneMesh(nearDiameter_m.value / 2, farDiameter_m.value / 2, length_m.value, axis),
  start: ([length, width, height]) => ({
    axis: 'z',
    nearDiameter_m: chosen(startSize(Math.min(length, width) * 0.8)),
    farDiameter_m: chosen(startSize(Math.min(length, width))),
    length_m: chosen(height),
  }),
  sizes: [
    { key: 'nearDiameter_m', word: 'Diameter, {lower} end', isSided: false },
    { key: 'farDiameter_m', word: 'Diameter, {higher} end', isSided: false },
    sided('length_m', 'length'),
  ],
};
