import {
  compileMountBodies,
  compileTankBody,
  hoseEndOf,
  outerMesh,
  placeOf,
  type FitCode,
  type MountBody,
} from '../../model/compileFit';
import { compileTank, type TankModel } from '../../model/compileTank';
import { shellsIn } from '../../plan/divider';
import type { LineDocument, MountDocument, Plan, TankDocument, WayStep } from '../../plan/schema';
import {
  checkWay,
  findWay,
  isSolid,
  joinedSurface,
  openingsBy,
  removalOrder,
  standing,
  type Blocker,
  type Body,
  type Move,
  type Opening,
  type Part,
  type Removal,
  type WayCheck,
  type WayCode,
  type WayOut,
  type WaySearch,
} from '../../fit';
import {
  add,
  AT_HOME,
  combine,
  coneMesh,
  meshBounds,
  posedMesh,
  rodMesh,
  scale,
  seenFrom,
  shiftBy,
  turnAbout,
  composed,
  type ClosedMesh,
  type Surface,
  type Vec3,
} from '../../geometry';
import { failure, success, unwrap, type Outcome } from '../../outcome';
import { sceneOf, type FitScene } from './fit';
import { hardLine, hardLines } from './hardLines';

export type PartChoice = {
  readonly id: string;
  readonly name: string;
  readonly kind: 'tank' | 'obstacle' | 'mount' | 'sender' | 'pickup' | 'line';
};

/**
 * What can be taken out by hand: tanks, removable obstacles, what is bolted beside a tank, what hangs in one by its
 * port, and hard lines.
 */
export const partChoices = (system: Plan): PartChoice[] => [
  ...shellsIn(system.tanks).map((tanks): PartChoice => ({ id: tanks[0]!.id, name: namesOf(tanks), kind: 'tank' })),
  ...system.fit.obstacles
    .filter(({ removable }) => removable)
    .map(({ id, name }): PartChoice => ({ id, name, kind: 'obstacle' })),
  ...system.mounts
    .filter(isBoltedBeside)
    .map(({ id, name, tank }): PartChoice => ({
      id,
      name: system.tanks.length > 1 ? `${name} of ${system.tanks.find((one) => one.id === tank)?.name}` : name,
      kind: 'mount',
    })),
  ...system.tanks.flatMap((tank) => [
    ...tank.senders.map(({ id, name }): PartChoice => ({ id, name, kind: 'sender' })),
    ...tank.pickups
      .filter(({ kind }) => kind === 'top-tube')
      .map(({ id, name }): PartChoice => ({ id, name, kind: 'pickup' })),
  ]),
  ...hardLines(system).map(({ id, name }): PartChoice => ({ id, name, kind: 'line' })),
];

const namesOf = (tanks: readonly TankDocument[]): string => tanks.map(({ name }) => name).join(' with ');

/** Straps are undone and tabs go with their tank: what else has bolts comes out by itself. */
const isBoltedBeside = ({ kind, made }: MountDocument): boolean =>
  kind !== 'strap' && kind !== 'tab' && kind !== 'flange' && made !== undefined && 'bolts' in made && !!made.bolts;

type Scenery = { readonly parts: readonly Part[]; readonly fixed: readonly Blocker[] };

/**
 * Everything that can be taken out, and everything that cannot, without some pieces: what stands on the ports left out,
 * straps that are undone. Tabs and rims go with their tank; bearers, stops and guards stand by themselves.
 */
function sceneryOf(system: Plan, scene: FitScene, bare: ReadonlySet<string> = new Set()): Outcome<Scenery, FitCode> {
  const solid = scene.obstacles.filter(({ role }) => isSolid(role));
  const parts: Part[] = solid
    .filter(({ removable }) => removable)
    .map(({ id, name, surface }) => ({ id, name, surface, at: AT_HOME, middle_m: boxMiddle(surface) }));
  const beside: MountBody[] = [];
  for (const tanks of shellsIn(system.tanks)) {
    const bodies: Body[] = [];
    for (const tank of tanks) {
      const body = compileTankBody(system, tank);
      if (!body.ok) return body;
      const mounts = compileMountBodies(system, tank);
      if (!mounts.ok) return mounts;
      // What straps a tank is moved with it, but where they are undone.
      const onIt = mounts.value.filter(({ mount, goesWithTank }) => goesWithTank || mount.kind === 'strap');
      beside.push(...mounts.value.filter((one) => !onIt.includes(one)));
      bodies.push({ ...body.value, pieces: [...body.value.pieces, ...onIt.flatMap(({ body: { pieces } }) => pieces)] });
    }
    const [first] = bodies as [Body];
    const own = first.pieces.filter(({ id }) => !bare.has(id)).map(({ surface }) => surface);
    // In the frame of the first, wherever it stands.
    const others = bodies
      .slice(1)
      .flatMap(({ pieces, at }) =>
        pieces.filter(({ id }) => !bare.has(id)).map(({ surface }) => posedMesh(surface, seenFrom(first.at, at))),
      );
    parts.push({
      id: first.id,
      name: namesOf(tanks),
      surface: joinedSurface([...own, ...others]),
      at: first.at,
      middle_m: boxMiddle(joinedSurface(bodies.map(({ pieces }) => pieces[0]!.surface))),
    });
  }
  const besides = beside.map(({ body, comesOff }) => ({
    id: body.id,
    name: body.name,
    comesOff,
    surface: joinedSurface(standing(body).map(({ surface }) => surface)),
  }));
  parts.push(
    ...besides
      .filter(({ comesOff }) => comesOff)
      .map(({ id, name, surface }) => ({ id, name, surface, at: AT_HOME, middle_m: boxMiddle(surface) })),
  );
  const removableWalls = scene.bay?.panels.filter(({ kind }) => kind === 'removable') ?? [];
  return success({
    parts: [
      ...parts,
      ...removableWalls.map(({ id, name, surface }) => {
        const own = joinedSurface([surface]);
        return { id, name, surface: own, at: AT_HOME, middle_m: boxMiddle(own) };
      }),
    ],
    fixed: [
      ...(scene.bay?.panels.filter(({ kind }) => kind === 'wall') ?? []).map(({ id, name, surface }): Blocker => ({
        id,
        name,
        surface,
        removable: false,
      })),
      ...solid
        .filter(({ removable }) => !removable)
        .map(({ id, name, surface }): Blocker => ({ id, name, surface, removable: false })),
      ...besides
        .filter(({ comesOff }) => !comesOff)
        .map(({ id, name, surface }): Blocker => ({ id, name, surface, removable: false })),
    ],
  });
}

const boxMiddle = (surface: Surface): Vec3 => {
  const { min, max } = meshBounds(surface);
  return [0, 1, 2].map((k) => (min[k]! + max[k]!) / 2) as unknown as Vec3;
};

const asBlocker = (part: Part): Blocker => ({
  id: part.id,
  name: part.name,
  removable: true,
  surface: posedMesh(part.surface, part.at),
});

export type WaysCode = FitCode | WayCode | 'no-part';

/**
 * A part with all that stands in its way; a part within a tank has the tank's walls, with its port cut through, round
 * it.
 */
function partAmong(system: Plan, id: string): Outcome<{ part: Part; blockers: Blocker[]; scenery: Scenery }, WaysCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const scenery = sceneryOf(system, scene.value, strapsOf(system, id));
  if (!scenery.ok) return scenery;
  const whole = scenery.value.parts.find((part) => part.id === id);
  if (whole)
    return success({
      part: whole,
      blockers: [...scenery.value.fixed, ...scenery.value.parts.filter((part) => part !== whole).map(asBlocker)],
      scenery: scenery.value,
    });
  const line = hardLines(system).find((each) => each.id === id);
  if (line) return lineAmong(system, scene.value, line);
  const inner = innerPart(system, id);
  if (!inner.ok) return inner;
  const shell = shellsIn(system.tanks).find((tanks) => tanks.some(({ id: tank }) => tank === inner.value.tank))!;
  const others = scenery.value.parts.filter((part) => part.id !== shell[0]!.id);
  return success({
    part: inner.value.part,
    blockers: [inner.value.walls, ...scenery.value.fixed, ...others.map(asBlocker)],
    scenery: scenery.value,
  });
}

/** The straps of the shell that a tank is of: they are undone before it comes out. */
export function strapsOf({ tanks, mounts }: Pick<Plan, 'tanks' | 'mounts'>, id: string): ReadonlySet<string> {
  const shell = shellsIn(tanks).find((each) => each[0]!.id === id) ?? [];
  return new Set(
    mounts.flatMap((mount) =>
      mount.kind === 'strap' && shell.some((tank) => tank.id === mount.tank) ? [mount.id] : [],
    ),
  );
}

/** A hard line, with nothing on the ports that it screws to; what is undone there first is not in its way. */
function lineAmong(system: Plan, scene: FitScene, line: LineDocument): ReturnType<typeof partAmong> {
  const hard = hardLine(system, line);
  if (!hard) return failure('no-part', line.name, 'Its ends have no places yet: say how it runs.');
  const scenery = sceneryOf(system, scene, new Set([...hard.ports].flatMap((port) => [port, hoseEndOf(port)])));
  if (!scenery.ok) return scenery;
  return success({
    part: hard.part,
    blockers: [...scenery.value.fixed, ...scenery.value.parts.map(asBlocker)],
    scenery: { ...scenery.value, parts: [...scenery.value.parts, hard.part] },
  });
}

/** A sender or pickup tube as a solid, and the walls of its tank with the hole it goes through. */
function innerPart(system: Plan, id: string): Outcome<{ part: Part; walls: Blocker; tank: string }, WaysCode> {
  for (const document of system.tanks) {
    const sender = document.senders.find((candidate) => candidate.id === id);
    const pickup = document.pickups.find((candidate) => candidate.id === id);
    const portId = sender?.port ?? pickup?.port;
    if (portId === undefined) continue;
    const model = compileTank(system, document);
    if (!model.ok) return failure('bad-shape', document.name, model.error.detail);
    const port = model.value.ports.find((candidate) => candidate.document.id === portId);
    const solid = port && (sender ? senderSolid(model.value, id) : tubeSolid(model.value, id));
    if (!port || !solid) return failure('no-part', id, 'It does not stand in its tank.');
    const walls = pierced(model.value, port.point_m, port.document.bore_m.value);
    if (!walls.ok) return walls;
    const at = placeOf(document.mounting);
    return success({
      tank: document.id,
      part: { id, name: (sender ?? pickup)!.name, surface: solid, at, middle_m: boxMiddle(solid) },
      walls: {
        id: document.id,
        name: `${document.name}’s walls`,
        removable: false,
        surface: posedMesh(walls.value, at),
      },
    });
  }
  return failure('no-part', id, 'There is no such part.');
}

/** The metal of a tank's walls with a port's hole through it, and room above the hole. */
function pierced(model: TankModel, point_m: Vec3, bore_m: number): Outcome<ClosedMesh, FitCode> {
  const outer = outerMesh(model.document);
  if (!outer.ok) return outer;
  const hollow = combine(outer.value, model.body.shell, 'take');
  const hole = hollow.ok
    ? combine(hollow.value, upright([point_m[0], point_m[1], point_m[2] - HOLE_M / 2], HOLE_M, bore_m / 2), 'take')
    : hollow;
  return hole.ok ? hole : failure('bad-shape', model.document.name, hole.error.detail);
}
const HOLE_M = 0.06;
/** Round parts that only go through holes need few sides. */
const upright = ([x, y, z]: Vec3, height_m: number, radius_m: number): ClosedMesh =>
  posedMesh(unwrap(coneMesh(radius_m, radius_m, height_m, 'z')), shiftBy([x - radius_m, y - radius_m, z]));

/** Common practice: stems and arms of senders are about this thick [m]. */
const STEM_M = 0.008;

const TUBE_SIDES = 16;

/** Stem, arm at its low stop, and float. */
function senderSolid(model: TankModel, id: string): ClosedMesh | undefined {
  const sender = model.senders.find((candidate) => candidate.document.id === id);
  if (!sender) return undefined;
  if (sender.sender.kind !== 'swing-arm') {
    const { top_m, length_m, tubeRadius_m } = sender.sender;
    return upright([top_m[0], top_m[1], top_m[2] - length_m], length_m, tubeRadius_m);
  }
  const { pivot_m, reach, armLength_m, floatRadius_m, lowStop_rad } = sender.sender;
  const depth = sender.port_m[2] - pivot_m[2];
  const stem = upright([pivot_m[0], pivot_m[1], pivot_m[2] - STEM_M / 2], depth + STEM_M / 2, STEM_M / 2);
  // A rod along z, laid along the way the arm reaches and then down to its stop.
  const across: Vec3 = [-reach[1], reach[0], 0];
  const swing = composed(turnAbout(pivot_m, across, Math.PI / 2 - lowStop_rad), AT_HOME);
  const arm = posedMesh(upright([pivot_m[0], pivot_m[1], pivot_m[2]], armLength_m, STEM_M / 2), swing);
  const float = posedMesh(
    upright([pivot_m[0], pivot_m[1], pivot_m[2] + armLength_m - floatRadius_m], 2 * floatRadius_m, floatRadius_m),
    swing,
  );
  const whole = combine(unwrap(combine(stem, arm, 'add')), float, 'add');
  return whole.ok ? whole.value : undefined;
}

function tubeSolid(model: TankModel, id: string): ClosedMesh | undefined {
  const pickup = model.pickups.find((candidate) => candidate.document.id === id);
  return (
    pickup &&
    rodMesh(
      pickup.inlet.point_m,
      add(pickup.inlet.point_m, scale(pickup.down, -Math.max(STEM_M, pickup.tubeLength_m))),
      pickup.document.bore_m.value / 2 + 0.001,
      TUBE_SIDES,
    )
  );
}

const radians = (deg: number): number => (deg * Math.PI) / 180;

/** A step as typed; turning nose up is about the axis to starboard. */
export const moveOf = (step: WayStep): Move => ({
  shift_m: [step.forward_m, step.toPort_m, step.up_m],
  turn_rad: [radians(step.starboardDown_deg), -radians(step.noseUp_deg), radians(step.noseToPort_deg)],
});

/** The same, the other way round. */
export function stepOf({ shift_m, turn_rad }: Move): WayStep {
  const [x, y, z] = turn_rad.map((angle) => (angle * 180) / Math.PI);
  return {
    forward_m: shift_m[0],
    toPort_m: shift_m[1],
    up_m: shift_m[2],
    starboardDown_deg: x!,
    noseUp_deg: y === 0 ? 0 : -y!,
    noseToPort_deg: z!,
  };
}

/** Checks the steps that are written down for a part. */
export function checkedWay(system: Plan, id: string, steps: readonly WayStep[]): Outcome<WayCheck, WaysCode> {
  const among = partAmong(system, id);
  return among.ok ? success(checkWay(among.value.part, among.value.blockers, steps.map(moveOf))) : among;
}

/** After so many looks without a way it is asked what would open one, before the search goes on. */
const FIRST_SAMPLES = 6000;
/** For each obstacle that might open a way, so many looks are spent. */
const OPENING_LOOKS = 1500;
/** A search that is not asked to go on takes so many. */
export const MANY_SAMPLES = 30_000;

export type FoundWay = {
  readonly way: Outcome<WayOut, WaysCode>;
  /** Where none was found: each single obstacle that opens one, the likeliest first. */
  readonly openings: readonly Opening[];
};

/**
 * Looks for a way out; where none is found soon, for the one obstacle that opens
 * one when it is not there, and then goes on as long as it may.
 *
 * @param tellOpenings told what opens a way, before the search goes on
 */
export function foundWay(
  system: Plan,
  id: string,
  search: WaySearch,
  tellOpenings?: (openings: readonly Opening[]) => void,
): Outcome<FoundWay, WaysCode> {
  const among = partAmong(system, id);
  if (!among.ok) return among;
  const { part, blockers } = among.value;
  const first = Math.min(FIRST_SAMPLES, search.mostSamples);
  let leastGap_m = Infinity;
  const way = findWay(part, blockers, {
    ...search,
    mostSamples: first,
    onProgress: (progress) => {
      leastGap_m = progress.leastGap_m;
      search.onProgress?.(progress);
    },
  });
  if (way.ok || way.error.code === 'stopped') return success({ way, openings: [] });
  const openings = openingsBy(part, blockers, {
    seed: search.seed,
    mostSamples: Math.min(OPENING_LOOKS, search.mostSamples),
    ...(search.stop ? { stop: search.stop } : {}),
  });
  if (!openings.ok) return success({ way: openings, openings: [] });
  if (way.error.code !== 'none-found' || search.mostSamples <= first) return success({ way, openings: openings.value });
  tellOpenings?.(openings.value);
  const longer = findWay(part, blockers, {
    ...search,
    seed: search.seed + SEEDS_APART,
    mostSamples: search.mostSamples - first,
    onProgress: (progress) =>
      search.onProgress?.({ samples: progress.samples + first, leastGap_m: Math.min(leastGap_m, progress.leastGap_m) }),
  });
  return success({ way: longer, openings: longer.ok ? [] : openings.value });
}
/** A search that goes on does not try again what it has tried. */
const SEEDS_APART = 1000;

/** The order in which parts come out until the wanted one does. */
export function orderOut(system: Plan, id: string, search: WaySearch): Outcome<readonly Removal[], WaysCode> {
  const among = partAmong(system, id);
  if (!among.ok) return among;
  const { scenery, part, blockers } = among.value;
  if (scenery.parts.some((other) => other.id === id)) return removalOrder(id, scenery.parts, scenery.fixed, search);
  const alone = findWay(part, blockers, search);
  return alone.ok ? success([{ id, name: part.name, way: alone.value }]) : alone;
}

/** A scene to look at: every surface where it rests, and the part that moves. */
export type WayPicture = {
  readonly part: { readonly positions: Float32Array; readonly triangles: Uint32Array };
  readonly at: Part['at'];
  readonly middle_m: Vec3;
  readonly others: readonly {
    readonly id: string;
    readonly name: string;
    readonly positions: Float32Array;
    readonly triangles: Uint32Array;
  }[];
};

/** A part and what stands in its way as meshes to look at; fails where no part has that id. */
export function wayPicture(system: Plan, id: string): Outcome<WayPicture, WaysCode> {
  const among = partAmong(system, id);
  if (!among.ok) return among;
  const { part, blockers } = among.value;
  const shown = ({ positions, triangles }: { positions: Float64Array; triangles: Uint32Array }) => ({
    positions: Float32Array.from(positions),
    triangles,
  });
  return success({
    part: shown(part.surface),
    at: part.at,
    middle_m: part.middle_m,
    others: blockers.map(({ id: other, name, surface }) => ({ id: other, name, ...shown(surface) })),
  });
}
