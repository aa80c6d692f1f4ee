import { areaMark, circleMark, ofThing, textMark, type Drawing, type Place } from '../drawings';
import type { ProfilePoint } from '../shapes';
import { HIT_MM, middleOf, TEXT_MM, type Room } from './room';

/** A corner’s number stands so far from it, and what is drawn of it within so much. */
const [NUMBER_MM, ROUND_MM] = [5.3, 9];
const CORNER_MM = 2.1;
/** One that is a point has no size: no profile is drawn larger than this [mm of the sheet for a metre]. */
const MOST_MM_PER_M = 5300;

/** What the marks of a corner are of, by its number from 0. */
export const cornerId = (corner: number): string => `corner:${corner}`;

/** A profile to scale, upright as it is, each corner with its number. There is at least one corner. */
export function profileDrawing(
  title: string,
  points: readonly ProfilePoint[],
  room: Room,
): { readonly drawing: Drawing; readonly mmPerM: number } {
  const places = points.map(({ u_m, v_m }): Place => [u_m, -v_m]);
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const reach = (of: readonly number[]): number => Math.max(...of) - Math.min(...of);
  const mmPerM = Math.min(
    (room.width_mm - 2 * ROUND_MM) / reach(xs),
    (room.height_mm - 2 * ROUND_MM) / reach(ys),
    MOST_MM_PER_M,
  );
  const middle = middleOf(places);
  const at = ([x, y]: Place): Place => [
    room.width_mm / 2 + (x - middle[0]) * mmPerM,
    room.height_mm / 2 + (y - middle[1]) * mmPerM,
  ];
  const drawn = places.map(at);
  const [x0, y0] = [0, 1].map((k) => drawn.reduce((sum, place) => sum + place[k]! / drawn.length, 0)) as [
    number,
    number,
  ];
  return {
    mmPerM,
    drawing: {
      title,
      ...room,
      marks: [
        areaMark('metal', [drawn], 'sheet'),
        ...drawn.flatMap(([x, y], corner) => {
          // Numbers stand outside the outline.
          const away = Math.atan2(y - y0, x - x0);
          const number: Place = [x + NUMBER_MM * Math.cos(away), y + NUMBER_MM * Math.sin(away) + TEXT_MM * 0.35];
          return ofThing(cornerId(corner), [
            circleMark('none', [x, y], HIT_MM),
            circleMark('chosen', [x, y], CORNER_MM, 'paper'),
            textMark(number, String(corner + 1), TEXT_MM, { anchor: 'middle' }),
          ]);
        }),
      ],
    },
  };
}
