import {
  compileTankBody,
  hoseEndOf,
  outerMesh,
  placeOf,
  portSeat,
  standsOn,
  rimOf,
  wallAt,
  type FitCode,
} from '../../model/compileFit';
import { SIDE_WAYS } from '../../model/axes';
import { tankBody } from '../../model/compileBody';
import { OUTWARD } from '../../model/axes';
import { holeOf_m, portPoint } from '../../model/portSeat';
import { bossPorts, type BossEnd } from '../../model/sightBosses';
import type { Path } from '../../plan/edit';
import type { PortDocument, SpacePlan, TankDocument } from '../../plan/schema';
import { holePlan, tapPlan, type HolePlan, type TapPlan } from '../../fittings';
import { isSolid } from '../../fit';
import {
  add,
  clippedTriangle,
  dot,
  flatFaces,
  insideOutline,
  placedBack,
  scale,
  silhouette,
  subtract,
  toStretch,
  triangleCount,
  type ClosedMesh,
  type FaceFrame,
  type Point2,
  type Vec3,
} from '../../geometry';
import { memoized } from '../../memo';
import { success, type Outcome } from '../../outcome';
import { ALLOYS } from '../../reference/alloys';
import { HOLE_RULES } from '../../reference/holeTools';
import { portPart } from '../../reference/portParts';
import { onPlate, type FittedPlate } from '../../tank';
import { sceneOf, type FitScene } from './fit';
import { checksOf, type Bare, type FromEdge, type Inside, type SheetCheck } from './sheetChecks';
import { faceNames, inFace, LEAST_FACE_M2, ON_FACE_M } from './templates';

export type SheetPort = {
  readonly id: string;
  /** Among the tank's ports, or of a boss among its sight tubes. */
  readonly index: number;
  /** Of a sight tube's boss, which of the two. */
  readonly boss?: BossEnd;
  readonly name: string;
  readonly role: PortDocument['role'];
  readonly part: string | undefined;
  readonly existing: boolean;
  readonly at_m: Point2;
  readonly hole_m: number;
  readonly cover_m: number;
  /** Under the sheet: width and depth. */
  readonly below_m: readonly [number, number];
  readonly screws: readonly Point2[];
  readonly screw_m: number;
  /** Where a hose end that turns aside reaches. */
  readonly hoseEnd?: { readonly to: Point2; readonly width_m: number };
  /** Two edges that are not one behind the other, the nearer first; from left and from below on a projected sheet. */
  readonly fromEdges: readonly FromEdge[];
  readonly plan: HolePlan;
  readonly tap?: TapPlan;
  /** How far the wall under the cover is out of flat [m]. */
  readonly sag_m: number;
  readonly seal: 'seals' | 'boss' | 'unknown';
  readonly checks: readonly SheetCheck[];
};

/** A face of a tank as a sheet seen from outside. */
export type FaceSheet = {
  readonly name: string;
  /** A curved wall is seen along its face's own way. */
  readonly kind: 'flat' | 'projected';
  /** The face to which a new port on this sheet belongs. */
  readonly face: PortDocument['face'];
  readonly frame: FaceFrame;
  readonly loops: readonly (readonly Point2[])[];
  readonly width_m: number;
  readonly height_m: number;
  /** Baffles behind it, as the strips in which they meet the sheet. */
  readonly baffles: readonly {
    readonly name: string;
    readonly from: Point2;
    readonly to: Point2;
    readonly thickness_m: number;
  }[];
  /** What stands close over it, as outlines on the sheet. */
  readonly over: readonly { readonly name: string; readonly outline: readonly Point2[]; readonly least_m: number }[];
  readonly ports: readonly SheetPort[];
};

/** Where the plan says where a hole is. */
export const holePath = (t: number, { index, boss }: Pick<SheetPort, 'index' | 'boss'>): Path =>
  boss ? ['tanks', t, 'sightTubes', index, boss] : ['tanks', t, 'ports', index];

/** Nothing higher than this over a sheet matters to what stands on it [m]. */
const OVER_M = 0.15;

/** The sheets of every tank, in their order. */
export type SheetsOutcome = Outcome<readonly (readonly FaceSheet[])[], FitCode>;

/** The faces of all tanks as sheets; the same as long as space and tanks stay. */
export const sheetsOf = ({ fit, tanks, mounts, lines }: SpacePlan): SheetsOutcome =>
  sheetsIn({ fit: { ...fit, removals: [], spots: [] }, tanks, mounts, lines });

const sheetsIn = memoized('sheets', madeSheets, 2);

function madeSheets(system: SpacePlan): SheetsOutcome {
  const all: (readonly FaceSheet[])[] = [];
  const scene = sceneOf(system);
  for (const t of system.tanks.keys()) {
    const sheets = faceSheets(system, t, scene);
    if (!sheets.ok) return sheets;
    all.push(sheets.value);
  }
  return success(all);
}

/**
 * Every face of a tank as a sheet with its ports: flat faces first, largest first, then curved walls that carry a port.
 */
export function faceSheets(
  system: SpacePlan,
  t: number,
  scene = sceneOf(system),
): Outcome<readonly FaceSheet[], FitCode> {
  const tank = system.tanks[t]!;
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  const faces = flatFaces(outer.value).filter(({ area_m2 }) => area_m2 > LEAST_FACE_M2);
  const names = faceNames(faces.map(({ frame }) => frame.normal));
  const bare: Bare[] = faces.map(({ frame, loops }, i) => ({
    name: names[i]!,
    kind: 'flat',
    face: faceOf(frame.normal),
    frame,
    loops,
  }));
  // A spigot stands on another port's plate, and has no hole of its own.
  const holes: Omit<Placed, 'point_m'>[] = [
    ...tank.ports.flatMap((port, index) => (port.on ? [] : [{ port, index }])),
    ...bossPorts(tank),
  ];
  const placed = holes.flatMap((hole): Placed[] => {
    const point_m = portPoint(outer.value, hole.port);
    return point_m ? [{ ...hole, point_m }] : [];
  });
  const onSheets = new Map<Bare, typeof placed>();
  for (const one of placed) {
    const sheet =
      bare.find((candidate) => candidate.kind === 'flat' && liesOn(candidate, one.point_m)) ??
      projected(bare, outer.value, one.port.face);
    onSheets.set(sheet, [...(onSheets.get(sheet) ?? []), one]);
  }
  if (!scene.ok) return scene;
  const inside = insideOf(system, tank, outer.value, scene.value);
  if (!inside.ok) return inside;
  return success(
    bare.map((sheet): FaceSheet => {
      const span = (k: 0 | 1): number => Math.max(...sheet.loops[0]!.map((point) => point[k]));
      return {
        ...sheet,
        width_m: span(0),
        height_m: span(1),
        baffles: bafflesBehind(inside.value.plates, tank, sheet),
        over: overSheet(inside.value.round, sheet),
        ports: withNeighbours(
          (onSheets.get(sheet) ?? []).map((one) => sheetPort(tank, sheet, one, outer.value, inside.value)),
        ),
      };
    }),
  );
}

/** Which way of the six a face looks most. */
const faceOf = (normal: Vec3): PortDocument['face'] =>
  (Object.keys(OUTWARD) as PortDocument['face'][]).reduce((best, face) =>
    dot(OUTWARD[face], normal) > dot(OUTWARD[best], normal) ? face : best,
  );

const liesOn = ({ frame, loops }: Bare, point_m: Vec3): boolean =>
  Math.abs(dot(frame.normal, subtract(point_m, frame.origin_m))) < ON_FACE_M &&
  insideOutline(loops, inFace(point_m, frame));

const PROJECTED_NAMES: Readonly<Record<PortDocument['face'], string>> = {
  lid: 'From above',
  floor: 'From below',
  fore: 'From before',
  aft: 'From behind',
  port: 'From port',
  starboard: 'From starboard',
};

/** The whole tank seen along a face's way, made where a port needs it. */
function projected(bare: Bare[], outer: ClosedMesh, face: PortDocument['face']): Bare {
  const known = bare.find((sheet) => sheet.kind === 'projected' && sheet.face === face);
  if (known) return known;
  const normal = OUTWARD[face];
  const v: Vec3 = normal[2] !== 0 ? [1, 0, 0] : [0, 0, 1];
  const u: Vec3 = [
    v[1] * normal[2] - v[2] * normal[1],
    v[2] * normal[0] - v[0] * normal[2],
    v[0] * normal[1] - v[1] * normal[0],
  ];
  const flat = (k: number): Point2 => {
    const at: Vec3 = [outer.positions[3 * k]!, outer.positions[3 * k + 1]!, outer.positions[3 * k + 2]!];
    return [dot(u, at), dot(v, at)];
  };
  const outline = silhouette(
    Array.from({ length: triangleCount(outer) }, (_, i) => [0, 1, 2].map((k) => flat(outer.triangles[3 * i + k]!))),
  );
  const [left, low] = [0, 1].map((k) => Math.min(...outline.flat().map((point) => point[k]!))) as [number, number];
  const top = Math.max(
    ...Array.from({ length: outer.positions.length / 3 }, (_, k) =>
      dot(normal, [outer.positions[3 * k]!, outer.positions[3 * k + 1]!, outer.positions[3 * k + 2]!]),
    ),
  );
  const sheet: Bare = {
    name: PROJECTED_NAMES[face],
    kind: 'projected',
    face,
    frame: { origin_m: add(add(scale(u, left), scale(v, low)), scale(normal, top)), u, v, normal },
    loops: outline.map((loop) => loop.map(([a, b]): Point2 => [a - left, b - low])),
  };
  bare.push(sheet);
  return sheet;
}

function insideOf(system: SpacePlan, tank: TankDocument, outer: ClosedMesh, scene: FitScene): Outcome<Inside, FitCode> {
  const body = tankBody(tank);
  const whole = compileTankBody(system, tank);
  if (!whole.ok) return whole;
  const at = placeOf(tank.mounting);
  const owner = (id: string): string | undefined =>
    tank.ports.find((port) => port.id === id || hoseEndOf(port.id) === id)?.id;
  return success({
    shell: body.ok ? body.value.shell : outer,
    plates: body.ok ? body.value.plates.map(({ plate }) => plate) : [],
    pieces: whole.value.pieces.flatMap(({ id, name, surface }) => {
      const port = owner(id);
      return port ? [{ port, name, surface }] : [];
    }),
    round: scene.obstacles
      .filter(({ role }) => isSolid(role))
      .map(({ name, surface }) => {
        const positions = new Float64Array(surface.positions.length);
        for (let k = 0; k < positions.length; k += 3)
          positions.set(
            placedBack(at, [surface.positions[k]!, surface.positions[k + 1]!, surface.positions[k + 2]!]),
            k,
          );
        return { name, surface: { ...surface, positions } as ClosedMesh };
      }),
  });
}

/** The strip in which an upright plate meets a sheet that it runs up to; nothing where it ends before. */
function bafflesBehind(
  plates: readonly FittedPlate[],
  tank: TankDocument,
  { frame, loops }: Bare,
): FaceSheet['baffles'] {
  return plates.flatMap((plate) => {
    const name = tank.plates.find(({ id }) => id === plate.id)?.name ?? 'baffle';
    // Corners of the plate that lie close behind the sheet.
    const corners = plate.outline
      .flat()
      .map((point) => onPlate(plate, point))
      .filter((point) => {
        const deep = -dot(frame.normal, subtract(point, frame.origin_m));
        return deep > -BEHIND_M && deep < BEHIND_M + tank.material.thickness_m.value;
      })
      .map((point) => inFace(point, frame));
    if (corners.length < 2) return [];
    let ends: readonly [Point2, Point2] = [corners[0]!, corners[1]!];
    for (const a of corners)
      for (const b of corners)
        if (Math.hypot(a[0] - b[0], a[1] - b[1]) > Math.hypot(ends[0][0] - ends[1][0], ends[0][1] - ends[1][1]))
          ends = [a, b];
    const [from, to] = ends;
    const middle: Point2 = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
    return Math.hypot(from[0] - to[0], from[1] - to[1]) > BEHIND_M && insideOutline(loops, middle)
      ? [{ name, from, to, thickness_m: plate.thickness_m }]
      : [];
  });
}
/** A plate that meets the sheet ends so near to it [m]. */
const BEHIND_M = 0.004;

/** Outlines of what stands close over a sheet, seen on it. */
function overSheet(round: Inside['round'], { frame, loops }: Bare): FaceSheet['over'] {
  const offset = dot(frame.normal, frame.origin_m);
  return round.flatMap(({ name, surface }) => {
    const near: Point2[][] = [];
    let least_m = Infinity;
    for (let i = 0; i < triangleCount(surface); i++) {
      const { points } = clippedTriangle(surface, i, { normal: frame.normal, offset_m: offset + OVER_M });
      const above = points.filter((point) => dot(frame.normal, point) > offset - ON_FACE_M);
      if (above.length < 3) continue;
      const flat = above.map((point) => inFace(point, frame));
      if (!flat.some((point) => insideOutline(loops, point))) continue;
      least_m = Math.min(least_m, ...above.map((point) => dot(frame.normal, point) - offset));
      for (let k = 2; k < flat.length; k++) near.push([flat[0]!, flat[k - 1]!, flat[k]!]);
    }
    if (near.length === 0) return [];
    return silhouette(near)
      .slice(0, 1)
      .map((outline) => ({ name, outline, least_m: Math.max(0, least_m) }));
  });
}

type Placed = { readonly port: PortDocument; readonly index: number; readonly boss?: BossEnd; readonly point_m: Vec3 };

function sheetPort(
  tank: TankDocument,
  sheet: Bare,
  { port, index, boss, point_m }: Placed,
  outer: ClosedMesh,
  inside: Inside,
): SheetPort {
  const part = port.part ? portPart(port.part) : undefined;
  const sheet_m = tank.material.thickness_m.value;
  const at_m = inFace(point_m, sheet.frame);
  const hole_m = holeOf_m(port);
  const cover_m = Math.max(hole_m, standsOn(port).diameter_m);
  const bolts = port.bolts
    ? {
        count: port.bolts.count,
        circle: port.bolts.circle_m.value,
        angles_deg: anglesOf(port.bolts),
        hole: port.bolts.diameter_m.value,
      }
    : part?.bolts
      ? {
          count: part.bolts.count,
          circle: part.bolts.circle,
          angles_deg: part.bolts.angles_deg,
          hole: SCREW_HOLE_M[part.bolts.thread] ?? SCREW_HOLE_M.any!,
        }
      : undefined;
  const soft = ALLOYS[tank.material.alloy].gauge !== 'steel';
  const tap = tapPlan(part, sheet_m, soft);
  const sag_m = sagUnder(outer, port, point_m, cover_m / 2);
  const seal = part === undefined ? 'unknown' : sag_m <= part.takesUp ? 'seals' : 'boss';
  const below_m = [part?.belowDiameter ?? hole_m, part?.below ?? 0] as const;
  const turns = port.stands?.turns ?? 'straight';
  const reach = port.stands?.reach_m.value ?? 0;
  const way = turns === 'straight' ? undefined : SIDE_WAYS[turns];
  const fromEdges = edgesFrom(sheet, at_m);
  return {
    id: port.id,
    index,
    ...(boss ? { boss } : {}),
    name: port.name,
    role: port.role,
    part: part?.name,
    existing: port.existing === true,
    at_m,
    hole_m,
    cover_m,
    below_m,
    screws: bolts
      ? circleOf(at_m, bolts.circle / 2, bolts.angles_deg ?? evenly(bolts.count), port.clock_deg?.value ?? 0)
      : [],
    screw_m: bolts?.hole ?? 0,
    ...(way && reach > 0
      ? {
          hoseEnd: {
            to: [at_m[0] + reach * dot(way, sheet.frame.u), at_m[1] + reach * dot(way, sheet.frame.v)] as Point2,
            width_m: standsOn(port).diameter_m,
          },
        }
      : {}),
    fromEdges,
    plan: holePlan(hole_m, sheet_m),
    ...(tap ? { tap } : {}),
    sag_m,
    seal,
    checks: checksOf(
      tank,
      sheet,
      { port, part, tap, at_m, hole_m, cover_m, below_m, fromEdges, sag_m, seal, point_m },
      outer,
      inside,
    ),
  };
}
/**
 * Through holes of screws that are tapped into a ring or a boss below, by thread [m]. Common practice: half a
 * millimetre over.
 */
const SCREW_HOLE_M: Readonly<Record<string, number>> = { 'M5 x 0.8': 0.0055, 'M6 x 1': 0.0066, any: 0.0055 };

const evenly = (count: number): number[] => Array.from({ length: count }, (_, i) => (360 * i) / count);

/** Screws as measured on the part at hand: even, but for the last where that is out of step. */
const anglesOf = ({ count, outOfStep_deg }: NonNullable<PortDocument['bolts']>): number[] =>
  evenly(count).map((angle, i) => angle + (i === count - 1 ? (outOfStep_deg?.value ?? 0) : 0));

/** Screws about a hole, the first at an angle from the sheet's upward way, clockwise. */
const circleOf = ([u, v]: Point2, radius: number, angles_deg: readonly number[], clock_deg: number): Point2[] =>
  angles_deg.map((each) => {
    const angle = ((clock_deg + each) * Math.PI) / 180;
    return [u + radius * Math.sin(angle), v + radius * Math.cos(angle)];
  });

/**
 * How far the wall under a cover is out of flat: about the way that it looks at the hole, since a ring is set square to
 * it [m].
 */
function sagUnder(outer: ClosedMesh, port: PortDocument, point_m: Vec3, radius_m: number): number {
  const seat = portSeat(outer, port);
  const wall = wallAt(outer, port, point_m);
  if (!seat || !wall || seat.isFlat) return 0;
  const heights = [0, radius_m / 2, radius_m].flatMap((radius) =>
    rimOf(port, point_m, radius).flatMap((rim) => {
      const there = wallAt(outer, port, rim);
      return there ? [dot(wall.normal, there.point_m)] : [];
    }),
  );
  return Math.max(...heights) - Math.min(...heights);
}

/** The two edges to measure a centre from: the nearest, and the nearest of those that do not run the same way. */
function edgesFrom({ kind, loops }: Bare, at: Point2): FromEdge[] {
  const outline = loops[0]!;
  if (kind === 'projected')
    return [
      { from: -1, to: -1, distance_m: at[0], foot: [0, at[1]] },
      { from: -2, to: -2, distance_m: at[1], foot: [at[0], 0] },
    ];
  const all = outline
    .map((a, from) => {
      const to = (from + 1) % outline.length;
      const { distance_m, foot, share } = toStretch(at, a, outline[to]!);
      const way = Math.atan2(outline[to]![1] - a[1], outline[to]![0] - a[0]);
      return { from, to, distance_m, foot, way, square: share > 0 && share < 1 };
    })
    .sort((a, b) => Number(b.square) - Number(a.square) || a.distance_m - b.distance_m);
  const [first] = all;
  const second = all.find(({ way }) => Math.abs(Math.sin(way - first!.way)) > ACROSS_SIN);
  return [first!, ...(second ? [second] : [])].map(({ from, to, distance_m, foot }) => ({
    from,
    to,
    distance_m,
    foot,
  }));
}
/** Two edges that cross by less than 30° fix a centre badly. */
const ACROSS_SIN = 0.5;

/** Covers and what is under them, against each other. */
function withNeighbours(ports: readonly SheetPort[]): SheetPort[] {
  return ports.map((port) => {
    const checks = ports.flatMap((other): SheetCheck[] => {
      if (other.id === port.id || (port.existing && other.existing)) return [];
      const apart = Math.hypot(port.at_m[0] - other.at_m[0], port.at_m[1] - other.at_m[1]);
      const covers = apart - (port.cover_m + other.cover_m) / 2;
      const nuts = apart - (port.below_m[0] + other.below_m[0]) / 2;
      // A small bare hole in another's cap or flange is drilled there on purpose.
      const bare = [port, other].find((one) => one.part === undefined && one.cover_m === one.hole_m);
      if (bare && apart + bare.hole_m / 2 <= (bare === port ? other : port).cover_m / 2) return [];
      const want_m = bare ? 0 : HOLE_RULES.neighbour.least;
      if (covers < want_m) return [{ kind: 'neighbour', with: other.name, have_m: covers, want_m }];
      return port.below_m[1] > 0 && other.below_m[1] > 0 && nuts < HOLE_RULES.neighbour.least
        ? [{ kind: 'inside-neighbour', with: other.name, have_m: nuts, want_m: HOLE_RULES.neighbour.least }]
        : [];
    });
    // What stands on a neighbour is said once.
    const checked = new Set(checks.map((check) => check.with));
    return {
      ...port,
      checks: [
        ...checks,
        ...port.checks.filter(
          (check) => check.kind !== 'hose-end' || ![...checked].some((name) => check.with === name),
        ),
      ],
    };
  });
}

/** The document's coordinates of a point on a sheet, for the face that it belongs to. */
export function onDocument(
  { frame, face }: Pick<FaceSheet, 'frame' | 'face'>,
  [u, v]: Point2,
): { readonly x_m?: number; readonly y_m?: number; readonly z_m?: number } {
  const point = add(frame.origin_m, add(scale(frame.u, u), scale(frame.v, v)));
  const across = face === 'lid' || face === 'floor' ? 2 : face === 'fore' || face === 'aft' ? 0 : 1;
  return Object.fromEntries(
    (['x_m', 'y_m', 'z_m'] as const).flatMap((key, axis) => (axis === across ? [] : [[key, point[axis]!]])),
  );
}
