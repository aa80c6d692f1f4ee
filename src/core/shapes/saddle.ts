import type { InferType } from 'yup';
import { chosen } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import {
  ACROSS,
  doesNotFit,
  overall,
  overallSizes,
  overallStart,
  sectionMesh,
  sectionSize,
  sizeAlong_m,
  startAcross_m,
} from './section';
import { AXES_LEVEL, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('saddle'),
  ...overall(),
  axis: oneOf(AXES_LEVEL),
  leg_m: sectionSize('width of one leg'),
  tunnel_m: sectionSize('width of the tunnel'),
  tunnelHeight_m: sectionSize('height of the tunnel'),
});
type Saddle = InferType<typeof schema>;

/** Two legs and a bridge: a tank over a shaft, a pipe or a frame, which runs through the tunnel below it. */
export const saddle: ShapeKindOf<Saddle> & { readonly schema: typeof schema } = {
  schema,
  word: 'saddle',
  mesh(shape) {
    const [across, up] = [sizeAlong_m(shape, ACROSS[shape.axis][0]), shape.height_m.value];
    const [from, tunnel, high] = [shape.leg_m.value, shape.tunnel_m.value, shape.tunnelHeight_m.value];
    if (high >= up) return doesNotFit('tunnelHeight_m', 'The tunnel cuts the tank in two: make it lower.');
    if (from === 0 && tunnel >= across)
      return doesNotFit('leg_m', 'The tunnel leaves no leg: make it narrower, or enter a lower tank.');
    if (from + tunnel > across)
      return doesNotFit('tunnel_m', 'Leg and tunnel together are wider than the tank: make the tunnel narrower.');
    return sectionMesh(shape, shape.axis, [
      [0, 0],
      [from, 0],
      [from, high],
      [from + tunnel, high],
      [from + tunnel, 0],
      [across, 0],
      [across, up],
      [0, up],
    ]);
  },
  start(span) {
    const [across, up] = startAcross_m(span, 'x');
    return {
      ...overallStart(span),
      axis: 'x',
      leg_m: chosen(startSize(across * 0.35)),
      tunnel_m: chosen(startSize(across * 0.3)),
      tunnelHeight_m: chosen(startSize(up / 2)),
    };
  },
  sizes: [
    ...overallSizes,
    { key: 'leg_m', word: 'Leg, {lower}', along: ({ axis }) => ACROSS[axis][0], isSided: false },
    { key: 'tunnel_m', word: 'Tunnel, width', isSided: false },
    { key: 'tunnelHeight_m', word: 'Tunnel, height', isSided: false },
  ],
  axes: { word: 'Tunnel runs', options: { x: 'fore and aft', y: 'side to side' } },
};
