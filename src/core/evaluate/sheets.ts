import { compileTankBody, hoseEndOf, outerMesh, placeOf, portSeat, standsOn, TURN_WAY, rimOf, wallAt, type FitCode } from '../document/compileFit';
import { tankBody } from '../document/compileBody';
import { OUTWARD, portPoint } from '../document/compileTank';
import type { PortDocument, SystemDocument, TankDocument } from '../document/schema';
import { holePlan, tapPlan, type HolePlan, type TapPlan } from '../fittings';
import { isSolid } from '../fit';
import { add, AT_HOME, clippedTriangle, depthInside, dot, flatFaces, frameAlong, insideOutline, placedBack, scale, separation, silhouette, subtract, toStretch, treeOf, triangleCount, type ClosedMesh, type FaceFrame, type Point2, type Vec3 } from '../geometry';
import { success, type Outcome } from '../outcome';
import { ALLOYS } from '../reference/alloys';
import { HOLE_RULES } from '../reference/holeTools';
import { portPart, type PortPartRow } from '../reference/portParts';
import { onPlate, type FittedPlate } from '../tank';
import { sceneOf } from './fit';
import { faceNames, inFace, LEAST_FACE_M2, ON_FACE_M } from './templates';

export const SHEET_CHECKS = ['neighbour', 'inside-neighbour', 'hose-end', 'edge', 'bend', 'seam', 'baffle', 'inside', 'outside', 'not-flat', 'too-thick', 'off-sheet'] as const;
export type SheetCheckKind = (typeof SHEET_CHECKS)[number];

/** Something about a hole that will not do: what is there, and what is wanted [m]. */
export type SheetCheck = { readonly kind: SheetCheckKind; readonly with: string; readonly have_m: number; readonly want_m: number };

/** The centre of a hole from an edge, as a square laid to it finds it. */
export type FromEdge = { readonly from: number; readonly to: number; readonly distance_m: number; readonly foot: Point2 };

export type SheetPort = {
  readonly id: string;
  readonly index: number;
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
  readonly baffles: readonly { readonly name: string; readonly from: Point2; readonly to: Point2; readonly thickness_m: number }[];
  /** What stands close over it, as outlines on the sheet. */
  readonly over: readonly { readonly name: string; readonly outline: readonly Point2[]; readonly least_m: number }[];
  readonly ports: readonly SheetPort[];
};

/** Nothing higher than this over a sheet matters to what stands on it [m]. */
const OVER_M = 0.15;

/** The sheets of every tank, in their order. */
export type SheetsOutcome = Outcome<readonly (readonly FaceSheet[])[], FitCode>;

export function sheetsOf(system: SystemDocument): SheetsOutcome {
  const all: (readonly FaceSheet[])[] = [];
  for (const t of system.tanks.keys()) {
    const sheets = faceSheets(system, t);
    if (!sheets.ok) return sheets;
    all.push(sheets.value);
  }
  return success(all);
}

/** Every face of a tank as a sheet with its ports: flat faces first, largest first, then curved walls that carry a port. */
export function faceSheets(system: SystemDocument, t: number): Outcome<readonly FaceSheet[], FitCode> {
  const tank = system.tanks[t]!;
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  const faces = flatFaces(outer.value).filter(({ area_m2 }) => area_m2 > LEAST_FACE_M2);
  const names = faceNames(faces.map(({ frame }) => frame.normal));
  const bare: Bare[] = faces.map(({ frame, loops }, i) => ({ name: names[i]!, kind: 'flat', face: faceOf(frame.normal), frame, loops }));
  const placed = tank.ports.flatMap((port, index) => {
    const point_m = portPoint(outer.value, port);
    return point_m ? [{ port, index, point_m }] : [];
  });
  const onSheets = new Map<Bare, typeof placed>();
  for (const one of placed) {
    const sheet = bare.find((candidate) => candidate.kind === 'flat' && liesOn(candidate, one.point_m)) ?? projected(bare, outer.value, one.port.face);
    onSheets.set(sheet, [...(onSheets.get(sheet) ?? []), one]);
  }
  const inside = insideOf(system, tank, outer.value);
  if (!inside.ok) return inside;
  return success(bare.map((sheet): FaceSheet => {
    const span = (k: 0 | 1): number => Math.max(...sheet.loops[0]!.map((point) => point[k]));
    return {
      ...sheet, width_m: span(0), height_m: span(1), baffles: bafflesBehind(inside.value.plates, tank, sheet), over: overSheet(inside.value.round, sheet),
      ports: withNeighbours((onSheets.get(sheet) ?? []).map((one) => sheetPort(tank, sheet, one, outer.value, inside.value))),
    };
  }));
}

type Bare = { readonly name: string; readonly kind: FaceSheet['kind']; readonly face: PortDocument['face']; readonly frame: FaceFrame; readonly loops: FaceSheet['loops'] };

/** Which way of the six a face looks most. */
const faceOf = (normal: Vec3): PortDocument['face'] => (Object.keys(OUTWARD) as PortDocument['face'][]).reduce((best, face) => (dot(OUTWARD[face], normal) > dot(OUTWARD[best], normal) ? face : best));

const liesOn = ({ frame, loops }: Bare, point_m: Vec3): boolean =>
  Math.abs(dot(frame.normal, subtract(point_m, frame.origin_m))) < ON_FACE_M && insideOutline(loops, inFace(point_m, frame));

const PROJECTED_NAMES: Readonly<Record<PortDocument['face'], string>> = { lid: 'From above', floor: 'From below', fore: 'From before', aft: 'From behind', port: 'From port', starboard: 'From starboard' };

/** The whole tank seen along a face's way, made where a port needs it. */
function projected(bare: Bare[], outer: ClosedMesh, face: PortDocument['face']): Bare {
  const known = bare.find((sheet) => sheet.kind === 'projected' && sheet.face === face);
  if (known) return known;
  const normal = OUTWARD[face];
  const v: Vec3 = normal[2] !== 0 ? [1, 0, 0] : [0, 0, 1];
  const u: Vec3 = [v[1] * normal[2] - v[2] * normal[1], v[2] * normal[0] - v[0] * normal[2], v[0] * normal[1] - v[1] * normal[0]];
  const flat = (k: number): Point2 => {
    const at: Vec3 = [outer.positions[3 * k]!, outer.positions[3 * k + 1]!, outer.positions[3 * k + 2]!];
    return [dot(u, at), dot(v, at)];
  };
  const outline = silhouette(Array.from({ length: triangleCount(outer) }, (_, i) => [0, 1, 2].map((k) => flat(outer.triangles[3 * i + k]!))));
  const [left, low] = [0, 1].map((k) => Math.min(...outline.flat().map((point) => point[k]!))) as [number, number];
  const top = Math.max(...Array.from({ length: outer.positions.length / 3 }, (_, k) => dot(normal, [outer.positions[3 * k]!, outer.positions[3 * k + 1]!, outer.positions[3 * k + 2]!])));
  const sheet: Bare = {
    name: PROJECTED_NAMES[face], kind: 'projected', face, frame: { origin_m: add(add(scale(u, left), scale(v, low)), scale(normal, top)), u, v, normal },
    loops: outline.map((loop) => loop.map(([a, b]): Point2 => [a - left, b - low])),
  };
  bare.push(sheet);
  return sheet;
}

type Inside = {
  readonly shell: ClosedMesh;
  readonly plates: readonly FittedPlate[];
  /** What stands on the tank, by the port it stands on. */
  readonly pieces: readonly { readonly port: string; readonly name: string; readonly surface: ClosedMesh }[];
  /** Solid things of the space, in the tank's frame. */
  readonly round: readonly { readonly name: string; readonly surface: ClosedMesh }[];
};

function insideOf(system: SystemDocument, tank: TankDocument, outer: ClosedMesh): Outcome<Inside, FitCode> {
  const body = tankBody(tank);
  const whole = compileTankBody(system, tank);
  if (!whole.ok) return whole;
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const at = placeOf(tank.mounting);
  const owner = (id: string): string | undefined => tank.ports.find((port) => port.id === id || hoseEndOf(port.id) === id)?.id;
  return success({
    shell: body.ok ? body.value.shell : outer, plates: body.ok ? body.value.plates.map(({ plate }) => plate) : [],
    pieces: whole.value.pieces.flatMap(({ id, name, surface }) => {
      const port = owner(id);
      return port ? [{ port, name, surface }] : [];
    }),
    round: scene.value.things.filter(({ role }) => isSolid(role)).map(({ name, surface }) => {
      const positions = new Float64Array(surface.positions.length);
      for (let k = 0; k < positions.length; k += 3) positions.set(placedBack(at, [surface.positions[k]!, surface.positions[k + 1]!, surface.positions[k + 2]!]), k);
      return { name, surface: { ...surface, positions } as ClosedMesh };
    }),
  });
}

/** The strip in which an upright plate meets a sheet that it runs up to; nothing where it ends before. */
function bafflesBehind(plates: readonly FittedPlate[], tank: TankDocument, { frame, loops }: Bare): FaceSheet['baffles'] {
  return plates.flatMap((plate) => {
    const name = tank.plates.find(({ id }) => id === plate.id)?.name ?? 'baffle';
    // Corners of the plate that lie close behind the sheet.
    const corners = plate.outline.flat().map((point) => onPlate(plate, point)).filter((point) => {
      const deep = -dot(frame.normal, subtract(point, frame.origin_m));
      return deep > -BEHIND_M && deep < BEHIND_M + tank.material.thickness_m.value;
    }).map((point) => inFace(point, frame));
    if (corners.length < 2) return [];
    let ends: readonly [Point2, Point2] = [corners[0]!, corners[1]!];
    for (const a of corners) for (const b of corners) if (Math.hypot(a[0] - b[0], a[1] - b[1]) > Math.hypot(ends[0][0] - ends[1][0], ends[0][1] - ends[1][1])) ends = [a, b];
    const [from, to] = ends;
    const middle: Point2 = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
    return Math.hypot(from[0] - to[0], from[1] - to[1]) > BEHIND_M && insideOutline(loops, middle) ? [{ name, from, to, thickness_m: plate.thickness_m }] : [];
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
    return silhouette(near).slice(0, 1).map((outline) => ({ name, outline, least_m: Math.max(0, least_m) }));
  });
}

type Placed = { readonly port: PortDocument; readonly index: number; readonly point_m: Vec3 };

function sheetPort(tank: TankDocument, sheet: Bare, { port, index, point_m }: Placed, outer: ClosedMesh, inside: Inside): SheetPort {
  const part = port.part ? portPart(port.part) : undefined;
  const sheet_m = tank.material.thickness_m.value;
  const at_m = inFace(point_m, sheet.frame);
  const hole_m = port.hole_m?.value ?? part?.hole ?? port.bore_m.value;
  const cover_m = Math.max(hole_m, standsOn(port).diameter_m);
  const bolts = port.bolts ? { count: port.bolts.count, circle: port.bolts.circle_m.value, hole: port.bolts.diameter_m.value } : part?.bolts ? { count: part.bolts.count, circle: part.bolts.circle, hole: SCREW_HOLE_M[part.bolts.thread] ?? SCREW_HOLE_M.any! } : undefined;
  const soft = ALLOYS[tank.material.alloy].gauge !== 'steel';
  const tap = tapPlan(part, sheet_m, soft);
  const sag_m = sagUnder(outer, port, point_m, cover_m / 2);
  const seal = part === undefined ? 'unknown' : sag_m <= part.takesUp ? 'seals' : 'boss';
  const below_m = [part?.belowDiameter ?? hole_m, part?.below ?? 0] as const;
  const turns = port.stands?.turns ?? 'straight';
  const reach = port.stands?.reach_m.value ?? 0;
  const way = turns === 'straight' ? undefined : TURN_WAY[turns];
  const fromEdges = edgesFrom(sheet, at_m);
  return {
    id: port.id, index, name: port.name, role: port.role, part: part?.name, existing: port.existing === true, at_m, hole_m, cover_m, below_m,
    screws: bolts ? circleOf(at_m, bolts.circle / 2, bolts.count, port.clock_deg?.value ?? 0) : [], screw_m: bolts?.hole ?? 0,
    ...(way && reach > 0 ? { hoseEnd: { to: [at_m[0] + reach * dot(way, sheet.frame.u), at_m[1] + reach * dot(way, sheet.frame.v)] as Point2, width_m: standsOn(port).diameter_m } } : {}),
    fromEdges, plan: holePlan(hole_m, sheet_m), ...(tap ? { tap } : {}), sag_m, seal,
    checks: checksOf(tank, sheet, { port, part, at_m, hole_m, cover_m, below_m, fromEdges, sag_m, seal, tap, point_m }, outer, inside),
  };
}
/** Through holes of screws that are tapped into a ring or a boss below, by thread [m]. Common practice: half a millimetre over. */
const SCREW_HOLE_M: Readonly<Record<string, number>> = { 'M5 x 0.8': 0.0055, 'M6 x 1': 0.0066, any: 0.0055 };

/** Screws about a hole, the first at an angle from the sheet's upward way, clockwise. */
const circleOf = ([u, v]: Point2, radius: number, count: number, clock_deg: number): Point2[] => Array.from({ length: count }, (_, i) => {
  const angle = ((clock_deg + (360 * i) / count) * Math.PI) / 180;
  return [u + radius * Math.sin(angle), v + radius * Math.cos(angle)];
});

/** How far the wall under a cover is out of flat: about the way that it looks at the hole, since a ring is set square to it [m]. */
function sagUnder(outer: ClosedMesh, port: PortDocument, point_m: Vec3, radius_m: number): number {
  const seat = portSeat(outer, port);
  const wall = wallAt(outer, port, point_m);
  if (!seat || !wall || seat.isFlat) return 0;
  const heights = [0, radius_m / 2, radius_m].flatMap((radius) => rimOf(port, point_m, radius).flatMap((rim) => {
    const there = wallAt(outer, port, rim);
    return there ? [dot(wall.normal, there.point_m)] : [];
  }));
  return Math.max(...heights) - Math.min(...heights);
}

/** The two edges to measure a centre from: the nearest, and the nearest of those that do not run the same way. */
function edgesFrom({ kind, loops }: Bare, at: Point2): FromEdge[] {
  const outline = loops[0]!;
  if (kind === 'projected') return [{ from: -1, to: -1, distance_m: at[0], foot: [0, at[1]] }, { from: -2, to: -2, distance_m: at[1], foot: [at[0], 0] }];
  const all = outline.map((a, from) => {
    const to = (from + 1) % outline.length;
    const { distance_m, foot, share } = toStretch(at, a, outline[to]!);
    const way = Math.atan2(outline[to]![1] - a[1], outline[to]![0] - a[0]);
    return { from, to, distance_m, foot, way, square: share > 0 && share < 1 };
  }).sort((a, b) => Number(b.square) - Number(a.square) || a.distance_m - b.distance_m);
  const [first] = all;
  const second = all.find(({ way }) => Math.abs(Math.sin(way - first!.way)) > ACROSS_SIN);
  return [first!, ...(second ? [second] : [])].map(({ from, to, distance_m, foot }) => ({ from, to, distance_m, foot }));
}
/** Two edges that cross by less than 30° fix a centre badly. */
const ACROSS_SIN = 0.5;

type Looked = {
  readonly port: PortDocument; readonly part: PortPartRow | undefined; readonly at_m: Point2; readonly hole_m: number; readonly cover_m: number; readonly below_m: readonly [number, number];
  readonly fromEdges: readonly FromEdge[]; readonly sag_m: number; readonly seal: SheetPort['seal']; readonly tap: TapPlan | undefined; readonly point_m: Vec3;
};

function checksOf(tank: TankDocument, sheet: Bare, one: Looked, outer: ClosedMesh, inside: Inside): SheetCheck[] {
  // A hole that is there already is as it is; only what is put into it can foul.
  const cut = one.port.existing !== true;
  return [
    ...(cut ? edgeChecks(tank, sheet, one) : []), ...baffleChecks(tank, one, inside), ...insideChecks(one, inside, outer, tank.material.thickness_m.value), ...outsideChecks(one, outer), ...hoseChecks(one, inside),
    ...(one.seal === 'boss' ? [{ kind: 'not-flat' as const, with: one.part!.seal, have_m: one.sag_m, want_m: one.part!.takesUp }] : []),
    ...(one.part?.mostSheet !== undefined && tank.material.thickness_m.value > one.part.mostSheet ? [{ kind: 'too-thick' as const, with: one.part.name, have_m: tank.material.thickness_m.value, want_m: one.part.mostSheet }] : []),
  ];
}

function edgeChecks(tank: TankDocument, { kind, loops }: Bare, { at_m, hole_m, cover_m, part }: Looked): SheetCheck[] {
  if (kind === 'projected') return [];
  const t = tank.material.thickness_m.value;
  const outline = loops[0]!;
  const edges = loops.flatMap((loop, l) => loop.map((a, i) => ({ from: l === 0 ? i : -1, to: l === 0 ? (i + 1) % loop.length : -1, ...toStretch(at_m, a, loop[(i + 1) % loop.length]!) })));
  const nearest = edges.reduce((best, edge) => (edge.distance_m < best.distance_m ? edge : best));
  const name = nearest.from < 0 ? 'the edge of a recess' : `edge ${nearest.from}-${nearest.to}`;
  const checks: SheetCheck[] = [];
  if (!insideOutline([outline], at_m) || nearest.distance_m < cover_m / 2) return [{ kind: 'off-sheet', with: name, have_m: nearest.distance_m - cover_m / 2, want_m: 0 }];
  const metal = ALLOYS[tank.material.alloy].gauge !== undefined;
  if (metal) {
    const bend = HOLE_RULES.bend.thicknesses * t;
    if (nearest.distance_m - hole_m / 2 < bend) checks.push({ kind: 'bend', with: name, have_m: nearest.distance_m - hole_m / 2, want_m: bend });
    if (part?.join === 'weld' && nearest.distance_m - cover_m / 2 < HOLE_RULES.weld.least) checks.push({ kind: 'seam', with: name, have_m: nearest.distance_m - cover_m / 2, want_m: HOLE_RULES.weld.least });
  } else {
    const edge = HOLE_RULES.edge.diameters * hole_m;
    if (nearest.distance_m - hole_m / 2 < edge) checks.push({ kind: 'edge', with: name, have_m: nearest.distance_m - hole_m / 2, want_m: edge });
  }
  return checks;
}

const DEPTHS = 4;

/** What stands under the sheet against the baffles behind it: as deep as it reaches, over as much of it as they stand under. */
function baffleChecks(tank: TankDocument, { port, point_m, below_m, hole_m }: Looked, { plates }: Inside): SheetCheck[] {
  const inward = scale(OUTWARD[port.face], -1);
  const t = tank.material.thickness_m.value;
  const depth = Math.max(below_m[1], LEAST_DEPTH_M);
  return plates.flatMap((plate): SheetCheck[] => {
    const name = tank.plates.find(({ id }) => id === plate.id)?.name ?? 'a baffle';
    const [u, v] = ([0, 1, 2] as const).filter((axis) => axis !== plate.axis) as [0 | 1 | 2, 0 | 1 | 2];
    const top = Math.max(...plate.outline.flat().map((point) => point[1])) - plate.topGap_m;
    let least = Infinity;
    for (let k = 1; k <= DEPTHS; k++) {
      const point = add(point_m, scale(inward, t + (depth * k) / DEPTHS));
      const off = point[plate.axis] - plate.at_m;
      // The plate reaches under the part where the point beside it lies within its outline and below its gap.
      const beside: Point2 = [point[u], point[v]];
      if (insideOutline(plate.outline, beside) && (plate.axis === 2 || point[2] < top)) least = Math.min(least, Math.abs(off) - plate.thickness_m / 2 - (k === 1 ? Math.max(hole_m, below_m[0]) : below_m[0]) / 2);
    }
    return least < HOLE_RULES.neighbour.least ? [{ kind: 'baffle', with: name, have_m: least, want_m: HOLE_RULES.neighbour.least }] : [];
  });
}
/** A hole without a part is looked behind so far: a baffle's edge would stand in it [m]. */
const LEAST_DEPTH_M = 0.004;
/** Rims of a part that lie on a wall's own rounding do not foul it [m]. */
const ROUNDING_M = 5e-4;
const AROUND = 16;

/** Whether what is under the sheet runs into another wall of the tank: a nut in a recess. It goes in square to the wall. */
function insideChecks({ port, part, point_m, below_m }: Looked, { shell }: Inside, outer: ClosedMesh, sheet_m: number): SheetCheck[] {
  const wall = wallAt(outer, port, point_m);
  if (!part || below_m[1] <= 0 || !wall) return [];
  const { axes } = frameAlong(point_m, wall.normal);
  let worst = 0;
  for (let k = 1; k <= DEPTHS; k++) {
    for (let i = 0; i < AROUND; i++) {
      const angle = (2 * Math.PI * i) / AROUND;
      const rim = add(scale(axes[0], (below_m[0] / 2) * Math.cos(angle)), scale(axes[1], (below_m[0] / 2) * Math.sin(angle)));
      worst = Math.max(worst, -depthInside(shell, add(add(point_m, rim), scale(wall.normal, -(sheet_m + (below_m[1] * k) / DEPTHS)))));
    }
  }
  return worst > ROUNDING_M && worst > sagAllowance(below_m[1]) ? [{ kind: 'inside', with: 'another wall', have_m: -worst, want_m: 0 }] : [];
}
/** The crown of a curved wall takes a little of the rim near the sheet. */
const sagAllowance = (depth_m: number): number => depth_m / DEPTHS / 2;

/** Whether what stands on the sheet runs into the tank's own walls: a fitting in a recess. */
function outsideChecks({ port }: Looked, outer: ClosedMesh): SheetCheck[] {
  const seat = portSeat(outer, port);
  if (!seat) return [];
  const { height_m, diameter_m } = standsOn(port);
  let worst = 0;
  for (let k = 1; k <= DEPTHS; k++) {
    for (const rim of rimOf(port, seat.seat_m, diameter_m / 2, AROUND)) {
      // Square to the wall: rims of a leaning fitting lean with it.
      const flat = subtract(rim, scale(seat.out, dot(seat.out, subtract(rim, seat.seat_m))));
      worst = Math.max(worst, depthInside(outer, add(flat, scale(seat.out, (height_m * k) / DEPTHS))));
    }
  }
  return worst > ROUNDING_M ? [{ kind: 'outside', with: 'a wall of the tank', have_m: -worst, want_m: 0 }] : [];
}

/** What stands on this port against what stands on the others, hose ends at their real angle. */
function hoseChecks({ port }: Looked, { pieces }: Inside): SheetCheck[] {
  const own = pieces.filter((piece) => piece.port === port.id);
  const others = new Map<string, number>();
  for (const piece of own) {
    for (const other of pieces) {
      if (other.port === port.id) continue;
      const apart = separation(treeOf(piece.surface), treeOf(other.surface), AT_HOME, HOLE_RULES.neighbour.least)?.distance_m;
      if (apart !== undefined && apart < HOLE_RULES.neighbour.least) others.set(other.name, Math.min(others.get(other.name) ?? Infinity, apart));
    }
  }
  return [...others].map(([name, have_m]) => ({ kind: 'hose-end' as const, with: name, have_m, want_m: HOLE_RULES.neighbour.least }));
}

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
      return port.below_m[1] > 0 && other.below_m[1] > 0 && nuts < HOLE_RULES.neighbour.least ? [{ kind: 'inside-neighbour', with: other.name, have_m: nuts, want_m: HOLE_RULES.neighbour.least }] : [];
    });
    // What stands on a neighbour is said once.
    const said = new Set(checks.map((check) => check.with));
    return { ...port, checks: [...checks, ...port.checks.filter((check) => check.kind !== 'hose-end' || ![...said].some((name) => check.with === name))] };
  });
}

/** The document's coordinates of a point on a sheet, for the face that it belongs to. */
export function onDocument({ frame, face }: Pick<FaceSheet, 'frame' | 'face'>, [u, v]: Point2): { readonly x_m?: number; readonly y_m?: number; readonly z_m?: number } {
  const point = add(frame.origin_m, add(scale(frame.u, u), scale(frame.v, v)));
  const across = face === 'lid' || face === 'floor' ? 2 : face === 'fore' || face === 'aft' ? 0 : 1;
  return Object.fromEntries((['x_m', 'y_m', 'z_m'] as const).flatMap((key, axis) => (axis === across ? [] : [[key, point[axis]!]])));
}
