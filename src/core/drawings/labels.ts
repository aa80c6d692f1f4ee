import { lineMark, markBox, textMark, type Box, type Mark, type Place, type Tone } from './drawing';

/** Words that are wanted beside something. */
export type Wish = {
  readonly text: string;
  /** What they name: they stand as near to it as there is room, and never on its lines. */ readonly of: string;
  readonly at: Place;
  /** So far from that place what they name goes [mm]. */ readonly clear_mm?: number;
  /** Along a stretch they stand beside its middle, or anywhere else along it. */ readonly along?: readonly [
    Place,
    Place,
  ];
  /** Places on what they name where they may stand too, the best first, if they touch none of its lines. */
  readonly inside?: readonly Place[];
  readonly size_mm?: number;
  readonly isBold?: boolean;
  readonly tone?: Tone;
};

type Segment = readonly [Place, Place];
/** What words keep off: boxes and discs never to be touched, and lines that they had better not cross. */
type Kept = { boxes: Box[]; discs: { at: Place; radius: number }[]; own: Map<string, Segment[]>; lines: Segment[] };

/** Between words and what they name, and between words [mm]. */
const OFF_MM = 1.1;
const APART_MM = 0.5;
/** Ways off a place: straight over it first, then round. */
const WAYS = [-90, 90, 0, 180, -45, -135, 45, 135, -67, -113, 67, 113, -22, 22, 158, 202].map((angle): Place => [
  Math.cos((angle * Math.PI) / 180),
  Math.sin((angle * Math.PI) / 180),
]);
const DISTANCES_MM = [0, 1.5, 3, 5, 8, 12, 16, 21, 27, 34, 42, 52, 64, 80, 100, 125] as const;
const ALONG = [0.5, 0.35, 0.65, 0.2, 0.8, 0.08, 0.92] as const;
/** A line that words lie across counts as so much further off [mm]. */
const CROSSED_MM = 7;
/** Each next place inside counts as so much further off [mm]. */
const INSIDE_MM = 0.2;
/** Words that lie across so many lines lie across too many to count. */
const MOST_CROSSED = 4;
/** Further off than this words are joined to what they name [mm]. */
const JOINED_MM = 4;
/** Smaller circles are taken as discs: words keep off all of them [mm]. */
const DISC_MM = 9;
const SIZE_MM = 3.7;

/**
 * Words put where they lie on nothing that matters: on no other words, no small
 * thing, and no line of what they name; off other lines where that can be. What
 * finds room only further off is joined by a leader, which other words keep off
 * as well. Those that find no room on the whole sheet are not drawn, and told.
 *
 * The widest are placed first, since they find room least.
 *
 * @param marks what is drawn; their words stay where they are
 * @param blocks never to be stood on
 */
export function labelled(
  marks: readonly Mark[],
  wishes: readonly Wish[],
  sheet: { readonly width_mm: number; readonly height_mm: number },
  blocks: readonly Box[] = [],
): { readonly marks: Mark[]; readonly crowded: readonly string[] } {
  const kept = keptOff(marks, blocks);
  const made: Mark[] = [];
  const crowded: string[] = [];
  const widest = [...wishes].sort((a, b) => b.text.length - a.text.length);
  for (const wish of widest) {
    const found = bestPlace(wish, kept, sheet);
    if (!found) {
      crowded.push(wish.text);
      continue;
    }
    kept.boxes.push(found.box);
    if (found.leader) {
      made.push({ ...lineMark('leader', ...found.leader), of: wish.of });
      kept.own.set('leaders', [...(kept.own.get('leaders') ?? []), found.leader]);
    }
    made.push({ ...found.mark, of: wish.of });
  }
  return { marks: made, crowded };
}

function keptOff(marks: readonly Mark[], blocks: readonly Box[]): Kept {
  const kept: Kept = { boxes: [...blocks], discs: [], own: new Map(), lines: [] };
  for (const mark of marks) {
    if (mark.kind === 'text') {
      kept.boxes.push(markBox(mark));
      continue;
    }
    if (mark.line === 'none') continue;
    if (mark.kind === 'arc' && mark.radius_mm < DISC_MM) {
      kept.discs.push({ at: mark.at, radius: mark.radius_mm });
      continue;
    }
    const segments = segmentsOf(mark);
    kept.lines.push(...segments);
    if (mark.of !== undefined) kept.own.set(mark.of, [...(kept.own.get(mark.of) ?? []), ...segments]);
  }
  return kept;
}

/** The straight pieces of a mark's lines. */
export function segmentsOf(mark: Exclude<Mark, { kind: 'text' }>): Segment[] {
  if (mark.kind === 'line') return mark.points.slice(1).map((to, i) => [mark.points[i]!, to]);
  if (mark.kind === 'area') return mark.loops.flatMap((loop) => loop.map((to, i): Segment => [loop.at(i - 1)!, to]));
  const steps = Math.max(2, Math.ceil((mark.to_deg - mark.from_deg) / 15));
  const place = (i: number): Place => {
    const angle = ((mark.from_deg + ((mark.to_deg - mark.from_deg) * i) / steps) * Math.PI) / 180;
    return [mark.at[0] + mark.radius_mm * Math.cos(angle), mark.at[1] + mark.radius_mm * Math.sin(angle)];
  };
  return Array.from({ length: steps }, (_, i) => [place(i), place(i + 1)]);
}

type Found = { readonly mark: Mark; readonly box: Box; readonly leader?: Segment; readonly cost: number };

function bestPlace(wish: Wish, kept: Kept, sheet: { width_mm: number; height_mm: number }): Found | undefined {
  const { text, size_mm = SIZE_MM, isBold = false, tone, of, clear_mm = 0 } = wish;
  const words = (at: Place): Mark =>
    textMark(at, text, size_mm, { anchor: 'middle', isBold, ...(tone ? { tone } : {}) });
  const { min, max } = markBox(words([0, 0]));
  const [half, tall] = [(max[0] - min[0]) / 2, (max[1] - min[1]) / 2];
  const sink = (max[1] + min[1]) / 2;
  const own = kept.own.get(of) ?? [];
  const leaders = kept.own.get('leaders') ?? [];
  let best: Found | undefined;
  const look = (middle: Place, away: number, from: Place): void => {
    if (best && away >= best.cost) return;
    const at: Place = [middle[0], middle[1] - sink];
    const box: Box = { min: [middle[0] - half, middle[1] - tall], max: [middle[0] + half, middle[1] + tall] };
    if (box.min[0] < 0 || box.min[1] < 0 || box.max[0] > sheet.width_mm || box.max[1] > sheet.height_mm) return;
    if (kept.boxes.some((other) => boxesMeet(box, other, APART_MM))) return;
    if (kept.discs.some((disc) => discMeets(disc, box))) return;
    if (own.some((segment) => crosses(segment, box)) || leaders.some((segment) => crosses(segment, box))) return;
    const edge: Place = [clamp(from[0], box.min[0], box.max[0]), clamp(from[1], box.min[1], box.max[1])];
    const gap = Math.hypot(edge[0] - from[0], edge[1] - from[1]);
    const reach = gap > 0 ? clear_mm / gap : 1;
    const leader: Segment | undefined =
      gap > clear_mm + JOINED_MM
        ? [edge, [from[0] + (edge[0] - from[0]) * reach, from[1] + (edge[1] - from[1]) * reach]]
        : undefined;
    if (leader && kept.boxes.some((other) => crosses(leader, other))) return;
    const bearable = best ? Math.ceil((best.cost - away) / CROSSED_MM) : MOST_CROSSED;
    const cost = away + CROSSED_MM * crossings(kept.lines, box, Math.min(bearable, MOST_CROSSED));
    if (best && cost >= best.cost) return;
    best = { mark: words(at), box, cost, ...(leader ? { leader } : {}) };
  };
  for (const [k, place] of (wish.inside ?? []).entries()) look(place, k * INSIDE_MM, place);
  for (const distance of DISTANCES_MM) {
    if (best && distance >= best.cost) break;
    const off = clear_mm + OFF_MM + distance;
    if (wish.along) {
      const [a, b] = wish.along;
      const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
      const across: Place = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long];
      const room = off + half * Math.abs(across[0]) + tall * Math.abs(across[1]);
      for (const [k, share] of ALONG.entries()) {
        const from: Place = [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
        for (const side of [-1, 1])
          look([from[0] + side * across[0] * room, from[1] + side * across[1] * room], distance + k, from);
      }
      continue;
    }
    for (const [k, [x, y]] of WAYS.entries()) {
      // The box just touches the circle that it is to keep off.
      const reachX = Math.abs(x) > 1e-6 ? (off + half) / Math.abs(x) : Infinity;
      const reachY = Math.abs(y) > 1e-6 ? (off + tall) / Math.abs(y) : Infinity;
      const reach = Math.min(reachX, reachY);
      look([wish.at[0] + x * reach, wish.at[1] + y * reach], distance + k * 0.05, wish.at);
    }
  }
  // Crowded out all round, they go wherever there is room.
  if (!best)
    for (let x = half; x <= sheet.width_mm - half; x += SEARCH_MM)
      for (let y = tall; y <= sheet.height_mm - tall; y += SEARCH_MM)
        look([x, y], Math.hypot(x - wish.at[0], y - wish.at[1]), wish.at);
  return best;
}
const SEARCH_MM = 2.5;

/** How many lines go through a box; no more are counted than asked. */
function crossings(lines: readonly Segment[], box: Box, most: number): number {
  let count = 0;
  for (const segment of lines) {
    if (!crosses(segment, box)) continue;
    count++;
    if (count >= most) break;
  }
  return count;
}

const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** Whether two boxes overlap, or come nearer than so much [mm]. */
export const boxesMeet = (a: Box, b: Box, apart_mm = 0): boolean =>
  a.min[0] < b.max[0] + apart_mm &&
  b.min[0] < a.max[0] + apart_mm &&
  a.min[1] < b.max[1] + apart_mm &&
  b.min[1] < a.max[1] + apart_mm;

/** Whether a disc reaches into a box [mm]. */
export function discMeets({ at, radius }: { readonly at: Place; readonly radius: number }, { min, max }: Box): boolean {
  const [x, y] = [clamp(at[0], min[0], max[0]), clamp(at[1], min[1], max[1])];
  return Math.hypot(x - at[0], y - at[1]) < radius;
}

/**
 * Whether a straight line goes through a box.
 * @source Y.-D. Liang and B. A. Barsky, ACM Transactions on Graphics 3 (1984): clipping by parameters
 */
export function crosses([a, b]: Segment, { min, max }: Box): boolean {
  if ((a[0] < min[0] && b[0] < min[0]) || (a[0] > max[0] && b[0] > max[0])) return false;
  if ((a[1] < min[1] && b[1] < min[1]) || (a[1] > max[1] && b[1] > max[1])) return false;
  let [from, to] = [0, 1];
  for (const k of [0, 1] as const) {
    const step = b[k] - a[k];
    if (step === 0) {
      if (a[k] <= min[k] || a[k] >= max[k]) return false;
      continue;
    }
    const [t1, t2] = [(min[k] - a[k]) / step, (max[k] - a[k]) / step];
    from = Math.max(from, Math.min(t1, t2));
    to = Math.min(to, Math.max(t1, t2));
    if (from >= to) return false;
  }
  return true;
}
