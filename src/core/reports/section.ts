import type { TankDrawing } from '../answers';
import {
  areaMark,
  circleMark,
  dimensionMarks,
  labelled,
  lineMark,
  markBox,
  ofThing,
  textMark,
  type Drawing,
  type Mark,
  type Place,
  type Wish,
} from '../drawings';
import type { Point2 } from '../geometry';
import { HIT_MM, SMALL_TEXT_MM, TEXT_MM, type Room } from './room';

export type TankViewKey = 'side' | 'end' | 'plan';
export const TANK_VIEWS = ['side', 'end', 'plan'] as const satisfies readonly TankViewKey[];

/** A place in the tank that can be taken hold of [m]. */
export type Grip = { readonly id: string; readonly label: string; readonly at: readonly [number, number, number] };

export type TankLook = {
  readonly title: string;
  readonly room: Room;
  /** One view under the other. */ readonly isNarrow: boolean;
  readonly viewNames: Readonly<Record<TankViewKey, string>>;
  /** What it measures, in words: length and height at the side view, width at the end view. */
  readonly sizes: Readonly<Record<'length' | 'width' | 'height', string>>;
  /** How far each view leans, anticlockwise; the plan never does. */
  readonly turns_deg: { readonly side: number; readonly end: number };
  readonly grips: readonly Grip[];
};

/** How a view lies on the sheet: what a way on the sheet is in the tank. */
export type ViewFrame = {
  readonly across: 0 | 1;
  readonly upward: 1 | 2;
  readonly mirror: 1 | -1;
  readonly turn_deg: number;
  readonly centre: Place;
};

export type TankSheet = {
  readonly drawing: Drawing;
  readonly mmPerM: number;
  readonly frames: Readonly<Record<TankViewKey, ViewFrame>>;
  /** Room left for a picture, as shares of the sheet; none where it stands below. */
  readonly free?: { readonly left: number; readonly top: number };
};

/** Over a view for labels, and under it for its name and size [mm]. */
const ABOVE_MM = 15;
const BELOW_MM = 16;
const PLAN_ABOVE_MM = 5;
const PLAN_BELOW_MM = 10;
/** A line of where a view is cut stands so far over the outline, its letter at the end of it [mm]. */
const CUT_OVER_MM = 1.2;
const CUT_LETTER_MM = 3;
/** Under the plan its name stands clear of the letter there [mm]. */
const UNDER_LETTER_MM = 3;
/** Sizes stand so far off: clear of a port's stub, with their figures [mm]. */
const DIMENSION_MM = 7.5;
/** Left of the side view, for its height [mm]. */
const LEFT_MM = DIMENSION_MM + 5;
/** What the cuts are called; the plan says where they are. */
const CUT_NAMES = { side: 'A–A', end: 'B–B' } as const;
const ROW_MM = 4.6;
/** Room between and around the views, as shares of the wider ones. */
const GAP = 0.12;
const MARGIN = 0.07;

const GRIP_MM = 2.1;
const TUBE_MM = { half: 1.05, over: 2.6 };
const PORT_MM = { long: 3.2, short: 2.4 };

/** A baffle is pressed so far from its line [mm]. */
const PLATE_HIT_MM = 2;
/** What the marks of a baffle in one view are of. */
export const plateId = (id: string, view: TankViewKey): string => `plate:${view}:${id}`;
/** What the marks of a grip in one view are of. */
export const gripId = (id: string, view: TankViewKey): string => `grip:${id}:${view}`;

/** A tank from three sides to one scale, cut where its drawing says, with the liquid in it. */
export function tankSheet(tank: TankDrawing, look: TankLook): TankSheet {
  const { min, max } = tank.bounds;
  const size = [0, 1, 2].map((k) => max[k]! - min[k]!) as unknown as readonly [number, number, number];
  const turned = (width: number, turn_deg: number) => {
    const turn = Math.abs((turn_deg * Math.PI) / 180);
    return {
      width: width * Math.cos(turn) + size[2] * Math.sin(turn),
      height: size[2] * Math.cos(turn) + width * Math.sin(turn),
    };
  };
  const reach = {
    side: turned(size[0], look.turns_deg.side),
    end: turned(size[1], look.turns_deg.end),
    plan: { width: size[0], height: size[1] },
  };
  const words = TANK_VIEWS.map((view) => markBox(textMark([0, 0], nameOf(view, look), SMALL_TEXT_MM)).max[0]);
  const layout = look.isNarrow ? stacked(reach, look.room) : abreast(reach, look.room, Math.max(...words));
  const frames = {
    side: { across: 0, upward: 2, mirror: 1, turn_deg: look.turns_deg.side, centre: layout.centres.side },
    end: { across: 1, upward: 2, mirror: -1, turn_deg: look.turns_deg.end, centre: layout.centres.end },
    plan: { across: 0, upward: 1, mirror: 1, turn_deg: 0, centre: layout.centres.plan },
  } as const satisfies Readonly<Record<TankViewKey, ViewFrame>>;
  const marks: Mark[] = [];
  const wishes: Wish[] = [];
  for (const view of TANK_VIEWS) {
    const drawn = viewMarks(tank, view, frames[view], layout.mmPerM, look);
    marks.push(...drawn.marks);
    if (view === 'plan') marks.push(...cutMarks(tank, frames.plan, layout.mmPerM));
    if (view === 'side') wishes.push(...drawn.wishes);
    const clear = view === 'plan' ? UNDER_LETTER_MM : DIMENSION_MM + 1;
    const foot = layout.centres[view][1] + (reach[view].height * layout.mmPerM) / 2 + ROW_MM + 1 + clear;
    marks.push(
      textMark([layout.centres[view][0], foot], nameOf(view, look), SMALL_TEXT_MM, { anchor: 'middle', tone: 'soft' }),
    );
  }
  const sheet = { width_mm: look.room.width_mm, height_mm: layout.height_mm };
  const labels = labelled(marks, wishes, sheet);
  return {
    drawing: { title: look.title, ...sheet, marks: [...marks, ...labels.marks] },
    mmPerM: layout.mmPerM,
    frames,
    ...(layout.free ? { free: layout.free } : {}),
  };
}

/** What a view is called, and where it is cut. */
const nameOf = (view: TankViewKey, { viewNames }: TankLook): string =>
  view === 'plan' ? viewNames.plan : `${viewNames[view]}, ${CUT_NAMES[view]}`;

/** Where side and end are cut, on the plan: chain lines over the outline, a letter at both ends. */
function cutMarks(tank: TankDrawing, { centre, mirror }: ViewFrame, mmPerM: number): Mark[] {
  const { min, max } = tank.bounds;
  const at = (k: 0 | 1, value: number): number => (value - (min[k] + max[k]) / 2) * mmPerM;
  const x = centre[0] + mirror * at(0, tank.cuts_m[0]);
  const y = centre[1] - at(1, tank.cuts_m[1]);
  const [half, tall] = [((max[0] - min[0]) / 2) * mmPerM, ((max[1] - min[1]) / 2) * mmPerM];
  const letter = (place: Place, text: string): Mark =>
    textMark([place[0], place[1] + SMALL_TEXT_MM * 0.35], text, SMALL_TEXT_MM, {
      anchor: 'middle',
      isBold: true,
      tone: 'soft',
    });
  const [a, b] = [CUT_NAMES.side[0]!, CUT_NAMES.end[0]!];
  return [
    lineMark('centre', [centre[0] - half - CUT_OVER_MM, y], [centre[0] + half + CUT_OVER_MM, y]),
    lineMark('centre', [x, centre[1] - tall - CUT_OVER_MM], [x, centre[1] + tall + CUT_OVER_MM]),
    letter([centre[0] - half - CUT_LETTER_MM, y], a),
    letter([centre[0] + half + CUT_LETTER_MM, y], a),
    letter([x, centre[1] - tall - CUT_LETTER_MM], b),
    letter([x, centre[1] + tall + CUT_LETTER_MM], b),
  ];
}

/** One view of a tank with its liquid, and where its grips want their labels; its sizes where they are given. */
export function viewMarks(
  tank: TankDrawing,
  view: TankViewKey,
  { across, upward, mirror, turn_deg, centre }: ViewFrame,
  mmPerM: number,
  { grips, sizes }: Pick<TankLook, 'grips'> & Partial<Pick<TankLook, 'sizes'>>,
): { readonly marks: Mark[]; readonly wishes: Wish[] } {
  const { bounds } = tank;
  const middle = [across, upward].map((k) => (bounds.min[k]! + bounds.max[k]!) / 2) as [number, number];
  const [sin, cos] = [Math.sin((turn_deg * Math.PI) / 180), Math.cos((turn_deg * Math.PI) / 180)];
  /** From places of the view before it leans [mm]. */
  const lean = ([x, y]: Place): Place => [centre[0] + x * cos + y * sin, centre[1] - x * sin + y * cos];
  const flat = ([u, v]: Point2): Place => [mirror * (u - middle[0]) * mmPerM, -(v - middle[1]) * mmPerM];
  const seen = (p: readonly number[]): Place => flat([p[across]!, p[upward]!]);
  const loops = (of: readonly (readonly Point2[])[]): Place[][] => of.map((loop) => loop.map((p) => lean(flat(p))));
  const line = (...points: readonly Place[]): Place[] => points.map(lean);
  const halfOf = (k: 0 | 1 | 2): number => ((bounds.max[k]! - bounds.min[k]!) / 2) * mmPerM;
  const section = tank[view];
  const marks: Mark[] = [
    { ...areaMark('none', loops(section.outline), 'sheet') },
    { ...areaMark('surface', loops(section.liquid), 'liquid'), of: `liquid:${view}` },
    { ...areaMark('metal', loops(section.outline)), of: `shell:${view}` },
    ...section.plates.flatMap(({ id, line: [from, to] }) =>
      ofThing(plateId(id, view), [
        areaMark('none', [line(...strip(flat(from), flat(to), PLATE_HIT_MM))]),
        lineMark('plate', ...line(flat(from), flat(to))),
      ]),
    ),
  ];
  for (const { port, inlet } of tank.pickups) {
    const [from, to] = [seen(port), seen(inlet)];
    for (const side of [-TUBE_MM.half, TUBE_MM.half])
      marks.push(lineMark('thing', ...line([from[0] + side, from[1] - TUBE_MM.over], [to[0] + side, to[1]])));
  }
  for (const sender of tank.senders) {
    const top: readonly [number, number, number] = [sender.from[0], sender.from[1], bounds.max[2]];
    marks.push(
      lineMark('travel', ...line(...sender.sweep.map(seen))),
      { ...lineMark('chosen', ...line(seen(top), seen(sender.from))), width_mm: 0.5 } as Mark,
      { ...lineMark('chosen', ...line(...sender.wire.map(seen))), width_mm: 0.65 } as Mark,
      circleMark('guide', lean(seen(sender.float)), sender.radius_m * mmPerM, 'paper'),
    );
  }
  for (const port of tank.ports) marks.push(portMark(seen(port.at), view === 'plan' ? 'plan' : port.face, lean));
  if (view !== 'plan' && sizes) marks.push(...sizeMarks(view, [halfOf(across), halfOf(upward)], lean, sizes));
  const held = grips.map(({ id, label, at }) => ({ id, label, at: lean(seen(at)) }));
  for (const { id, at } of held)
    marks.push(
      ...ofThing(gripId(id, view), [circleMark('none', at, HIT_MM), circleMark('chosen', at, GRIP_MM, 'paper')]),
    );
  return {
    marks,
    wishes: held.map(({ id, label, at }) => ({
      text: label,
      of: gripId(id, view),
      at,
      clear_mm: GRIP_MM,
      size_mm: TEXT_MM,
    })),
  };
}

/** Its sizes on a view: below it, and up its left side where it is the side view; they lean with it. */
function sizeMarks(
  view: 'side' | 'end',
  [half, tall]: readonly [number, number],
  lean: (at: Place) => Place,
  sizes: TankLook['sizes'],
): Mark[] {
  const middle = lean([0, 0]);
  const away = ([x, y]: Place): Place => [lean([x, y])[0] - middle[0], lean([x, y])[1] - middle[1]];
  const below = dimensionMarks(
    lean([-half, tall]),
    lean([half, tall]),
    away([0, 1]),
    DIMENSION_MM,
    view === 'side' ? sizes.length : sizes.width,
  );
  return view === 'end'
    ? below
    : [
        ...below,
        ...dimensionMarks(lean([-half, tall]), lean([-half, -tall]), away([-1, 0]), DIMENSION_MM, sizes.height),
      ];
}

/** Corners of a strip so far round a line [mm]. */
function strip([a, b]: Place, [c, d]: Place, by_mm: number): Place[] {
  const length = Math.hypot(c - a, d - b) || 1;
  const [u, v] = [((d - b) / length) * by_mm, ((a - c) / length) * by_mm];
  return [
    [a + u, b + v],
    [c + u, d + v],
    [c - u, d - v],
    [a - u, b - v],
  ];
}

/** A stub on the face that a port stands on. */
function portMark([x, y]: Place, face: string, lean: (at: Place) => Place): Mark {
  const isLevel = face === 'lid' || face === 'floor';
  const [w, h] =
    face === 'plan'
      ? [PORT_MM.short, PORT_MM.short]
      : isLevel
        ? [PORT_MM.long, PORT_MM.short]
        : [PORT_MM.short, PORT_MM.long];
  const top = face === 'lid' ? y - h : face === 'floor' ? y : y - h / 2;
  const corners: Place[] = [
    [x - w / 2, top],
    [x + w / 2, top],
    [x + w / 2, top + h],
    [x - w / 2, top + h],
  ];
  return areaMark('none', [corners.map(lean)], 'metal');
}

type Reach = { readonly width: number; readonly height: number };
type Reaches = Readonly<Record<TankViewKey, Reach>>;
type Layout = {
  readonly mmPerM: number;
  readonly height_mm: number;
  readonly centres: Readonly<Record<TankViewKey, Place>>;
  readonly free?: { readonly left: number; readonly top: number };
};

/** The plan stands under the side view; what is left under the end view is for the picture. */
function abreast({ side, end, plan }: Reaches, { width_mm, height_mm }: Room, widest_mm: number): Layout {
  const left = Math.max(side.width, plan.width);
  const across = left + end.width;
  const tall = Math.max(side.height, end.height) + plan.height;
  const rows_mm = ABOVE_MM + BELOW_MM + PLAN_ABOVE_MM + PLAN_BELOW_MM;
  const mmPerM = Math.min((width_mm - LEFT_MM) / (across * (1 + GAP + MARGIN)), (height_mm - rows_mm) / tall);
  const upper = ABOVE_MM + Math.max(side.height, end.height) * mmPerM + BELOW_MM;
  const total = upper + PLAN_ABOVE_MM + plan.height * mmPerM + PLAN_BELOW_MM;
  // A small tank is narrower than what is written under it.
  const column = Math.max(left * mmPerM, widest_mm);
  const gap = GAP * across * mmPerM;
  const row = ABOVE_MM + (Math.max(side.height, end.height) * mmPerM) / 2;
  const first = LEFT_MM + column / 2;
  return {
    mmPerM,
    height_mm: total,
    centres: {
      side: [first, row],
      end: [LEFT_MM + column + gap + Math.max(end.width * mmPerM, widest_mm) / 2, row],
      plan: [first, upper + PLAN_ABOVE_MM + (plan.height * mmPerM) / 2],
    },
    free: { left: (LEFT_MM + column + gap / 2) / width_mm, top: upper / total },
  };
}

function stacked({ side, end, plan }: Reaches, { width_mm }: Room): Layout {
  const mmPerM = (width_mm - LEFT_MM) / (Math.max(side.width, end.width, plan.width) * (1 + MARGIN));
  const middle = LEFT_MM + (width_mm - LEFT_MM) / (2 * (1 + MARGIN));
  const tall = ({ height }: Reach): number => ABOVE_MM + height * mmPerM + BELOW_MM;
  const [toEnd, toPlan] = [tall(side), tall(side) + tall(end)];
  return {
    mmPerM,
    height_mm: toPlan + PLAN_ABOVE_MM + plan.height * mmPerM + PLAN_BELOW_MM,
    centres: {
      side: [middle, ABOVE_MM + (side.height * mmPerM) / 2],
      end: [middle, toEnd + ABOVE_MM + (end.height * mmPerM) / 2],
      plan: [middle, toPlan + PLAN_ABOVE_MM + (plan.height * mmPerM) / 2],
    },
  };
}
