import type { InferType } from 'yup';
import { loftMesh, type Point2 } from '../geometry';
import { chosen, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { ENDS_OF_AXIS } from './section';
import { AXES, sided, startSize, type ShapeKindOf } from './shape';

/** Across y and z the first of a rectangle's sides lies along the length. */
const ALONG = { y: 'Length, {lower} end', z: 'Length, {lower} end' };
const ALONG_FAR = { y: 'Length, {higher} end', z: 'Length, {higher} end' };
const LEVELS = [ENDS_OF_AXIS[0], 'middle', ENDS_OF_AXIS[1]] as const;

const schema = closed({
  kind: kindIs('tapered'),
  axis: oneOf(AXES),
  length_m: known(0.02, 20, 'length', 'tape'),
  nearAcross_m: known(0.005, 20, 'width of the near end', 'tape'),
  nearUp_m: known(0.005, 20, 'height of the near end', 'tape'),
  farAcross_m: known(0.005, 20, 'width of the far end', 'tape'),
  farUp_m: known(0.005, 20, 'height of the far end', 'tape'),
  level: oneOf(LEVELS),
});
type Tapered = InferType<typeof schema>;

/** A box from one rectangle to another: its sides mirror each other, and floor, middle or top is level. */
export const tapered: ShapeKindOf<Tapered> & { readonly schema: typeof schema } = {
  schema,
  word: 'tapered',
  mesh(shape) {
    const widest = Math.max(shape.nearAcross_m.value, shape.farAcross_m.value);
    const highest = Math.max(shape.nearUp_m.value, shape.farUp_m.value);
    const share = { lower: 0, middle: 0.5, higher: 1 }[shape.level];
    const end = (across: number, up: number): Point2[] => {
      const [u, v] = [(widest - across) / 2, (highest - up) * share];
      return [
        [u, v],
        [u + across, v],
        [u + across, v + up],
        [u, v + up],
      ];
    };
    return loftMesh(
      end(shape.nearAcross_m.value, shape.nearUp_m.value),
      end(shape.farAcross_m.value, shape.farUp_m.value),
      shape.axis,
      shape.length_m.value,
    );
  },
  start: ([length, width, height]) => ({
    axis: 'x',
    length_m: chosen(length),
    nearAcross_m: chosen(width),
    nearUp_m: chosen(height),
    farAcross_m: chosen(startSize(width * 0.7)),
    farUp_m: chosen(startSize(height * 0.7)),
    level: 'lower',
  }),
  sizes: [
    { ...sided('length_m', 'length'), byAxis: { y: 'width', z: 'height' } },
    { key: 'nearAcross_m', word: 'Width, {lower} end', byAxis: ALONG, isSided: false },
    { key: 'nearUp_m', word: 'Height, {lower} end', byAxis: { z: 'Width, {lower} end' }, isSided: false },
    { key: 'farAcross_m', word: 'Width, {higher} end', byAxis: ALONG_FAR, isSided: false },
    { key: 'farUp_m', word: 'Height, {higher} end', byAxis: { z: 'Width, {higher} end' }, isSided: false },
  ],
  axes: { word: 'Tapers', options: { x: 'along its length', y: 'across its width', z: 'upward' } },
  choices: [{ key: 'level', word: 'Straight along', along: ({ axis }) => (axis === 'z' ? 'y' : 'z'), hasMiddle: true }],
};
