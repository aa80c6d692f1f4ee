import { meshVolume } from '../../geometry';
import { tankBody } from '../../model';
import { failure, success, type Failure, type Outcome } from '../../outcome';
import { withValue } from '../../plan/edit';
import { limitsAt, wordsAt } from '../../plan/fields';
import type { Plan, SystemDocument } from '../../plan/schema';
import { shapeKind } from '../../shapes';

/** What a size must be for the tank to hold so much, and what it then holds, the size being rounded. */
export type SizeForVolume = { readonly value: number; readonly holds_m3: number };
export type SizeForVolumeCode = 'no-size' | 'bad-shape' | 'too-much' | 'too-little' | 'not-found';

/** Nobody sets out finer than this: tenths of a millimetre, and hundredths of a degree. */
const STEP = { tape: 1e-4, slope: 0.01 } as const;
/** Of the wanted volume: nearer than this is found. */
const FOUND_REL = 1e-9;
/** Where two tries are no more apart than any size has meaning, so much is rounding, and more is a leap. */
const LEAP_REL = 1e-5;
const SAME_SIZE = 1e-9;
/** Each step away from where the search begins is so much longer than the one before. */
const STRIDE = 1.6;
const FIRST_STRIDE = 0.1;
const MOST_LOOKS = 120;

/**
 * The size of a tank's first body at which the tank holds so much up to its fill limit on the level, with all that is
 * added to it, taken away and standing in it as they are; found from the present size onward, the nearest one either
 * way.
 *
 * @param key one of the body's sizes, such as `height_m`
 * @param wanted_m3 > 0
 * @source volume of each try by the tank's own body; a bracket by growing steps, then J. Illinois's regula falsi
 * (M. Dowell and P. Jarratt, BIT 11, 1971)
 */
export function sizeForVolume(
  plan: Plan,
  t: number,
  key: string,
  wanted_m3: number,
): Outcome<SizeForVolume, SizeForVolumeCode> {
  const tank = plan.tanks[t];
  const path = ['tanks', t, 'shape', key];
  if (!tank || !shapeKind(tank.shape).sizes.some((size) => size.key === key))
    return failure('no-size', path.join('.'), 'The tank has no such size.');
  const system = plan as SystemDocument;
  const words = wordsAt(system, path)!;
  const { min, max } = limitsAt(system, path);
  let evaluations = 0;
  let wrong: Failure | undefined;
  /** By how much the tank holds more than is wanted; nothing where none can be built of that size. */
  const excess = (value: number): number | undefined => {
    evaluations++;
    const changed = withValue(plan, [...path, 'value'], value);
    const made = tankBody(changed.tanks[t]!);
    if (!made.ok) {
      wrong = made.error;
      return undefined;
    }
    return meshVolume(made.value.space) * tank.fillLimit_ratio.value - wanted_m3;
  };
  const start = (tank.shape as unknown as Readonly<Record<string, { readonly value: number }>>)[key]!.value;
  const first = excess(start);
  if (first === undefined) return failure('bad-shape', path.join('.'), wrong!.detail);
  const found =
    first === 0
      ? start
      : nearest([start, first], excess, { min, max, enough: FOUND_REL * wanted_m3 }, () => evaluations < MOST_LOOKS);
  if (found === 'gave-out')
    return failure(
      'not-found',
      path.join('.'),
      `No ${words.label} was found in ${evaluations} tries: what can be built breaks off on the way. Set it by hand.`,
    );
  if (found === 'none') {
    const code = first < 0 ? 'too-much' : 'too-little';
    return failure(
      code,
      path.join('.'),
      first < 0
        ? `No ${words.label} that can be built makes it hold so much: change another size.`
        : `No ${words.label} that can be built makes it hold so little: change another size.`,
    );
  }
  const step = STEP[words.role === 'slope' ? 'slope' : 'tape'];
  const tidy = Math.min(max, Math.max(min, Number((Math.round(found / step) * step).toPrecision(9))));
  const left = excess(tidy);
  const value = left === undefined ? found : tidy;
  return success({ value, holds_m3: wanted_m3 + (left ?? excess(found)!) });
}

type Place = readonly [value: number, excess: number];
type Within = { readonly min: number; readonly max: number; readonly enough: number };

/** Where the excess is nothing: looked for to both sides by turns, each in steps that grow, up to what can be built. */
function nearest(
  start: Place,
  excess: (value: number) => number | undefined,
  within: Within,
  isPatient: () => boolean,
): number | 'none' | 'gave-out' {
  const sides = [1, -1].map((sign) => ({
    sign,
    last: start,
    stride: FIRST_STRIDE * Math.max(start[0], within.max / 1000),
    ended: false,
  }));
  while (isPatient() && sides.some(({ ended }) => !ended)) {
    for (const side of sides) {
      if (side.ended) continue;
      const [from] = side.last;
      const to = Math.min(within.max, Math.max(within.min, from + side.sign * side.stride));
      if (to === from) {
        side.ended = true;
        continue;
      }
      const here = excess(to);
      if (here === undefined) {
        // Nearer to what can be built, until the step is below what anyone sets out.
        side.stride /= 2;
        if (side.stride < STEP.tape) side.ended = true;
        continue;
      }
      if (here * side.last[1] <= 0) return root(side.last, [to, here], excess, within.enough, isPatient);
      side.last = [to, here];
      side.stride *= STRIDE;
    }
  }
  return sides.every(({ ended }) => ended) ? 'none' : 'gave-out';
}

/** Regula falsi between two places of different sign; the end that stays counts half. */
function root(
  [a, fa]: Place,
  [b, fb]: Place,
  excess: (value: number) => number | undefined,
  enough: number,
  isPatient: () => boolean,
): number | 'gave-out' {
  let [low, fLow, high, fHigh] = [a, fa, b, fb];
  if (fHigh === 0) return high;
  while (isPatient()) {
    const value = (low * fHigh - high * fLow) / (fHigh - fLow);
    const here = excess(value);
    if (here === undefined) return 'gave-out';
    if (Math.abs(here) <= enough) return value;
    if (Math.abs(high - low) < SAME_SIZE) return Math.abs(here) <= (LEAP_REL / FOUND_REL) * enough ? value : 'gave-out';
    if (here * fHigh < 0) [low, fLow] = [high, fHigh];
    else fLow /= 2;
    [high, fHigh] = [value, here];
  }
  return 'gave-out';
}
