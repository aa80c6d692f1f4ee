import type { PortDocument } from './schema';

export type FillerMark = NonNullable<PortDocument['mark']>;

const words = (mark: FillerMark | undefined): string => mark?.says?.trim().toLowerCase() ?? '';

/** What is wrong with the marks of two fillers, in words; undefined where words and colours both tell them apart. */
export function markFault(a: FillerMark | undefined, b: FillerMark | undefined): string | undefined {
  const bare = [a, b].filter((mark) => words(mark) === '').length;
  if (bare > 0) return bare === 2 ? 'neither says what goes in' : 'one does not say what goes in';
  if (words(a) === words(b)) return 'both say the same';
  if (a?.colour === undefined || b?.colour === undefined) return 'their colours are not both said';
  return a.colour === b.colour ? `both are ${colourWords(a.colour)}` : undefined;
}

/** Whether words and colours both tell two fillers apart. */
export const toldApart = (a: FillerMark | undefined, b: FillerMark | undefined): boolean =>
  markFault(a, b) === undefined;

/** "DIESEL, yellow". */
export const markWords = ({ says, colour }: FillerMark): string =>
  [says, colour && colourWords(colour)].filter(Boolean).join(', ');

/** The colour of a mark, in words. */
export const colourWords = (colour: NonNullable<FillerMark['colour']>): string =>
  colour === 'bare' ? 'bare metal' : colour;
