import type { InferType } from 'yup';
import { chosen } from '../schema/known';
import { closed, kindIs, oneOf } from '../schema/tools';
import {
  ACROSS,
  doesNotFit,
  ENDS_OF_AXIS,
  mirrored,
  overall,
  overallSizes,
  overallStart,
  sectionMesh,
  sectionSize,
  sizeAlong_m,
} from './section';
import { AXES_LEVEL, startSize, type ShapeKindOf } from './shape';

const schema = closed({
  kind: kindIs('stepped'),
  ...overall(),
  axis: oneOf(AXES_LEVEL),
  firstRun_m: sectionSize('run to the first step'),
  firstRise_m: sectionSize('first step'),
  secondRun_m: sectionSize('run to the second step'),
  secondRise_m: sectionSize('second step'),
  deepEnd: oneOf(ENDS_OF_AXIS),
  steppedFace: oneOf(ENDS_OF_AXIS),
});
type Stepped = InferType<typeof schema>;

/** A box whose floor or top goes up in two steps, or in one where the second is nothing. */
export const stepped: ShapeKindOf<Stepped> & { readonly schema: typeof schema } = {
  schema,
  word: 'stepped',
  mesh(shape) {
    const [run, high] = [sizeAlong_m(shape, ACROSS[shape.axis][0]), shape.height_m.value];
    const first = { run: shape.firstRun_m.value, rise: shape.firstRise_m.value };
    const second = { run: shape.secondRun_m.value, rise: shape.secondRise_m.value };
    if (first.rise + second.rise >= high)
      return doesNotFit('secondRise_m', 'The steps together are as high as the tank: make them lower.');
    if (first.run + second.run === 0 ? first.rise + second.rise > 0 : first.run === 0 && first.rise > 0)
      return doesNotFit('firstRun_m', 'Nothing is as deep as the tank: the first step needs a run before it.');
    if (first.run + second.run > run)
      return doesNotFit('secondRun_m', 'The second step lies past the end of the tank: make the runs shorter.');
    // As told of a floor that goes up towards the higher end, from one corner to the next.
    const section = mirrored(
      [
        [0, 0],
        [first.run, 0],
        [first.run, first.rise],
        [first.run + second.run, first.rise],
        [first.run + second.run, first.rise + second.rise],
        [run, first.rise + second.rise],
        [run, high],
        [0, high],
      ],
      [run, high],
      { across: shape.deepEnd === 'higher', up: shape.steppedFace === 'higher' },
    );
    return sectionMesh(shape, shape.axis, section);
  },
  start(span) {
    const [length, , height] = span;
    return {
      ...overallStart(span),
      axis: 'y',
      firstRun_m: chosen(startSize(length / 3)),
      firstRise_m: chosen(startSize(height / 4)),
      secondRun_m: chosen(startSize(length / 3)),
      secondRise_m: chosen(startSize(height / 4)),
      deepEnd: 'lower',
      steppedFace: 'lower',
    };
  },
  sizes: [
    ...overallSizes,
    { key: 'firstRun_m', word: 'Run to the first step', isSided: false },
    { key: 'firstRise_m', word: 'First step', isSided: false },
    { key: 'secondRun_m', word: 'Run to the second step', isSided: false },
    { key: 'secondRise_m', word: 'Second step', isSided: false },
  ],
  axes: { word: 'Steps go', options: { y: 'along its length', x: 'across its width' } },
  choices: [
    { key: 'deepEnd', word: 'Deep end', along: ({ axis }) => ACROSS[axis][0] },
    { key: 'steppedFace', word: 'Steps in', along: () => 'z' },
  ],
};
