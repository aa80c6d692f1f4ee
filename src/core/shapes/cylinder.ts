import type { InferType } from 'yup';
import { END_SHAPES, vesselMesh } from '../geometry';
import { chosen, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { AXES, sided, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('cylinder'),
  axis: oneOf(AXES),
  diameter_m: known(0.002, 10, 'diameter', 'tape'),
  shell_m: known(0, 20, 'straight shell', 'tape'),
  nearEnd: oneOf(END_SHAPES),
  farEnd: oneOf(END_SHAPES),
});
type Cylinder = InferType<typeof schema>;

const flat = (axis: Cylinder['axis'], diameter_m: number, shell_m: number): Omit<Cylinder, 'kind'> => ({
  axis,
  diameter_m: chosen(Math.floor(1000 * Math.max(0.02, diameter_m)) / 1000),
  shell_m: chosen(shell_m),
  nearEnd: 'flat',
  farEnd: 'flat',
});
/** A half ellipse of 2:1 stands out by a quarter of the diameter at each end. */
const domed = (diameter_m: number, length_m: number): Omit<Cylinder, 'kind'> => ({
  ...flat('x', diameter_m, startSize(length_m - diameter_m / 2)),
  nearEnd: 'elliptical',
  farEnd: 'elliptical',
});

export const cylinder: ShapeKindOf<Cylinder> & { readonly schema: typeof schema } = {
  schema,
  word: 'cylinder with ends',
  mesh: ({ diameter_m, shell_m, axis, nearEnd, farEnd }) =>
    vesselMesh({ radius_m: diameter_m.value / 2, shell_m: shell_m.value, axis, nearEnd, farEnd }),
  start: ([length, width, height]) => flat('x', Math.min(width, height), length),
  sizes: [
    sided('diameter_m', 'diameter'),
    { key: 'shell_m', word: 'Length of shell', byAxis: { z: 'Height of shell' }, isSided: false },
  ],
  ends: [
    { key: 'nearEnd', word: '{lower} end', isSided: false },
    { key: 'farEnd', word: '{higher} end', isSided: false },
  ],
  names: [
    { id: 'round', word: 'round or pipe, lying', is: () => true, start: ([l, w, h]) => flat('x', Math.min(w, h), l) },
    {
      id: 'domed',
      word: 'round, domed ends',
      is: ({ nearEnd, farEnd }) => nearEnd !== 'flat' || farEnd !== 'flat',
      start: ([l, w, h]) => domed(Math.min(w, h), l),
    },
    {
      id: 'drum',
      word: 'drum, upright',
      is: ({ axis }) => axis === 'z',
      start: ([l, w, h]) => flat('z', Math.min(l, w), h),
    },
  ],
};
