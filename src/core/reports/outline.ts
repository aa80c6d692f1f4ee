import type { Template, TemplateHole } from '../answers';
import {
  areaMark,
  circleMark,
  labelled,
  lineMark,
  ofThing,
  type Drawing,
  type Mark,
  type Place,
  type Wish,
} from '../drawings';
import type { Point2 } from '../geometry';
import { letters, MOST_LETTERED, PAD_MM } from './face';
import { TEXT_MM, type Room } from './room';

export type OutlineLook = {
  readonly title: string;
  readonly room: Room;
  readonly length: (value_m: number) => string;
  /** Pages that it is printed on at true size: their names and corners, right and up from its lower left one [m]. */
  readonly pages?: readonly { readonly name: string; readonly min_m: Point2; readonly max_m: Point2 }[];
};

const LEAST_HOLE_MM = 0.5;
/** A shorter edge carries no length; the table beside it does [mm]. */
const LEAST_LABELLED_MM = 12;

/** The least width of a hole [m]. */
const acrossHole_m = (size: TemplateHole['size']): number =>
  'diameter_m' in size ? size.diameter_m : Math.min(size.width_m, size.height_m);

/** Size of a hole, in words. */
export const holeSizeWords = (size: TemplateHole['size'], length: (value_m: number) => string): string =>
  'diameter_m' in size ? `⌀ ${length(size.diameter_m)}` : `${length(size.width_m)} × ${length(size.height_m)}`;

/** The round ones, by number, that a template's own loops do not draw. */
export const roundHoles = (holes: readonly TemplateHole[]) =>
  holes.flatMap(({ at_m, size }, i) =>
    'diameter_m' in size ? [{ name: `${i + 1}`, at_m, diameter_m: size.diameter_m }] : [],
  );

/** A face as it is cut in card, with its corners, the lengths of its edges and its holes by number. */
export function outlineDrawing(template: Template, { title, room, length, pages = [] }: OutlineLook): Drawing {
  const mmPerM = Math.min(
    (room.width_mm - 2 * PAD_MM) / template.width_m,
    (room.height_mm - 2 * PAD_MM) / template.height_m,
  );
  const [width_mm, height_mm] = [room.width_mm, template.height_m * mmPerM + 2 * PAD_MM];
  const left = (width_mm - template.width_m * mmPerM) / 2;
  const place = ([u, v]: Point2): Place => [left + u * mmPerM, height_mm - PAD_MM - v * mmPerM];
  const outline = template.loops[0]!.map(place);
  const isLettered = outline.length <= MOST_LETTERED;
  const marks: Mark[] = [
    areaMark(
      'chosen',
      template.loops.map((loop) => loop.map(place)),
      'tank',
    ),
    ...template.holes.flatMap(({ at_m, size }, i) =>
      'diameter_m' in size
        ? ofThing(`hole:${i}`, [
            circleMark('thing', place(at_m), Math.max(LEAST_HOLE_MM, (size.diameter_m / 2) * mmPerM), 'paper'),
          ])
        : [],
    ),
    ...(isLettered ? letters(outline) : []),
    ...pages.map(({ min_m, max_m }) =>
      lineMark(
        'guide',
        ...[min_m, [max_m[0], min_m[1]], max_m, [min_m[0], max_m[1]], min_m].map((at) => place(at as Point2)),
      ),
    ),
  ];
  const wishes: Wish[] = [
    ...pages.map(({ name, min_m, max_m }): Wish => ({
      text: name,
      of: `page:${name}`,
      at: place([(min_m[0] + max_m[0]) / 2, (min_m[1] + max_m[1]) / 2]),
      size_mm: TEXT_MM,
      tone: 'soft',
    })),
    ...template.holes.map(({ at_m, size }, i): Wish => ({
      text: String(i + 1),
      of: `hole:${i}`,
      at: place(at_m),
      clear_mm: Math.max(LEAST_HOLE_MM, (acrossHole_m(size) / 2) * mmPerM),
      size_mm: TEXT_MM,
      isBold: true,
    })),
    ...(isLettered ? template.edges : []).flatMap(({ from, to, length_m }): Wish[] => {
      const along: [Place, Place] = [outline[from]!, outline[to]!];
      return Math.hypot(along[1][0] - along[0][0], along[1][1] - along[0][1]) < LEAST_LABELLED_MM
        ? []
        : [{ text: length(length_m), of: `edge:${from}`, at: along[0], along, size_mm: TEXT_MM, isBold: true }];
    }),
  ];
  const labels = labelled(marks, wishes, { width_mm, height_mm });
  return { title, width_mm, height_mm, marks: [...marks, ...labels.marks] };
}
