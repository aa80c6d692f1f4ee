import { lineMark, textMark, type Mark, type Place } from './drawing';

/** Between what is measured and its extension lines, and how far these go on past the line with the arrows [mm]. */
const GAP_MM = 1;
const PAST_MM = 1.2;
/** Figures stand so far over their line [mm]. */
const OVER_MM = 0.9;
const TEXT_MM = 3.4;

/** Figures on lines this near to upright are read from the right, whichever way they lean [°]. */
const UPRIGHT_DEG = 15;
/** A turn as it is, or half a turn from it: figures are read from below or from the right. */
function readable(turn_deg: number): number {
  const most = 90 - UPRIGHT_DEG;
  return turn_deg >= most ? turn_deg - 180 : turn_deg < most - 180 ? turn_deg + 180 : turn_deg;
}

/**
 * The distance between two places as on a workshop drawing: extension lines, a line with two arrows, and the figure
 * over it, read from below or from the right.
 * @param away which way off what is measured, as a step of length 1
 * @param off_mm how far off the line with the arrows lies
 * @source ISO 129-1: presentation of dimensions; from memory
 */
export function dimensionMarks(from: Place, to: Place, away: Place, off_mm: number, text: string): Mark[] {
  const beside = (at: Place, by: number): Place => [at[0] + away[0] * by, at[1] + away[1] * by];
  const [a, b] = [beside(from, off_mm), beside(to, off_mm)];
  const turn_deg = readable((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI);
  const [dx, dy] = [Math.cos((turn_deg * Math.PI) / 180), Math.sin((turn_deg * Math.PI) / 180)];
  const middle: Place = [(a[0] + b[0]) / 2 + dy * OVER_MM, (a[1] + b[1]) / 2 - dx * OVER_MM];
  return [
    lineMark('dimension', beside(from, GAP_MM), beside(from, off_mm + PAST_MM)),
    lineMark('dimension', beside(to, GAP_MM), beside(to, off_mm + PAST_MM)),
    { ...lineMark('dimension', a, b), arrow: 'both' } as Mark,
    textMark(middle, text, TEXT_MM, { anchor: 'middle', isBold: true, turn_deg }),
  ];
}
