import type { FaceSheet, SheetCheck, SheetPort } from '@/core/answers';
import { cornerLetter } from '@/core/drawings';
import type { HoleToolKind } from '@/core/reference/holeTools';

export const TOOL_WORDS: Readonly<Record<HoleToolKind, string>> = {
  'twist-drill': 'twist drill',
  'step-drill': 'step drill',
  'hole-saw': 'hole saw',
  jigsaw: 'jigsaw or router to a scribed line',
};

/** What is wrong, short, as it stands beside a hole; `fine` for what is measured finer than with a tape. */
export function checkWords(
  { kind, with: other, have_m, want_m }: SheetCheck,
  text: (value: number) => string,
  fine: (value: number) => string,
): string {
  const of = edgeWords(other);
  const by = have_m < 0 ? text(-have_m) : text(have_m);
  switch (kind) {
    case 'neighbour':
      return have_m < 0 ? `Overlaps ${other} by ${by}` : `${by} to ${other}; ${text(want_m)} wanted`;
    case 'inside-neighbour':
      return `Under the sheet: ${have_m < 0 ? `overlaps ${other} by ${by}` : `${by} to ${other}`}`;
    case 'hose-end':
      return have_m <= 0 ? `Runs into ${other}` : `Comes within ${by} of ${other}`;
    case 'off-sheet':
      return have_m < 0 ? `Hangs ${by} over ${of}` : 'Lies on no flat face';
    case 'bend':
      return `${by} of metal to ${of}; ${text(want_m)} wanted beside a bend`;
    case 'edge':
      return `${by} of wall to ${of}; ${text(want_m)} wanted`;
    case 'seam':
      return `Weld ${by} from ${of}; ${text(want_m)} wanted`;
    case 'baffle':
      return have_m < 0 ? `Cuts into ${other}` : `${by} from ${other}, under the sheet`;
    case 'inside':
      return `Runs ${by} into ${other} under the sheet`;
    case 'outside':
      return `Runs ${by} into ${other}`;
    case 'not-flat':
      return `Wall ${fine(have_m)} out of flat under it; the seal takes up ${fine(want_m)}: weld on a flat boss`;
    case 'few-turns':
      return `The wall gives ${other}; ${fine(want_m)} of thread wanted`;
    case 'too-thick':
      return `Sheet is ${fine(have_m)} thick; it takes ${fine(want_m)}`;
  }
}

/** "edge 0-1" by the letters of its corners. */
const edgeWords = (name: string): string => {
  const corners = /^edge (\d+)-(\d+)$/.exec(name);
  return corners ? `edge ${cornerLetter(Number(corners[1]))}–${cornerLetter(Number(corners[2]))}` : name;
};

/** Which edge a centre is measured from. */
export function fromWords({ kind }: FaceSheet, { from, to }: SheetPort['fromEdges'][number]): string {
  if (kind === 'projected') return from === -1 ? 'left' : 'below';
  return `edge ${cornerLetter(from)}–${cornerLetter(to)}`;
}

/** How the hole is made, in the order of the work. */
export function toolSteps({ plan, tap, screws, existing }: SheetPort, text: (value: number) => string): string {
  if (existing) return 'there already';
  const cut =
    plan.tool === 'jigsaw'
      ? `${TOOL_WORDS.jigsaw}, pilot ${text(plan.pilot_m)}`
      : plan.tool === 'twist-drill' && plan.size_m <= plan.pilot_m * 2
        ? `drill ${text(plan.size_m)}`
        : `pilot ${text(plan.pilot_m)}, ${TOOL_WORDS[plan.tool]} ${text(plan.size_m)}`;
  const file = plan.file_m > 5e-5 ? `, file out ${text(plan.file_m)}` : '';
  if (tap && screws.length === 0)
    return `${cut}, tap ${tap.thread}: ${tap.turns.toFixed(1)} turns in this wall, ${text(tap.depth_m)} of thread wanted`;
  const tapped = tap
    ? `; ${tap.count} × ${tap.thread}, drill ${tap.drill ?? text(tap.drill_m)}, ${text(tap.depth_m)} of thread${tap.inSheet ? '' : `: the sheet alone gives ${tap.turns.toFixed(1)} turns, use a thick ring or blind bosses`}`
    : '';
  return `${cut}${file}, deburr${tapped}`;
}
