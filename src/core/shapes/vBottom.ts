import type { InferType } from 'yup';
import { radians } from '../units';
import type { Point2 } from '../geometry';
import { chosen, known } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import { doesNotFit, overall, overallSizes, overallStart, sectionMesh, sectionSize } from './section';
import type { ShapeKindOf } from './shape';

const KEELS = ['lower', 'middle', 'higher'] as const;

const schema = closed({
  kind: kindIs('v-bottom'),
  ...overall(),
  deadrise_deg: known(0, 60, 'deadrise', 'slope'),
  flat_m: sectionSize('flat of the bottom'),
  keel: oneOf(KEELS),
});
type VBottom = InferType<typeof schema>;

/** A box whose floor rises to both sides from a keel, or from one side to the other, along its whole length. */
export const vBottom: ShapeKindOf<VBottom> & { readonly schema: typeof schema } = {
  schema,
  word: 'V-bottom',
  mesh(shape) {
    const [width, height, flat] = [shape.width_m.value, shape.height_m.value, shape.flat_m.value];
    if (flat > width)
      return doesNotFit('flat_m', 'The flat of the bottom is wider than the tank: enter no more than its width.');
    const sides = shape.keel === 'middle' ? 2 : 1;
    const rise = ((width - flat) / sides) * Math.tan(radians(shape.deadrise_deg.value));
    if (rise > height)
      return doesNotFit(
        'deadrise_deg',
        'At this deadrise the bottom comes out above the top: enter less deadrise, more height or less width.',
      );
    const [from, to] = {
      lower: [0, flat],
      middle: [(width - flat) / 2, (width + flat) / 2],
      higher: [width - flat, width],
    }[shape.keel] as [number, number];
    const section: Point2[] = [
      [from, 0],
      [to, 0],
      ...(to < width ? [[width, rise] as const] : []),
      [width, height],
      [0, height],
      ...(from > 0 ? [[0, rise] as const] : []),
    ];
    return sectionMesh(shape, 'x', section);
  },
  start: (span) => ({ ...overallStart(span), deadrise_deg: chosen(15), flat_m: chosen(0), keel: 'middle' }),
  sizes: [
    ...overallSizes,
    { key: 'deadrise_deg', word: 'Deadrise', isSided: false },
    { key: 'flat_m', word: 'Flat at the keel', isSided: false },
  ],
  choices: [{ key: 'keel', word: 'Keel', along: () => 'y', hasMiddle: true }],
};
