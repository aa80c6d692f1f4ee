import type { FitDrawing, FitGap, FitShape, FitViewKey } from '../answers';
import {
  areaMark,
  circleMark,
  labelled,
  lineMark,
  markBox,
  textMark,
  type Drawing,
  type FillRole,
  type LineRole,
  type Mark,
  type Place,
  type Wish,
} from '../drawings';
import { isInOutline, type Point2, type Vec3 } from '../geometry';
import { middleOf, TEXT_MM, type Room } from './room';

/** A part on its way, or a tool at work, as outlines of its solids in each view. */
export type Moving = {
  readonly id: string;
  readonly outlines: Readonly<Record<FitViewKey, readonly (readonly Point2[])[]>>;
};

export type SpaceLook = {
  readonly title: string;
  readonly room: Room;
  /** One view under the other. */ readonly isNarrow: boolean;
  readonly viewNames: Readonly<Record<FitViewKey, string>>;
  readonly length: (value_m: number) => string;
  readonly gap?: FitGap | undefined;
  readonly moving?: Moving | undefined;
  /** What is looked at, drawn as such. */ readonly chosen?: string | undefined;
};

export type SpaceDrawing = {
  readonly drawing: Drawing;
  readonly mmPerM: number;
  /** What the numbers in it stand for, from 1 on. */
  readonly numbered: readonly { readonly id: string; readonly name: string }[];
  /** Where the names may stand beside the views; below them where it is left out. */ readonly legend?: Place;
};

export const VIEW_AXES: Readonly<Record<FitViewKey, readonly [0 | 1 | 2, 0 | 1 | 2]>> = {
  side: [0, 2],
  end: [1, 2],
  plan: [0, 1],
};
/** Looking forward, port is to the left. */
export const MIRROR: Readonly<Record<FitViewKey, 1 | -1>> = { side: 1, end: -1, plan: 1 };

const LINE_OF: Readonly<Record<FitShape['kind'], LineRole>> = {
  wall: 'metal',
  open: 'open',
  removable: 'removable',
  tank: 'tank',
  standing: 'standing',
  mount: 'outline',
  obstacle: 'obstacle',
  fixing: 'fixing',
  heat: 'heat',
  spray: 'spray',
  occupied: 'occupied',
  reach: 'reach',
  swept: 'swept',
};
const FILL_OF: Readonly<Partial<Record<FitShape['kind'], FillRole>>> = {
  tank: 'tank',
  standing: 'tank',
  obstacle: 'obstacle',
  mount: 'obstacle',
  fixing: 'obstacle',
  heat: 'heat',
  reach: 'reach',
};
const UNNUMBERED: ReadonlySet<FitShape['kind']> = new Set(['wall', 'open', 'removable', 'standing', 'swept']);

const PAD_RATIO = 0.06;
/** Over each view, for its name [mm]. */
const NAME_MM = 7;
/** A ring about a gap, so that it is found even where it is small [mm]. */
const RING_MM = { least: 2.9, over: 1.3 };
const LEAST_M = 0.05;

/** A space with everything in it, from three sides to one scale; the gap that is looked at dimensioned. */
export function spaceDrawing(seen: FitDrawing, look: SpaceLook): SpaceDrawing {
  const { min, max } = seen.bounds;
  const size = [0, 1, 2].map((k) => Math.max(LEAST_M, max[k]! - min[k]!)) as unknown as Vec3;
  const pad = look.room.width_mm * PAD_RATIO;
  const nameOf = (view: FitViewKey): Mark =>
    textMark([0, 0], look.viewNames[view], TEXT_MM, { isBold: true, tone: 'soft' });
  const reach = (view: FitViewKey): number => markBox(nameOf(view)).max[0] + NAME_GAP_MM;
  const names = { side: reach('side'), end: reach('end'), plan: reach('plan') };
  const wide = [abreast(size, names, look.room, pad), tiered(size, names, look.room, pad)].reduce((a, b) =>
    a.scale >= b.scale ? a : b,
  );
  const layout = look.isNarrow || wide.scale === 0 ? stacked(size, look.room, pad) : wide;
  const numbered = seen.views.side.filter(({ kind }) => !UNNUMBERED.has(kind));
  const marks: Mark[] = [];
  const wishes: Wish[] = [];
  for (const view of ['side', 'end', 'plan'] as const) {
    const at = layout.places[view];
    const [u, v] = VIEW_AXES[view];
    const place = ([a, b]: Point2): Place => [
      at[0] + (MIRROR[view] > 0 ? a - min[u] : max[u] - a) * layout.scale,
      at[1] + (max[v] - b) * layout.scale,
    ];
    marks.push(textMark([at[0], at[1] - 2.4], look.viewNames[view], TEXT_MM, { isBold: true, tone: 'soft' }));
    const { moving, gap } = look;
    for (const shape of seen.views[view]) {
      const isAway = moving !== undefined && (shape.id === moving.id || shape.id.startsWith(`${moving.id}:`));
      const of = `${view}:${shape.id}`;
      marks.push({
        ...areaMark(
          isAway ? 'swept' : shape.id === look.chosen ? 'chosen' : LINE_OF[shape.kind],
          shape.outline.map((loop) => loop.map(place)),
          isAway ? 'none' : shape.id === look.chosen ? 'moving' : FILL_OF[shape.kind],
        ),
        of,
        title: shape.name,
      } as Mark);
      const number = numbered.findIndex(({ id }) => id === shape.id);
      if (number < 0 || shape.outline.length === 0) continue;
      const points = shape.outline.flat().map(place);
      wishes.push({
        text: String(number + 1),
        of,
        at: middleOf(points),
        clear_mm: Math.min(...([0, 1] as const).map((k) => spanOf(points, k) / 2)),
        inside: insides(
          points,
          shape.outline.map((loop) => loop.map(place)),
        ),
        isBold: true,
      });
    }
    if (moving)
      marks.push({
        ...areaMark(
          'tank',
          moving.outlines[view].map((loop) => loop.map(place)),
          'moving',
        ),
        of: 'moving',
      });
    if (gap) {
      const [from, to] = [place([gap.onBody[u], gap.onBody[v]]), place([gap.onObstacle[u], gap.onObstacle[v]])];
      const isKept = gap.distance_m >= gap.keep_m;
      const middle: Place = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      const radius = Math.max(RING_MM.least, Math.hypot(from[0] - to[0], from[1] - to[1]) / 2 + RING_MM.over);
      const line = isKept ? 'kept' : 'tight';
      marks.push(
        { ...lineMark(line, from, to), of: `gap:${view}` },
        { ...circleMark(line, middle, radius), of: `gap:${view}` },
      );
      wishes.push({
        text: look.length(gap.distance_m),
        of: `gap:${view}`,
        at: middle,
        clear_mm: radius,
        size_mm: 4.2,
        isBold: true,
        tone: isKept ? 'good' : 'bad',
      });
    }
  }
  const sheet = { width_mm: look.room.width_mm, height_mm: layout.height };
  const labels = labelled(marks, wishes, sheet);
  return {
    drawing: { title: look.title, ...sheet, marks: [...marks, ...labels.marks] },
    mmPerM: layout.scale,
    numbered: numbered.map(({ id, name }) => ({ id, name })),
    ...(layout.legend ? { legend: layout.legend } : {}),
  };
}

/** Places within an outline, the one nearest its middle first. */
function insides(points: readonly Place[], loops: readonly (readonly Place[])[]): Place[] {
  const [cx, cy] = middleOf(points);
  const [wide, tall] = [spanOf(points, 0), spanOf(points, 1)];
  const shares = Array.from({ length: INSIDES }, (_, i) => (i + 1) / (INSIDES + 1) - 0.5);
  return shares
    .flatMap((u) => shares.map((v): Place => [cx + u * wide, cy + v * tall]))
    .filter((place) => loops.reduce((isIn, loop) => isIn !== isInOutline(place, loop), false))
    .sort((a, b) => Math.hypot(a[0] - cx, a[1] - cy) - Math.hypot(b[0] - cx, b[1] - cy));
}
const INSIDES = 9;

const spanOf = (points: readonly Place[], k: 0 | 1): number =>
  Math.max(...points.map((point) => point[k])) - Math.min(...points.map((point) => point[k]));

type Layout = {
  readonly scale: number;
  readonly height: number;
  readonly places: Readonly<Record<FitViewKey, Place>>;
  readonly legend?: Place;
};

type Names = Readonly<Record<FitViewKey, number>>;
/** Between the name of a view and the next [mm]. */
const NAME_GAP_MM = 2;

/** The greatest scale at which columns, each at least as wide as its name, stand in a width; 0 where none do. */
function scaleFor(columns: readonly { readonly size_m: number; readonly name_mm: number }[], width_mm: number): number {
  const taken = (scale: number): number =>
    columns.reduce((sum, { size_m, name_mm }) => sum + Math.max(size_m * scale, name_mm), 0);
  let [low, high] = [0, width_mm / Math.max(...columns.map(({ size_m }) => size_m))];
  for (let step = 0; step < HALVINGS; step++) {
    const scale = (low + high) / 2;
    if (taken(scale) <= width_mm) low = scale;
    else high = scale;
  }
  return low;
}
const HALVINGS = 40;

/** All three in one row. */
function abreast([x, y, z]: Vec3, names: Names, room: Room, pad: number): Layout {
  const columns = [
    { size_m: x, name_mm: names.side },
    { size_m: y, name_mm: names.end },
    { size_m: x, name_mm: names.plan },
  ];
  const scale = Math.min(scaleFor(columns, room.width_mm - 4 * pad), room.height_mm / Math.max(y, z));
  const [side, end] = [Math.max(x * scale, names.side), Math.max(y * scale, names.end)];
  return {
    scale,
    height: NAME_MM + Math.max(y, z) * scale + pad / 2,
    places: { side: [pad, NAME_MM], end: [2 * pad + side, NAME_MM], plan: [3 * pad + side + end, NAME_MM] },
  };
}

/** The plan under the side view, the names under the end view. */
function tiered([x, y, z]: Vec3, names: Names, room: Room, pad: number): Layout {
  const columns = [
    { size_m: x, name_mm: Math.max(names.side, names.plan) },
    { size_m: y, name_mm: names.end },
  ];
  const scale = Math.min(scaleFor(columns, room.width_mm - 3 * pad), room.height_mm / (y + z));
  const left = Math.max(x * scale, columns[0]!.name_mm);
  const row = z * scale + NAME_MM + pad / 2;
  return {
    scale,
    height: row + NAME_MM + y * scale + pad / 2,
    legend: [2 * pad + left, row + NAME_MM],
    places: { side: [pad, NAME_MM], end: [2 * pad + left, NAME_MM], plan: [pad, row + NAME_MM] },
  };
}

/** One under the other. */
function stacked([x, y, z]: Vec3, room: Room, pad: number): Layout {
  const scale = (room.width_mm - 2 * pad) / Math.max(x, y);
  const row = z * scale + NAME_MM + pad / 2;
  return {
    scale,
    height: 2 * row + NAME_MM + y * scale + pad / 2,
    places: { side: [pad, NAME_MM], end: [pad, row + NAME_MM], plan: [pad, 2 * row + NAME_MM] },
  };
}

/** The drawing with its edges moved out as far as a tool reaches. */
export function withRoomFor(seen: FitDrawing, { outlines }: Moving): FitDrawing {
  const [side, plan] = [outlines.side.flat(), outlines.plan.flat()];
  const along = [side.map(([x]) => x), plan.map(([, y]) => y), side.map(([, z]) => z)];
  const reach = (pick: (...values: number[]) => number, now: Vec3): Vec3 =>
    [0, 1, 2].map((k) => pick(now[k]!, ...along[k]!)) as unknown as Vec3;
  return { ...seen, bounds: { min: reach(Math.min, seen.bounds.min), max: reach(Math.max, seen.bounds.max) } };
}
