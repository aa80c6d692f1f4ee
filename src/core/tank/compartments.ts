import {
  between,
  combine,
  crossingsAt,
  DisjointSets,
  meshBounds,
  meshVolume,
  outlineBelow,
  sectionAcross,
  signedArea_m2,
  volumeBelow,
  type ClosedMesh,
  type CombineCode,
  type Point2,
  type Vec3,
} from '../geometry';
import { failure, success, type Outcome } from '../outcome';

/** A baffle across an axis: where it stands, and what of it is open. */
export type Plate = {
  readonly id: string;
  readonly axis: 0 | 1 | 2;
  readonly at_m: number;
  readonly thickness_m: number;
  /**
   * Where it begins and ends the other level way across; infinite from wall to wall. A level plate always goes from
   * wall to wall.
   */
  readonly from_m: number;
  readonly to_m: number;
  readonly cornerCut_m: number;
  readonly topGap_m: number;
  readonly holes: { readonly count: number; readonly diameter_m: number; readonly height_m: number };
  readonly flap?: {
    readonly width_m: number;
    readonly height_m: number;
    readonly passes: 'higher' | 'lower';
    readonly leak_ratio: number;
  };
};

/** A plate in its tank. */
export type FittedPlate = Plate & {
  /** Its edge in the two axes across it, trimmed to where it begins and ends; empty where it misses the tank. */
  readonly outline: readonly (readonly Point2[])[];
};

export type Compartment = { readonly mesh: ClosedMesh; readonly volume_m3: number };

export type PassageKind = 'corner' | 'hole' | 'flap' | 'gap';

/** An opening from one compartment to another, at its lowest point. */
export type Passage = {
  readonly plate: string;
  readonly kind: PassageKind;
  /** Compartments on the lower and on the higher side of the plate. */
  readonly compartments: readonly [number, number];
  readonly point_m: Vec3;
  /** Beside that point, within each of the compartments. */
  readonly beside_m: readonly [Vec3, Vec3];
  readonly area_m2: number;
  /** Which of the two compartments it lets liquid into; both but for a flap. */
  readonly into: readonly [boolean, boolean];
  /** What of the area a shut flap still passes. */
  readonly leak_ratio: number;
};

export type Division = {
  readonly compartments: readonly Compartment[];
  readonly passages: readonly Passage[];
  /** The compartment that holds a point. */
  readonly compartmentOf: (point: Vec3) => number;
};

/** Planes across an axis that lie closer than this [m] are one. */
const SAME_M = 1e-9;
/** Of the tank: what the compartments together may differ from it by, which is the rounding of the kernel's seams. */
const KEPT_REL = 1e-6;

/**
 * Cuts a tank's space into the compartments that its plates leave.
 *
 * All planes of plates, and the ends of those that do not go from wall to
 * wall, cut the space into cells; cells that no plate parts are one compartment again.
 * A gap over a plate does not join its compartments: liquid below it stays apart.
 * Fails rather than lose a part of the space.
 */
export function divided(space: ClosedMesh, plates: readonly FittedPlate[]): Outcome<Division, CombineCode> {
  if (plates.length === 0)
    return success({
      compartments: [{ mesh: space, volume_m3: meshVolume(space) }],
      passages: [],
      compartmentOf: () => 0,
    });
  const lines = gridLines(space, plates);
  const cells = cellsOf(space, lines);
  if (!cells.ok) return cells;
  const compartmentOfCell = joined(
    cells.value.map((cell) => cell.at),
    lines,
    plates,
  );
  const compartments: Compartment[] = [];
  for (let compartment = 0; compartment <= Math.max(...compartmentOfCell); compartment++) {
    const whole = united(cells.value.filter((_, c) => compartmentOfCell[c] === compartment).map((cell) => cell.mesh));
    if (!whole.ok) return whole;
    compartments.push({ mesh: whole.value, volume_m3: meshVolume(whole.value) });
  }
  const missing_m3 = meshVolume(space) - compartments.reduce((sum, compartment) => sum + compartment.volume_m3, 0);
  if (Math.abs(missing_m3) > KEPT_REL * meshVolume(space))
    return failure('not-solid', 'plates', 'The baffles cannot be cut out of this shape: parts of it were lost.');
  const cellAt = (point: Vec3): string =>
    point.map((value, axis) => lines[axis as 0 | 1 | 2].filter((line) => line < value).length).join();
  const byCell = new Map(cells.value.map(({ at }, c) => [at.join(), compartmentOfCell[c]!]));
  const compartmentOf = (point: Vec3): number => byCell.get(cellAt(point)) ?? -1;
  return success({
    compartments,
    compartmentOf,
    passages: plates.flatMap((plate) => passagesOf(plate, compartmentOf)),
  });
}

type Cell = { readonly mesh: ClosedMesh; readonly at: Vec3 };

/** The parts between all grid lines that hold any of the space. */
function cellsOf(space: ClosedMesh, lines: Lines): Outcome<Cell[], CombineCode> {
  let cells: Cell[] = [{ mesh: space, at: [0, 0, 0] }];
  for (const axis of [0, 1, 2] as const) {
    const finer: Cell[] = [];
    for (const { mesh, at } of cells) {
      for (let index = 0; index <= lines[axis].length; index++) {
        const part =
          lines[axis].length === 0 ? success(mesh) : between(mesh, axis, lines[axis][index - 1], lines[axis][index]);
        if (part.ok)
          finer.push({ mesh: part.value, at: at.map((value, k) => (k === axis ? index : value)) as unknown as Vec3 });
        else if (part.error.code !== 'nothing-left') return part;
      }
    }
    cells = finer;
  }
  return success(cells);
}

function united([first, ...others]: readonly ClosedMesh[]): Outcome<ClosedMesh, CombineCode> {
  let whole = success(first!) as Outcome<ClosedMesh, CombineCode>;
  for (const mesh of others) if (whole.ok) whole = combine(whole.value, mesh, 'add');
  return whole;
}

type Lines = readonly [readonly number[], readonly number[], readonly number[]];

function gridLines(space: ClosedMesh, plates: readonly Plate[]): Lines {
  const { min, max } = meshBounds(space);
  const lines: [number[], number[], number[]] = [[], [], []];
  const put = (axis: 0 | 1 | 2, at: number): void => {
    if (
      at > min[axis] + SAME_M &&
      at < max[axis] - SAME_M &&
      !lines[axis].some((known) => Math.abs(known - at) <= SAME_M)
    )
      lines[axis].push(at);
  };
  for (const plate of plates) {
    put(plate.axis, plate.at_m);
    const other = acrossLevel(plate.axis);
    if (other !== undefined) [plate.from_m, plate.to_m].filter(Number.isFinite).forEach((at) => put(other, at));
  }
  lines.forEach((list) => list.sort((a, b) => a - b));
  return lines;
}

/** The other level way across, in which an upright plate may stop short. */
const acrossLevel = (axis: 0 | 1 | 2): 0 | 1 | undefined => (axis === 0 ? 1 : axis === 1 ? 0 : undefined);

/** Numbers the compartments: neighbouring cells with no plate between them share one. */
function joined(cells: readonly Vec3[], lines: Lines, plates: readonly Plate[]): number[] {
  const sets = new DisjointSets(cells.length);
  const index = new Map(cells.map((at, c) => [at.join(), c]));
  cells.forEach((at, c) => {
    for (const axis of [0, 1, 2] as const) {
      const next = index.get(at.map((value, k) => (k === axis ? value + 1 : value)).join());
      const line = lines[axis][at[axis]];
      if (
        next === undefined ||
        line === undefined ||
        plates.some((plate) => plate.axis === axis && Math.abs(plate.at_m - line) <= SAME_M && covers(plate, at, lines))
      )
        continue;
      sets.join(c, next);
    }
  });
  const roots = [...new Set(cells.map((_, c) => sets.root(c)))];
  return cells.map((_, c) => roots.indexOf(sets.root(c)));
}

function covers(plate: Plate, cell: Vec3, lines: Lines): boolean {
  const other = acrossLevel(plate.axis);
  if (other === undefined) return true;
  const [low, high] = [lines[other][cell[other] - 1] ?? -Infinity, lines[other][cell[other]] ?? Infinity];
  return plate.from_m <= low + SAME_M && plate.to_m >= high - SAME_M;
}

/** Off a plate's own plane, where the tank may step: it closes the smaller side [m]. */
const STEP_ASIDE_M = 5e-6;

/** A plate as it fits into the walls of a tank. */
export function fitPlate(walls: ClosedMesh, plate: Plate): FittedPlate {
  const trimmed = (loop: Point2[]): Point2[] => {
    if (plate.axis === 2) return loop;
    const upTo = Number.isFinite(plate.to_m) ? outlineBelow(loop, [1, 0], plate.to_m) : loop;
    return Number.isFinite(plate.from_m) ? outlineBelow(upTo, [-1, 0], -plate.from_m) : upTo;
  };
  const [below, above] = [-STEP_ASIDE_M, STEP_ASIDE_M].map((by) =>
    sectionAcross(walls, plate.axis, plate.at_m + by)
      .map(trimmed)
      .filter((loop) => loop.length > 2),
  ) as [Point2[][], Point2[][]];
  return {
    ...plate,
    outline: below.length > 0 && (above.length === 0 || outlineArea(below) <= outlineArea(above)) ? below : above,
  };
}

const outlineArea = (loops: readonly (readonly Point2[])[]): number =>
  Math.abs(loops.reduce((sum, loop) => sum + signedArea_m2(loop), 0));

/** Metal of one plate, its openings taken out, and its centre; of no area where it misses the tank. */
export function plateArea_m2(plate: FittedPlate): { readonly area_m2: number; readonly centre_m: Vec3 } {
  if (plate.outline.length === 0) return { area_m2: 0, centre_m: [0, 0, 0] };
  const open = openingsOf(plate).reduce((sum, opening) => sum + opening.area_m2, 0);
  const points = plate.outline.flat();
  const middle = (k: 0 | 1): number =>
    (Math.min(...points.map((p) => p[k])) + Math.max(...points.map((p) => p[k]))) / 2;
  return { area_m2: Math.max(0, outlineArea(plate.outline) - open), centre_m: onPlate(plate, [middle(0), middle(1)]) };
}

/** A point of a plate's outline in the tank frame. */
export const onPlate = (plate: Plate, [u, v]: Point2): Vec3 =>
  plate.axis === 0 ? [plate.at_m, u, v] : plate.axis === 1 ? [u, plate.at_m, v] : [u, v, plate.at_m];

type Opening = { readonly kind: PassageKind; readonly at: Point2; readonly area_m2: number };

/** Corners this near to the lowest, as a share of the plate's height, are low corners too. */
const LOW_SHARE = 0.02;
/** Low corners closer than this share of the width are one. */
const ONE_CORNER_SHARE = 0.05;

function openingsOf(plate: FittedPlate): Opening[] {
  const { outline: loops } = plate;
  const points = loops.flat();
  const [low, high] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const [left, right] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const lowest = points.filter((p) => p[1] <= low + LOW_SHARE * (high - low)).map((p) => p[0]);
  const [lowLeft, lowRight] = [Math.min(...lowest), Math.max(...lowest)];
  const openings: Opening[] = [];
  if (plate.cornerCut_m > 0) {
    const ends =
      lowRight - lowLeft > ONE_CORNER_SHARE * (right - left) ? [lowLeft, lowRight] : [(lowLeft + lowRight) / 2];
    const corners: Point2[] =
      plate.axis === 2
        ? [
            [left, low],
            [right, low],
            [right, high],
            [left, high],
          ]
        : ends.map((u) => [u, low] as const);
    corners.forEach((at) => openings.push({ kind: 'corner', at, area_m2: plate.cornerCut_m ** 2 / 2 }));
  }
  const { count, diameter_m, height_m } = plate.holes;
  if (count > 0) {
    const v = plate.axis === 2 ? (low + high) / 2 : low + height_m;
    const [from, to] = widthAt(loops, v) ?? [left, right];
    const sill = plate.axis === 2 ? v : v - diameter_m / 2;
    for (let i = 0; i < count; i++)
      openings.push({
        kind: 'hole',
        at: [from + ((i + 0.5) / count) * (to - from), sill],
        area_m2: (Math.PI / 4) * diameter_m ** 2,
      });
  }
  if (plate.flap)
    openings.push({
      kind: 'flap',
      at: plate.axis === 2 ? [(left + right) / 2, (low + high) / 2] : [(lowLeft + lowRight) / 2, low],
      area_m2: plate.flap.width_m * plate.flap.height_m,
    });
  if (plate.topGap_m > 0 && plate.axis !== 2) {
    const v = Math.max(low, high - plate.topGap_m);
    const [from, to] = widthAt(loops, v) ?? [left, right];
    [from, to].forEach((u) => openings.push({ kind: 'gap', at: [u, v], area_m2: (plate.topGap_m * (to - from)) / 2 }));
  }
  return openings;
}

/** How far the outline reaches each way at a height. */
function widthAt(loops: readonly (readonly Point2[])[], v: number): readonly [number, number] | undefined {
  const crossings = loops.flatMap((loop) => crossingsAt(loop, 1, v)).map(([u]) => u);
  return crossings.length < 2 ? undefined : [Math.min(...crossings), Math.max(...crossings)];
}

/** Steps off an opening into the compartments on either side, and off the walls it lies against [m]. */
const STEP_M = 1e-6;

function passagesOf(plate: FittedPlate, compartmentOf: (point: Vec3) => number): Passage[] {
  if (plate.outline.length === 0) return [];
  const points = plate.outline.flat();
  const middle: Point2 = [
    points.reduce((sum, p) => sum + p[0] / points.length, 0),
    points.reduce((sum, p) => sum + p[1] / points.length, 0),
  ];
  return openingsOf(plate).flatMap((opening): Passage[] => {
    const inward = (k: 0 | 1): number => opening.at[k] + Math.sign(middle[k] - opening.at[k]) * STEP_M;
    const near = onPlate(plate, [inward(0), inward(1)]);
    const beside = (by: number): Vec3 =>
      near.map((value, axis) => (axis === plate.axis ? value + by : value)) as unknown as Vec3;
    const compartments = [compartmentOf(beside(-STEP_M)), compartmentOf(beside(STEP_M))] as const;
    if (compartments[0] < 0 || compartments[1] < 0 || compartments[0] === compartments[1]) return [];
    const flap = opening.kind === 'flap' ? plate.flap : undefined;
    return [
      {
        plate: plate.id,
        kind: opening.kind,
        compartments,
        point_m: onPlate(plate, opening.at),
        beside_m: [beside(-STEP_M), beside(STEP_M)],
        area_m2: opening.area_m2,
        into: [flap?.passes !== 'higher', flap?.passes !== 'lower'],
        leak_ratio: flap?.leak_ratio ?? 1,
      },
    ];
  });
}

/** Liquid in a compartment below a level that it keeps to itself [m³]. */
export const compartmentBelow_m3 = (compartment: Compartment, up: Vec3, offset_m: number): number =>
  offset_m === Infinity ? compartment.volume_m3 : volumeBelow(compartment.mesh, { normal: up, offset_m });
