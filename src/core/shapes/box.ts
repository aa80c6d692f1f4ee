import type { InferType } from 'yup';
import { boxMesh } from '../geometry';
import { success } from '../outcome';
import { closed, kindIs } from '../schema/tools';
import { overall, overallSizes, overallStart } from './section';
import type { ShapeKindOf } from './shape';

const schema = closed({ kind: kindIs('box'), ...overall() });
type Box = InferType<typeof schema>;

export const box: ShapeKindOf<Box> & { readonly schema: typeof schema } = {
  schema,
  word: 'box',
  mesh: ({ length_m, width_m, height_m }) => success(boxMesh(length_m.value, width_m.value, height_m.value)),
  start: overallStart,
  sizes: overallSizes,
};
