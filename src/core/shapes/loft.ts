import type { InferType } from 'yup';
import { loftMesh } from '../geometry';
import { chosen, known, ORIGINS } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { AXES, points, profile, profileSpread, rectangle, sided, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('loft'),
  axis: oneOf(AXES),
  length_m: known(0.02, 20, 'length', 'tape'),
  near: profile(),
  far: profile(),
  profileOrigin: oneOf(ORIGINS),
  profileSpread_m: profileSpread(),
});
type Loft = InferType<typeof schema>;

export const loft: ShapeKindOf<Loft> & { readonly schema: typeof schema } = {
  schema,
  word: 'from one profile to another',
  mesh: ({ near, far, axis, length_m }) => loftMesh(points(near), points(far), axis, length_m.value),
  start: ([length, width, height]) => ({
    axis: 'x',
    length_m: chosen(length),
    near: rectangle(width, height),
    far: rectangle(width, height),
    profileOrigin: 'chosen',
  }),
  sizes: [sided('length_m', 'length')],
  profiles: [
    { key: 'near', title: 'Near profile' },
    { key: 'far', title: 'Far profile' },
  ],
};
