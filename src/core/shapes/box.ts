import type { InferType } from 'yup';
import { boxMesh } from '../geometry';
import { success } from '../outcome';
import { chosen, known } from '../schema/known';
import { closed, kindIs } from '../schema/tools';
import { sided, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('box'),
  length_m: known(0.02, 20, 'length', 'tape'),
  width_m: known(0.02, 20, 'width', 'tape'),
  height_m: known(0.02, 20, 'height', 'tape'),
});
type Box = InferType<typeof schema>;

export const box: ShapeKindOf<Box> & { readonly schema: typeof schema } = {
  schema,
  word: 'box',
  mesh: ({ length_m, width_m, height_m }) => success(boxMesh(length_m.value, width_m.value, height_m.value)),
  start: ([length, width, height]) => ({ length_m: chosen(length), width_m: chosen(width), height_m: chosen(height) }),
  sizes: [sided('length_m', 'length'), sided('width_m', 'width'), sided('height_m', 'height')],
};
