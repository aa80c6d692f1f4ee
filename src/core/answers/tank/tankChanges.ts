import { tankBody } from '../../model/compileBody';
import { asBuilt, compileObstacle, placeOf } from '../../model/compileFit';
import { freshId, withValue } from '../../plan/edit';
import { chosen } from '../../schema/known';
import { FACE_SIDES, sideText } from '../../plan/sides';
import type { PartDocument, PlanAt, TankDocument } from '../../plan/schema';
import { joinedSurface, movedTo, positionsOver, type Obstacle } from '../../fit';
import { plainName } from '../../formats';
import { meshBounds, meshVolume, posedMesh, seenFrom, turnedBack, type Vec3 } from '../../geometry';
import { marginOf, type FitGap } from '../fit/fit';

/** A face of the box round a tank, in the tank's own axes. */
export const FACE_NAMES = ['lid', 'floor', 'fore', 'aft', 'port', 'starboard'] as const;
export type FaceName = (typeof FACE_NAMES)[number];

/** One way of changing a tank so that it fits, or to see what a face costs. */
export type TankChange =
  | { readonly kind: 'move'; readonly forward_m: number; readonly toPort_m: number; readonly up_m: number }
  | { readonly kind: 'face'; readonly face: FaceName; readonly by_m: number }
  | { readonly kind: 'corner'; readonly faces: readonly [FaceName, FaceName]; readonly leg_m: number }
  | { readonly kind: 'notch'; readonly name: string; readonly at_m: Vec3; readonly size_m: Vec3 };

export type TankChangeResult = {
  readonly change: TankChange;
  /** The tank as it then is. */
  readonly tank: TankDocument;
  /** What the tank then holds more, to the brim [m³]; negative where it loses. */
  readonly volume_m3: number;
  /** Tightest that it then stands anywhere, over what is asked there [m]; absent where no space is described. */
  readonly margin_m: number | undefined;
};

const FACE: Readonly<Record<FaceName, { axis: 0 | 1 | 2; high: boolean }>> = {
  lid: { axis: 2, high: true },
  floor: { axis: 2, high: false },
  fore: { axis: 0, high: true },
  aft: { axis: 0, high: false },
  port: { axis: 1, high: true },
  starboard: { axis: 1, high: false },
};

/** A cut reaches past the tank by this, so that it leaves no skin [m]. */
const PAST_M = 0.01;

/** The system with one of its tanks changed. */
export function withChange(system: PlanAt, t: number, change: TankChange): PlanAt {
  const tank = system.tanks[t]!;
  if (change.kind === 'move') {
    const shifts = { x_m: change.forward_m, y_m: change.toPort_m, z_m: change.up_m };
    return (['x_m', 'y_m', 'z_m'] as const).reduce(
      (moved, key) =>
        shifts[key] === 0
          ? moved
          : withValue(moved, ['tanks', t, 'mounting', key], chosen(tidy(tank.mounting[key].value + shifts[key]))),
      system,
    );
  }
  const grown = change.kind === 'face' ? resizedBox(tank, change) : undefined;
  if (grown) return withValue(system, ['tanks', t], grown);
  const part = cutPart(system, tank, change);
  return part ? withValue(system, ['tanks', t, 'parts'], [...tank.parts, part]) : system;
}

/** To a tenth of a millimetre: nobody sets out finer. */
const tidy = (value: number): number => Math.round(value * 1e4) / 1e4;

/**
 * A plain box keeps being one where a high face moves; a low one would take the tank's own corner, and all places in
 * it, along.
 */
function resizedBox(
  { shape, parts, slices, ...tank }: TankDocument,
  { face, by_m }: Extract<TankChange, { kind: 'face' }>,
): TankDocument | undefined {
  const { axis, high } = FACE[face];
  if (!high || shape.kind !== 'box' || parts.length > 0 || slices.length > 0) return undefined;
  const key = (['length_m', 'width_m', 'height_m'] as const)[axis];
  const size = tidy(shape[key].value - by_m);
  return size < LEAST_M ? undefined : { ...tank, parts, slices, shape: { ...shape, [key]: chosen(size) } };
}
/** The format knows no smaller box. */
const LEAST_M = 0.02;

/** What is taken away, as one more part of the tank. */
function cutPart(
  system: PlanAt,
  tank: TankDocument,
  change: Exclude<TankChange, { kind: 'move' }>,
): PartDocument | undefined {
  const body = tankBody(tank);
  if (!body.ok) return undefined;
  const { min, max } = meshBounds(body.value.walls);
  const base = { id: freshId(system, `${tank.id}-cut`), operation: 'take' as const };
  const boxAt = (name: string, from: Vec3, to: Vec3): PartDocument => ({
    ...base,
    name,
    shape: {
      kind: 'box',
      length_m: chosen(tidy(to[0] - from[0])),
      width_m: chosen(tidy(to[1] - from[1])),
      height_m: chosen(tidy(to[2] - from[2])),
    },
    x_m: chosen(tidy(from[0])),
    y_m: chosen(tidy(from[1])),
    z_m: chosen(tidy(from[2])),
  });
  if (change.kind === 'notch')
    return boxAt(
      change.name,
      change.at_m,
      [0, 1, 2].map((k) => change.at_m[k]! + change.size_m[k]!) as unknown as Vec3,
    );
  const [low, high] = [min.map((value) => value - PAST_M), max.map((value) => value + PAST_M)] as [number[], number[]];
  if (change.kind === 'face') {
    if (change.by_m <= 0) return undefined;
    const { axis, high: upper } = FACE[change.face];
    if (upper) low[axis] = max[axis]! - change.by_m;
    else high[axis] = min[axis]! + change.by_m;
    return boxAt(
      sideText(system.vehicle.kind, `${FACE_SIDES[change.face]} moved in`),
      low as unknown as Vec3,
      high as unknown as Vec3,
    );
  }
  const [a, b] = change.faces.map((face) => FACE[face]) as [(typeof FACE)['lid'], (typeof FACE)['lid']];
  const along = ([0, 1, 2] as const).find((axis) => axis !== a.axis && axis !== b.axis)!;
  const corner = (f: { axis: 0 | 1 | 2; high: boolean }): number => (f.high ? max[f.axis]! : min[f.axis]!);
  const inward = (f: { high: boolean }): number => (f.high ? -1 : 1);
  const reach = change.leg_m + PAST_M;
  // A triangle that cuts both faces a leg from their edge, its own corner outside by as much as it is larger.
  const place = ([p, q]: readonly [number, number]): { u_m: number; v_m: number } =>
    a.axis < b.axis ? { u_m: p, v_m: q } : { u_m: q, v_m: p };
  const out = [corner(a) - inward(a) * PAST_M, corner(b) - inward(b) * PAST_M] as const;
  const points = [
    out,
    [out[0] + inward(a) * (reach + PAST_M), out[1]],
    [out[0], out[1] + inward(b) * (reach + PAST_M)],
  ] as const;
  const least = [Math.min(...points.map(([p]) => p)), Math.min(...points.map(([, q]) => q))] as const;
  const at = [0, 0, 0];
  at[a.axis] = least[0];
  at[b.axis] = least[1];
  at[along] = low[along]!;
  return {
    ...base,
    name: sideText(system.vehicle.kind, `${change.faces.map((face) => FACE_SIDES[face]).join(' and ')} edge cut`),
    shape: {
      kind: 'prism',
      axis: (['x', 'y', 'z'] as const)[along],
      length_m: chosen(tidy(high[along]! - low[along]!)),
      profileOrigin: 'chosen',
      profile: points.map((point) => place([tidy(point[0] - least[0]), tidy(point[1] - least[1])])),
    },
    x_m: chosen(tidy(at[0]!)),
    y_m: chosen(tidy(at[1]!)),
    z_m: chosen(tidy(at[2]!)),
  };
}

/** Edges where two of the six faces meet that a corner is mostly cut off. */
const EDGES: readonly (readonly [FaceName, FaceName])[] = [
  ['lid', 'fore'],
  ['lid', 'aft'],
  ['lid', 'port'],
  ['lid', 'starboard'],
  ['floor', 'fore'],
  ['floor', 'aft'],
  ['floor', 'port'],
  ['floor', 'starboard'],
  ['fore', 'port'],
  ['fore', 'starboard'],
  ['aft', 'port'],
  ['aft', 'starboard'],
];

/**
 * What changes of a tank cost: every face moved in by 10 mm, every edge cut,
 * and, for a gap that is too small, what frees it.
 */
export function changesOf(system: PlanAt, t: number, gap?: FitGap): TankChangeResult[] {
  const changes = gap
    ? mendsFor(system, t, gap)
    : [
        ...FACE_NAMES.map((face): TankChange => ({ kind: 'face', face, by_m: 0.01 })),
        ...EDGES.map((faces): TankChange => ({ kind: 'corner', faces, leg_m: 0.05 })),
      ];
  const before = volumeOf(system.tanks[t]!);
  return changes.flatMap((change) => {
    const changed = withChange(system, t, change);
    const after = volumeOf(changed.tanks[t]!);
    return changed === system || after === undefined || before === undefined
      ? []
      : [
          {
            change,
            tank: changed.tanks[t]!,
            volume_m3: after - before,
            margin_m: gap ? marginOf(changed, t) : undefined,
          },
        ];
  });
}

export type BuiltResult = {
  readonly planned_m3: number;
  readonly built_m3: number;
  readonly plannedMargin_m: number | undefined;
  readonly margin_m: number | undefined;
};

/** What a tank holds and how it fits as it was built, beside as it was planned; to the brim. */
export function builtResult(system: PlanAt, t: number): BuiltResult {
  const built = { ...system, tanks: system.tanks.map((tank, i) => (i === t ? asBuilt(tank) : tank)) };
  return {
    planned_m3: volumeOf(system.tanks[t]!) ?? 0,
    built_m3: volumeOf(built.tanks[t]!) ?? 0,
    plannedMargin_m: finite(marginOf(system, t)),
    margin_m: finite(marginOf(built, t)),
  };
}

const finite = (value: number | undefined): number | undefined =>
  value !== undefined && Number.isFinite(value) ? value : undefined;

function volumeOf(tank: TankDocument): number | undefined {
  const body = tankBody(tank);
  return body.ok ? meshVolume(body.value.space) : undefined;
}

/** Ways of freeing a tank at one place: shift it, move the face in, or cut out what the obstacle sweeps. */
function mendsFor(system: PlanAt, t: number, gap: FitGap): TankChange[] {
  const short = Math.ceil((gap.keep_m - gap.distance_m) * 1000) / 1000;
  if (short <= 0) return [];
  const tank = system.tanks[t]!;
  const [x, y, z] = gap.away.map((part) => Math.round(part * short * 1e4) / 1e4) as unknown as Vec3;
  const inward = turnedBack(placeOf(tank.mounting), gap.away);
  const axis = ([0, 1, 2] as const).reduce((best, k) => (Math.abs(inward[k]) > Math.abs(inward[best]) ? k : best));
  const face = FACE_NAMES.find((name) => FACE[name].axis === axis && FACE[name].high === inward[axis] < 0)!;
  const document = system.fit.obstacles.find(({ id }) => id === gap.to);
  const obstacle = document && compileObstacle(document, system.fit.clearance_m.value);
  return [
    { kind: 'move', forward_m: x, toPort_m: y, up_m: z },
    { kind: 'face', face, by_m: short },
    ...(obstacle?.ok ? [notchFor(obstacle.value, tank, gap.name)] : []),
  ];
}

const SWEEP_STEPS = 12;

/** The box in the tank's axes that an obstacle sweeps, with what is to be kept round it. */
function notchFor(obstacle: Obstacle, tank: TankDocument, name: string): TankChange {
  const pose = placeOf(tank.mounting);
  const room_m = obstacle.keep_m + tank.material.thickness_m.value;
  const swept = meshBounds(
    joinedSurface(
      positionsOver(obstacle, SWEEP_STEPS).map((at) =>
        posedMesh(obstacle.surface, seenFrom(pose, movedTo(obstacle, at))),
      ),
    ),
  );
  const min = swept.min.map((value) => value - room_m);
  const max = swept.max.map((value) => value + room_m);
  return {
    kind: 'notch',
    name: plainName(`Recess for ${name}`, 80),
    at_m: min.map((value) => Math.floor(value * 1000) / 1000) as unknown as Vec3,
    size_m: max.map((value, k) => Math.ceil((value - min[k]!) * 1000) / 1000) as unknown as Vec3,
  };
}
