import {
  bendOn,
  compileMountBodies,
  compileTankBody,
  directionOf,
  FLUSH_M,
  hoseEndOf,
  outerMesh,
  placeOf,
  pointOf,
  portSeat,
  standsOn,
  type PortSeat,
  wallAt,
  type FitCode,
} from '../../model/compileFit';
import { SIDE_WAYS } from '../../model/axes';
import { boltSites } from '../../model/boltSites';
import type { MountDocument, PortDocument, SpotDocument, SpacePlan, TankDocument } from '../../plan/schema';
import {
  handHolds,
  isSolid,
  nozzleHolds,
  reached,
  screwHolds,
  sightHolds,
  standing,
  tighteningHolds,
  torchHolds,
  type Held,
  type Hold,
  type Standing,
} from '../../fit';
import {
  add,
  AT_HOME,
  composed,
  cross,
  dot,
  frameAlong,
  nearestSeam,
  placedBack,
  posedMesh,
  scale,
  turned,
  unitVector,
  type ClosedMesh,
  type Pose,
  type Vec3,
} from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { portPart } from '../../reference/portParts';
import { spannerFor, type ToolKey } from '../../reference/reachTools';
import { ALLOYS } from '../../reference/alloys';
import { sceneOf, type FitScene } from './fit';

export type ReachJob = 'tighten' | 'screws' | 'hand' | 'fill' | 'weld' | 'read';

/**
 * When it can be done: with everything in place, with what comes off taken off, only before the tank goes in, or not at
 * all.
 */
export type ReachWhen = 'fitted' | 'uncovered' | 'bench' | 'never';

/** A tool as it stands at work, for a picture: corners of its solids in vehicle axes [m]. */
export type ToolAtWork = {
  readonly key: ToolKey;
  readonly handle: Vec3;
  readonly arc_deg: number;
  readonly solids: readonly Float32Array[];
};

export type ReachAnswer = {
  /** Of the port, the named place, or the mount whose bolts it is about. */
  readonly id: string;
  readonly name: string;
  readonly tank: string | undefined;
  /** About the bolts of a mount: on the bench then is before the tank goes in. */ readonly isMount: boolean;
  readonly job: ReachJob;
  readonly when: ReachWhen;
  /** What is taken off for it; for what cannot be done in place, what is in the way there. */
  readonly names: readonly string[];
  readonly at: ToolAtWork | undefined;
  /** Of the spanner that was tried; undefined where none is that large. */
  readonly acrossFlats_m?: number | undefined;
};

type AllReached =
  { readonly ok: true; readonly held: readonly Held[] } | { readonly ok: false; readonly inTheWay: readonly string[] };

/** What is to be done at a place. */
type Task = {
  readonly id: string;
  readonly name: string;
  readonly tank?: TankDocument;
  readonly job: ReachJob;
  readonly places: (at: Pose) => readonly Place[];
  /** Pieces that belong to the place itself. */ readonly own: readonly string[];
  readonly acrossFlats_m?: number;
  /**
   * Whether something stands there already before the tank goes in, where that is not the bench with the tank on it;
   * `undefined` where it cannot be done before.
   */
  readonly before?: ((id: string) => boolean) | undefined;
};

/** One of several places that must all be got at; `own` is no obstacle to this one. */
type Place = { readonly holds: Iterable<Hold>; readonly own?: readonly string[] };

type Named = Standing & { readonly name: string };
type Surroundings = { readonly all: readonly Named[]; readonly bench: ReadonlyMap<string, readonly Named[]> };

/**
 * Whether hands and tools get to every port and to every place that is named,
 * with the tank fitted or only before. Moving obstacles stand where they rest.
 */
export function reachOf(system: SpacePlan): Outcome<readonly ReachAnswer[], FitCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const round = surroundings(system, scene.value);
  if (!round.ok) return round;
  const answers: ReachAnswer[] = [];
  for (const tank of system.tanks) {
    const outer = outerMesh(tank);
    if (!outer.ok) return outer;
    const at = placeOf(tank.mounting);
    for (const port of tank.ports) {
      const seat = portSeat(outer.value, port);
      if (seat)
        for (const task of portTasks(system, tank, port, seat, outer.value))
          answers.push(answered(task, at, round.value));
    }
    for (const mount of system.mounts)
      if (mount.tank === tank.id) {
        const task = boltsTask(mount, tank, outer.value, system.mounts);
        if (task) answers.push(answered(task, AT_HOME, round.value));
      }
    for (const spot of system.fit.spots)
      if (spot.tank === tank.id) answers.push(answered(spotTask(spot, tank), at, round.value));
  }
  for (const spot of system.fit.spots)
    if (spot.tank === undefined) answers.push(answered(spotTask(spot, undefined), AT_HOME, round.value));
  return success(answers);
}

/** When the bolts of a tank’s mounts can be turned, by id; those that have none are left out. */
export function boltsReached(
  system: Pick<SpacePlan, 'fit' | 'tanks' | 'mounts'>,
  tank: TankDocument,
): Outcome<ReadonlyMap<string, ReachWhen>, FitCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const round = surroundings(system, scene.value);
  if (!round.ok) return round;
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  return success(
    new Map(
      system.mounts.flatMap((mount) => {
        const task = mount.tank === tank.id ? boltsTask(mount, tank, outer.value, system.mounts) : undefined;
        return task ? [[mount.id, answered(task, AT_HOME, round.value).when] as const] : [];
      }),
    ),
  );
}

/** Everything solid that stands in the vehicle, in vehicle axes; and each tank by itself, in its own. */
function surroundings(system: Pick<SpacePlan, 'tanks' | 'mounts'>, scene: FitScene): Outcome<Surroundings, FitCode> {
  const bench = new Map<string, readonly Named[]>();
  const all: Named[] = [];
  for (const tank of system.tanks) {
    const body = compileTankBody(system, tank);
    if (!body.ok) return body;
    const mounts = compileMountBodies(system, tank);
    if (!mounts.ok) return mounts;
    const straps = new Set(system.mounts.map(({ id }) => id));
    const onIt = mounts.value.filter(({ goesWithTank }) => goesWithTank).flatMap(({ body: { pieces } }) => pieces);
    bench.set(
      tank.id,
      [...body.value.pieces.filter(({ id }) => !straps.has(id)), ...onIt].map(({ id, name, surface }) => ({
        id,
        name,
        surface,
        removable: false,
        closed: true,
      })),
    );
    all.push(
      ...standing(body.value).map(({ id, name, surface }) => ({ id, name, surface, removable: false, closed: true })),
    );
    // A guard is taken off like a cover; what holds the tank stays.
    for (const { mount, body: held, comesOff } of mounts.value)
      all.push(
        ...standing(held).map(({ id, name, surface }) => ({
          id,
          name,
          surface,
          removable: mount.kind === 'guard' && comesOff,
          closed: true,
        })),
      );
  }
  for (const { id, name, kind, surface } of scene.bay?.panels ?? [])
    if (kind !== 'open') all.push({ id, name, surface, removable: kind === 'removable', closed: false });
  for (const { id, name, role, surface, removable } of scene.obstacles)
    if (isSolid(role)) all.push({ id, name, surface, removable, closed: true });
  return success({ all, bench });
}

/** Tries a task in place, then uncovered, then on the bench; a seam of a tank is only welded there. */
function answered(task: Task, at: Pose, { all, bench }: Surroundings): ReachAnswer {
  const { id, name, tank, job } = task;
  const base = {
    id,
    name,
    tank: tank?.id,
    isMount: 'before' in task,
    job,
    ...(task.job === 'tighten' ? { acrossFlats_m: task.acrossFlats_m } : {}),
  };
  const others = (list: readonly Named[]): Named[] => list.filter((other) => !task.own.includes(other.id));
  const onBench = tank ? bench.get(tank.id)! : undefined;
  if (job === 'weld' && tank) {
    const done = allReached(
      task.places(AT_HOME),
      others(onBench!).filter((other) => other.id === tank.id),
    );
    return {
      ...base,
      when: done.ok ? 'bench' : 'never',
      names: done.ok ? [] : namesOf(onBench!, done.inTheWay),
      at: done.ok ? atWork(done.held, at) : undefined,
    };
  }
  const places = task.places(at);
  const inPlace = others(all);
  const fitted = allReached(places, inPlace);
  if (fitted.ok) return { ...base, when: 'fitted', names: [], at: atWork(fitted.held, AT_HOME) };
  const loose = inPlace.filter(({ removable }) => removable);
  const uncovered =
    loose.length > 0
      ? allReached(
          places,
          inPlace.filter(({ removable }) => !removable),
        )
      : fitted;
  if (uncovered.ok)
    return { ...base, when: 'uncovered', names: takenOff(places, inPlace, loose), at: atWork(uncovered.held, AT_HOME) };
  const inTheWay = namesOf(all, uncovered.inTheWay);
  const early =
    'before' in task ? task.before && inPlace.filter((other) => task.before!(other.id)) : onBench && others(onBench);
  const before = early && job !== 'read' ? allReached(task.places(AT_HOME), early) : undefined;
  if (before?.ok) return { ...base, when: 'bench', names: inTheWay, at: atWork(before.held, at) };
  return { ...base, when: 'never', names: before ? namesOf(early!, before.inTheWay) : inTheWay, at: undefined };
}

/** Whether each of several places is got at, what belongs to it left out. */
function allReached(places: readonly Place[], round: readonly Named[]): AllReached {
  const held: Held[] = [];
  for (const { holds, own } of places) {
    const got = reached(holds, own ? round.filter(({ id }) => !own.includes(id)) : round);
    if (!got.ok) return got;
    held.push(got.held);
  }
  return { ok: true, held };
}

const namesOf = (list: readonly Named[], ids: readonly string[]): string[] =>
  ids.map((id) => list.find((other) => other.id === id)?.name ?? id);

/** Of what comes off, as little as makes it possible: what can stay is put back. */
function takenOff(places: readonly Place[], inPlace: readonly Named[], loose: readonly Named[]): string[] {
  const off = new Set(loose);
  for (const one of loose) {
    off.delete(one);
    if (
      !allReached(
        places,
        inPlace.filter((other) => !off.has(other)),
      ).ok
    )
      off.add(one);
  }
  return [...off].map(({ name }) => name);
}

function atWork(held: readonly Held[], at: Pose): ToolAtWork {
  const [first] = held;
  const shown = held.flatMap((one) => [one, ...(one.partner ? [one.partner] : [])]).slice(0, MOST_SHOWN);
  return {
    key: first!.tool.key,
    handle: turned(composed(at, first!.pose), [1, 0, 0]),
    arc_deg: (first!.arc_rad * 180) / Math.PI,
    solids: shown.flatMap(({ tool, pose }) =>
      tool.pieces.map((piece) => Float32Array.from(posedMesh(piece, composed(at, pose)).positions)),
    ),
  };
}
/** A picture with a tool at every one of many screws says no more. */
const MOST_SHOWN = 2;

/** A hexagon is as wide over its corners as what stands there. */
const acrossFlatsOf = (diameter_m: number): number => diameter_m * Math.cos(Math.PI / 6);

const JOBS: Readonly<Record<PortDocument['role'], readonly ReachJob[]>> = {
  filler: ['fill', 'weld'],
  vent: ['tighten', 'weld'],
  feed: ['tighten', 'weld'],
  return: ['tighten', 'weld'],
  sender: ['screws', 'weld'],
  drain: ['tighten', 'weld'],
  spare: ['tighten', 'weld'],
};

/**
 * What a part really wants of its role's jobs: a ring has screws and no hexagon, a hose on a tube or in a grommet a
 * hand, and only what is welded a torch.
 */
function jobsOf(port: PortDocument): readonly ReachJob[] {
  // A hose goes on a spigot by hand.
  if (port.on) return ['hand'];
  const part = port.part ? portPart(port.part) : undefined;
  if (!part) return JOBS[port.role];
  const hold: ReachJob = part.bolts ? 'screws' : part.acrossFlats !== undefined ? 'tighten' : 'hand';
  return [...new Set(JOBS[port.role].map((job) => (job === 'tighten' || job === 'screws' ? hold : job)))].filter(
    (job) => job !== 'weld' || part.join === 'weld',
  );
}

/**
 * What must be done at a port, by its role; its places in the frame that its tank stands in. What is tightened or
 * opened wants a hand there too.
 */
function portTasks(
  system: SpacePlan,
  tank: TankDocument,
  port: PortDocument,
  seat: PortSeat,
  outer: ClosedMesh,
): Task[] {
  const { height_m, diameter_m } = standsOn(port);
  const site = frameAlong(seat.seat_m, seat.out);
  const turns = port.stands && port.stands.reach_m.value >= FLUSH_M ? port.stands.turns : 'straight';
  const bolts = port.bolts
    ? { count: port.bolts.count, circle: port.bolts.circle_m.value }
    : port.part
      ? portPart(port.part).bolts
      : undefined;
  const screws = bolts
    ? { circle_m: bolts.circle / 2, count: bolts.count }
    : { circle_m: SCREW_CIRCLE * diameter_m, count: USUAL_SCREWS };
  const row = spannerFor(
    port.part ? (portPart(port.part).acrossFlats ?? acrossFlatsOf(diameter_m)) : acrossFlatsOf(diameter_m),
  );
  const hand = (at: Pose): Place => ({
    holds: handHolds(composed(at, raised(site, height_m / 2))),
    own: [hoseEndOf(port.id)],
  });
  const task = (job: ReachJob, places: Task['places']): Task => ({
    id: port.id,
    name: port.name,
    tank,
    job,
    places,
    own: [port.id],
  });
  const namedFiller = system.fit.spots.some(({ kind, tank: of }) => kind === 'filler' && of === tank.id);
  const all: Readonly<Partial<Record<ReachJob, () => Task>>> = {
    tighten: () => ({
      ...task('tighten', (at) => [
        {
          holds: row
            ? tighteningHolds(composed(at, site), height_m, row, port.role === 'drain' || port.role === 'spare')
            : [],
        },
        hand(at),
      ]),
      ...(row ? { acrossFlats_m: row.acrossFlats } : {}),
    }),
    screws: () =>
      task('screws', (at) => [
        ...screwHolds(composed(at, raised(site, SCREW_HEAD_M)), screws.circle_m, screws.count).map((holds) => ({
          holds,
        })),
        hand(at),
      ]),
    hand: () => task('hand', (at) => [hand(at)]),
    fill: () => {
      const mouth =
        turns === 'straight'
          ? raised(site, height_m)
          : frameAlong(add(bendOn(port, seat), scale(SIDE_WAYS[turns], port.stands!.reach_m.value)), SIDE_WAYS[turns]);
      return task('fill', (at) => [{ holds: nozzleHolds(composed(at, mouth), UP), own: [hoseEndOf(port.id)] }]);
    },
    weld: () => task('weld', () => ringPlaces(site, diameter_m / 2, port, outer)),
  };
  return jobsOf(port)
    .filter(
      (job) =>
        (job !== 'fill' || !namedFiller) &&
        (job !== 'weld' || isMetal(tank)) &&
        (job === 'fill' || height_m >= FLUSH_M),
    )
    .flatMap((job) => all[job]?.() ?? []);
}

/** On its bearers a tank sits over their bolts: those are put in before it. */
const COMES_BEFORE: ReadonlySet<MountDocument['kind']> = new Set(['cradle', 'stop', 'guard']);

/** Every bolt of a mount, by its head, in vehicle axes; nothing where it has none. */
function boltsTask(
  mount: MountDocument,
  tank: TankDocument,
  outer: ClosedMesh,
  mounts: readonly MountDocument[],
): Task | undefined {
  const at = placeOf(tank.mounting);
  const sites = boltSites(outer, placedBack(at, pointOf(mount)), mount);
  const [first] = sites;
  if (!first) return undefined;
  const row = spannerFor(first.flats_m);
  const headHeight = row ? Math.max(row.thickness, HEAD_RATIO * first.flats_m) : 0;
  const withTank = new Set([
    tank.id,
    ...tank.ports.flatMap(({ id }) => [id, hoseEndOf(id)]),
    ...mounts.flatMap(({ id, tank: of, kind }) => (of === tank.id && !COMES_BEFORE.has(kind) ? [id] : [])),
  ]);
  // From either end of it, where it goes in from either.
  const onHeads = (heads: readonly Pose[], holds: (head: Pose) => readonly Hold[]): Hold[] =>
    heads.flatMap((head) => holds(composed(at, head)));
  return {
    id: mount.id,
    name: mount.name,
    tank,
    job: 'tighten',
    own: [],
    ...(row ? { acrossFlats_m: row.acrossFlats } : {}),
    places: () =>
      sites.map(({ heads }): Place => ({
        holds: onHeads(heads, (head) => (row ? tighteningHolds(head, headHeight, row, true) : [])),
      })),
    before: COMES_BEFORE.has(mount.kind) ? (id) => !withTank.has(id) : undefined,
  };
}

const raised = (pose: Pose, by_m: number): Pose => ({
  ...pose,
  origin_m: add(pose.origin_m, scale(pose.axes[2], by_m)),
});
const UP: Vec3 = [0, 0, 1];
/** Common practice: screws of a sender's flange stand on nine tenths of its width, their heads 4 mm over the face. */
const SCREW_CIRCLE = 0.45;
const SCREW_HEAD_M = 0.004;
const USUAL_SCREWS = 6;
const RING_POINTS = 8;
const isMetal = (tank: TankDocument): boolean => ALLOYS[tank.material.alloy].isMetal;

/** The seam round a bung at several points: between the face and the bung's side. */
const ringPlaces = (site: Pose, radius_m: number, port: PortDocument, outer: ClosedMesh): Place[] =>
  Array.from({ length: RING_POINTS }, (_, i) => {
    const angle = (2 * Math.PI * i) / RING_POINTS;
    const radial = turned(site, [Math.cos(angle), Math.sin(angle), 0]);
    const rim = add(site.origin_m, scale(radial, radius_m));
    const wall = wallAt(outer, port, rim);
    // Where the wall is so steep that it has no seam with the bung's side, it is in the way like any other.
    const { point_m, normal } =
      wall && dot(wall.normal, site.axes[2]) > STEEP ? wall : { point_m: rim, normal: site.axes[2] };
    return { holds: torchHolds(point_m, unitVector(add(radial, normal)), unitVector(cross(radial, normal))) };
  });
const STEEP = 0.3;

const JOB_OF_SPOT: Readonly<Record<SpotDocument['kind'], ReachJob>> = {
  bolt: 'tighten',
  weld: 'weld',
  gauge: 'read',
  filler: 'fill',
  grip: 'hand',
};
/** Common practice: a bolt's head is two thirds as tall as it is wide. */
const HEAD_RATIO = 0.66;
/** Fingertips close about a handle, not on what it stands on. */
const TIPS_OFF_M = 0.005;

/** A place that is named: in its tank's frame, or in the vehicle's. */
function spotTask(spot: SpotDocument, tank: TankDocument | undefined): Task {
  const point_m = pointOf(spot);
  const out = directionOf(spot.facing);
  const site = frameAlong(point_m, out);
  const row = spot.kind === 'bolt' && spot.acrossFlats_m ? spannerFor(spot.acrossFlats_m.value) : undefined;
  const job = JOB_OF_SPOT[spot.kind];
  const headHeight = row ? Math.max(row.thickness, HEAD_RATIO * row.acrossFlats) : 0;
  const places: Readonly<Record<SpotDocument['kind'], Task['places']>> = {
    bolt: (at) => [
      { holds: row ? tighteningHolds(composed(at, site), headHeight, row, true) : [] },
      { holds: handHolds(composed(at, raised(site, headHeight))) },
    ],
    weld: (at) => [{ holds: seamHolds(composed(at, site), tank) }],
    gauge: (at) => [{ holds: sightHolds(composed(at, site)) }],
    filler: (at) => [{ holds: nozzleHolds(composed(at, site), UP) }],
    grip: (at) => [{ holds: handHolds(composed(at, raised(site, TIPS_OFF_M))) }],
  };
  return {
    id: spot.id,
    name: spot.name,
    job,
    places: places[spot.kind],
    own: [],
    ...(tank ? { tank } : {}),
    ...(row ? { acrossFlats_m: row.acrossFlats } : {}),
  };
}

/** Nearer than this to a sharp edge of its tank, a weld is on that edge [m]. */
const SEAM_M = 0.05;

/** A weld on the tank's nearest edge; one elsewhere lies on a flat and runs either way. */
function seamHolds(site: Pose, tank: TankDocument | undefined): Iterable<Hold> {
  const outer = tank && outerMesh(tank);
  const seam = outer?.ok ? nearestSeam(outer.value, site.origin_m) : undefined;
  if (seam && Math.hypot(...seam.foot_m.map((value, k) => value - site.origin_m[k]!)) < SEAM_M)
    return torchHolds(seam.foot_m, seam.out, seam.along);
  const [first, second] = [site.axes[0], site.axes[1]].map((along) => torchHolds(site.origin_m, site.axes[2], along));
  return {
    *[Symbol.iterator]() {
      yield* first!;
      yield* second!;
    },
  };
}
