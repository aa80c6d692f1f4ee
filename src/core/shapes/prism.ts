import type { InferType } from 'yup';
import { prismMesh } from '../geometry';
import { chosen, known, ORIGINS } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { AXES, points, profile, profileSpread, rectangle, sided, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('prism'),
  axis: oneOf(AXES),
  length_m: known(0.02, 20, 'length', 'tape'),
  profile: profile(),
  profileOrigin: oneOf(ORIGINS),
  profileSpread_m: profileSpread(),
});
type Prism = InferType<typeof schema>;

export const prism: ShapeKindOf<Prism> & { readonly schema: typeof schema } = {
  schema,
  word: 'profile, extruded',
  mesh: (shape) => prismMesh(points(shape.profile), shape.axis, shape.length_m.value),
  start: ([length, width, height]) => ({
    axis: 'x',
    length_m: chosen(length),
    profile: rectangle(width, height),
    profileOrigin: 'chosen',
  }),
  sizes: [sided('length_m', 'length')],
  profiles: [{ key: 'profile', title: 'Profile' }],
};
