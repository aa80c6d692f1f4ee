import type { Place } from '../drawings';

/** Letters of a drawing, on screen and on paper [mm]: read at arm's length. */
export const TEXT_MM = 3.7;
export const SMALL_TEXT_MM = 3.4;
/** A thing that is pressed or dragged takes presses so far about it [mm]: 44 px across, at 96 px an inch. */
export const HIT_MM = 5.8;

/** The room that a drawing may take [mm]; it takes less in height where it needs less. */
export type Room = { readonly width_mm: number; readonly height_mm: number };

/** The middle of the box round places [mm]. */
export const middleOf = (points: readonly Place[]): Place => {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
};

/** Scales that a scale rule has. Common practice. */
const RULE_SCALES = [1, 2, 5, 10, 20, 50, 100] as const;

/** The first scale of a rule, one to so many, at which a drawing is no larger than at another. */
export const ruleScale = (least: number): number => RULE_SCALES.find((scale) => scale >= least) ?? RULE_SCALES.at(-1)!;
