import { feedPath } from '../../plan/circuits';
import { pickupRadius_m, surroundOf } from '../../model/compileSender';
import {
  compileTank,
  envelopeOf,
  floorUnder_m,
  standingUp,
  type PickupModel,
  type TankModel,
} from '../../model/compileTank';
import { withValue } from '../../plan/edit';
import type { ConsumerDocument, Plan, TankPlan } from '../../plan/schema';
import { freeRun, lawOf } from '../../gauge';
import { add, dot, levelForVolume, rayCrossings, roomDepth, scale, type Vec3 } from '../../geometry';
import { portSeat } from '../../model/portSeat';
import { failure, success, unwrap, type Outcome } from '../../outcome';
import { burnAtDuty_m3PerS } from '../../range';
import { CUT_SPREAD, STRAINER_ROWS } from '../../reference/pickups';
import { portPart } from '../../reference/portParts';
import { unusable_m3 } from '../../tank';
import { withPositions } from '../../state';
import { allKnown } from '../allKnown';
import type { At } from '../at';
import { leftBetween } from '../remembered';

/** How a pickup is cut and what it stands near. */
export type PickupPlan = {
  readonly id: string;
  /** From its seat to its lower end, before any strainer [m]; nothing to cut where it is a fitting in the wall. */
  readonly cut_m?: number;
  /** Its seat over the outside of the sheet [m]. */
  readonly seat_m: number;
  /** Distance from its side to what stands nearest inside, nearest first [m]. */
  readonly near: readonly {
    readonly to: string;
    readonly what: 'wall' | 'baffle' | 'sender';
    readonly distance_m: number;
  }[];
};

const POINTS_ALONG = 12;
const SWEEP_STEPS = 24;
/** The tube goes through the lid: its upper end is not looked at [m]. */
const UNDER_LID_M = 0.01;

const seatOfPickup_m = (tank: TankPlan, { document }: PickupModel): number => {
  const port = tank.ports.find(({ id }) => id === document.port);
  return document.seat_m?.value ?? (port?.part ? portPart(port.part).seat : 0);
};

/** How a pickup's tube is cut, seated and how near it comes to what else is in the tank [m]. */
export function pickupPlan(tank: TankModel, pickup: PickupModel): PickupPlan {
  const { document, port_m, inlet } = pickup;
  const seat_m = seatOfPickup_m(tank.document, pickup);
  if (document.kind === 'bottom-outlet') return { id: document.id, seat_m, near: [] };
  const strainer = STRAINER_ROWS.find(({ key }) => key === document.strainer)!;
  const hangs_m = pickup.tubeLength_m - strainer.below;
  const foot_m = Math.max(0, hangs_m);
  const along = Array.from({ length: POINTS_ALONG + 1 }, (_, i): Vec3 =>
    add(port_m, scale(pickup.down, foot_m + (Math.min(foot_m, UNDER_LID_M) - foot_m) * (i / POINTS_ALONG))),
  );
  const radius = pickupRadius_m(document);
  return {
    // What hangs plumb goes through a leaning sheet on the slant.
    id: document.id,
    seat_m,
    cut_m: hangs_m + sheetAlong_m(tank, pickup) + seat_m,
    near: [
      ...nearWalls(tank, along, radius, inlet.point_m[2]),
      ...nearBaffles(tank, along, radius),
      ...nearSenders(tank, pickup, along, radius),
    ].sort((a, b) => a.distance_m - b.distance_m),
  };
}

/** How far a tube runs in its sheet [m]. */
function sheetAlong_m({ body, document }: TankModel, { document: pickup, down }: PickupModel): number {
  const port = document.ports.find(({ id }) => id === pickup.port);
  const seat = port && portSeat(body.shell, port);
  return document.material.thickness_m.value / (seat?.isFlat ? Math.max(LEAST_COS, -dot(seat.out, down)) : 1);
}
/** A tube along a sheet does not go through it. */
const LEAST_COS = 0.1;

/** Walls beside the tube, seen level from it all round; floor and lid, which it runs between, do not count. */
function nearWalls({ body }: TankModel, along: readonly Vec3[], radius: number, inlet_m: number): PickupPlan['near'] {
  let beside = LOOK_M;
  for (const point of along.filter((at, i) => i % WALL_EVERY === 0 && at[2] - inlet_m > radius)) {
    if (roomDepth(body.shell)(point) <= 0) return [{ to: 'the wall', what: 'wall', distance_m: -radius }];
    for (let i = 0; i < AROUND; i++) {
      const angle = (2 * Math.PI * i) / AROUND;
      const first = rayCrossings(body.shell, point, [Math.cos(angle), Math.sin(angle), 0]).find(
        (distance) => distance > 0,
      );
      if (first !== undefined) beside = Math.min(beside, first - radius);
    }
  }
  return beside < LOOK_M ? [{ to: 'the wall', what: 'wall', distance_m: beside }] : [];
}
const AROUND = 12;
/** Of the points along a tube, those from which walls are looked for. */
const WALL_EVERY = 3;
/** What is further off is not near [m]. */
const LOOK_M = 0.05;

/** Upright baffles beside the tube; a level plate is cut out for it. */
function nearBaffles({ body, document }: TankModel, along: readonly Vec3[], radius: number): PickupPlan['near'] {
  return body.plates
    .filter(({ plate }) => plate.axis !== 2)
    .flatMap(({ plate }) => {
      const name = document.plates.find(({ id }) => id === plate.id)?.name ?? 'a baffle';
      const run = ([0, 1] as const).find((axis) => axis !== plate.axis)!;
      const meets = along.filter((point) => point[run] >= plate.from_m - radius && point[run] <= plate.to_m + radius);
      const distance_m = Math.min(
        ...meets.map((point) => Math.abs(point[plate.axis] - plate.at_m) - plate.thickness_m / 2 - radius),
      );
      return distance_m < LOOK_M ? [{ to: name, what: 'baffle' as const, distance_m }] : [];
    });
}

/** The least distance to what a sender sweeps: its float and its wire, over all that it is free to move. */
function nearSenders(tank: TankModel, pickup: PickupModel, along: readonly Vec3[], radius: number): PickupPlan['near'] {
  return tank.senders.flatMap((model) => {
    if (model.document.port === pickup.document.port) return [];
    const { sender } = model;
    const surround = surroundOf(tank, model);
    const free = freeRun(sender, surround.room, surround.round) ?? { low_share: 0, high_share: 1 };
    const [foot, head] = [along[0]!, along.at(-1)!];
    let least = Infinity;
    const look = (point: Vec3, own: number): void => {
      const over = Math.max(0, foot[2] - point[2], point[2] - head[2]);
      least = Math.min(least, Math.hypot(point[0] - foot[0], point[1] - foot[1], over) - own - radius);
    };
    for (let i = 0; i <= SWEEP_STEPS; i++) {
      const share = free.low_share + ((free.high_share - free.low_share) * i) / SWEEP_STEPS;
      for (const { at_m, radius_m } of lawOf(sender).balls(sender, share)) look(at_m, radius_m);
    }
    return least < LOOK_M ? [{ to: model.document.name, what: 'sender' as const, distance_m: least }] : [];
  });
}

/** A cut as measured depths leave it: all of them as far off as they may be, the same way. */
export type CutSpread = {
  readonly id: string;
  readonly cut_m: number;
  readonly shortest_m: number;
  readonly longest_m: number;
  /** What the end may stand off the floor when cut to the middle; under 0 it strikes. */ readonly lowestEnd_m: number;
  readonly highestEnd_m: number;
};

/**
 * The cut length of every pickup with its worst cases: each size of the tank
 * that is measured or assumed is moved by its spread in turn, and the changes
 * of the depth add up without regard to sign. A saw adds its own.
 */
export function pickupCuts(system: Plan, t: number): Outcome<readonly CutSpread[], 'bad-shape'> {
  const document = system.tanks[t]!;
  const compiled = compileTank(system, document);
  if (!compiled.ok) return compiled;
  const depths = (tank: TankModel): (number | undefined)[] =>
    compiled.value.pickups.map(({ document: { id } }) => {
      const pickup = tank.pickups.find((one) => one.document.id === id);
      return pickup && pickupPlan(tank, pickup).cut_m;
    });
  const nominal = depths(compiled.value);
  const off = nominal.map(() => 0);
  for (const { path, known } of sizesOf(document)) {
    const moved = compileTank(system, withValue(document, [...path, 'value'], known.value + known.spread!));
    if (!moved.ok) continue;
    depths(moved.value).forEach((depth, i) => {
      if (depth !== undefined && nominal[i] !== undefined) off[i]! += Math.abs(depth - nominal[i]);
    });
  }
  return success(
    compiled.value.pickups.flatMap((pickup, i): CutSpread[] => {
      const { cut_m, id } = pickupPlan(compiled.value, pickup);
      if (cut_m === undefined || nominal[i] === undefined) return [];
      const spread = off[i]! + (pickup.document.kind === 'hose' ? CUT_SPREAD.hose : CUT_SPREAD.tube);
      const end = pickup.document.heightOffFloor_m.value;
      return [
        {
          id,
          cut_m,
          shortest_m: cut_m - spread,
          longest_m: cut_m + spread,
          lowestEnd_m: end - spread,
          highestEnd_m: end + spread,
        },
      ];
    }),
  );
}

/** Sizes of shape, parts and bands that may be off. */
const sizesOf = ({ shape, parts, slices }: TankPlan) =>
  allKnown({ shape, parts, slices }).filter(({ known }) => (known.spread ?? 0) > 0);

/** Two consumers on one tank: when the first goes out, what the second still has. */
export type ReserveResult = {
  readonly tank: string;
  readonly first: { readonly pickup: string; readonly consumer: string };
  readonly second: { readonly pickup: string; readonly consumer: string };
  /** On the level, and at the worst of the slopes asked for; under 0 the second goes out first [m³]. */
  readonly level_m3: number;
  readonly worst_m3: number;
  readonly worstAt: { readonly pitch_rad: number; readonly roll_rad: number };
  /** How long and how far the second goes on it at the set duty, on the level and at worst. */
  readonly lasts_s: number;
  readonly lastsWorst_s: number;
  readonly goes_m?: number;
  readonly goesWorst_m?: number;
};

const DRIVES: ReadonlySet<ConsumerDocument['kind']> = new Set([
  'diesel-engine',
  'petrol-injection',
  'petrol-carburettor',
]);

/** What a heater's or generator's pickup leaves for the engine, for every tank from which both draw. */
export function reserves(plan: Plan, { model, state }: At): ReserveResult[] {
  const circuits = withPositions(model.circuits, state.positions);
  const fed = plan.consumers.map((consumer) => ({ consumer, pickup: feedPath(circuits, consumer.id).at(-1) }));
  return model.tanks.flatMap((tank) => {
    const own = fed.flatMap(({ consumer, pickup }) =>
      tank.pickups.filter(({ document }) => document.id === pickup).map((model) => ({ consumer, model })),
    );
    const engine = own.find(({ consumer }) => DRIVES.has(consumer.kind)) ?? own[0];
    return !engine
      ? []
      : own
          .filter((other) => other !== engine && other.model !== engine.model)
          .map((other) => reserveOf(plan, state.duty_ratio, tank, other, engine));
  });
}

type Drawing = { readonly consumer: ConsumerDocument; readonly model: PickupModel };

function reserveOf(plan: Plan, duty_ratio: number, tank: TankModel, first: Drawing, second: Drawing): ReserveResult {
  const { level_m3, ...worst } = leftBetween(
    tank.mesh,
    tank.division,
    [first.model.inlet, second.model.inlet],
    tank.mounting,
    envelopeOf(plan),
  );
  const burn = burnAtDuty_m3PerS(
    second.consumer.burnIdle_m3PerS.value,
    second.consumer.burnFull_m3PerS.value,
    duty_ratio,
  );
  const speed = plan.vehicle.speed_mPerS?.value;
  const lasts = (volume: number): number => (burn > 0 ? Math.max(0, volume) / burn : 0);
  const [lasts_s, lastsWorst_s] = [lasts(level_m3), lasts(worst.worst_m3)];
  const of = ({ consumer, model }: Drawing) => ({ pickup: model.document.id, consumer: consumer.name });
  return {
    tank: tank.document.id,
    first: of(first),
    second: of(second),
    level_m3,
    ...worst,
    lasts_s,
    lastsWorst_s,
    ...(speed ? { goes_m: lasts_s * speed, goesWorst_m: lastsWorst_s * speed } : {}),
  };
}

/**
 * How far off the floor the first pickup must end so that the second still
 * has so much on the level when the first goes out [m].
 */
export function heightForReserve(
  system: Plan,
  t: number,
  firstId: string,
  secondId: string,
  reserve_m3: number,
): Outcome<number, 'bad-shape' | 'no-pickup' | 'too-much'> {
  const compiled = compileTank(system, system.tanks[t]!);
  if (!compiled.ok) return compiled;
  const tank = compiled.value;
  const [first, second] = [firstId, secondId].map((id) => tank.pickups.find(({ document }) => document.id === id));
  const floor = first && floorUnder_m(tank.body.shell, first.inlet.point_m);
  if (!first || !second || floor === undefined)
    return failure('no-pickup', firstId, 'Both pickups must stand in the tank.');
  const up = standingUp(tank, 0, 0);
  const wanted = unusable_m3(tank, second.inlet, up) + reserve_m3;
  if (wanted >= tank.gross_m3) return failure('too-much', firstId, 'That is more than the tank holds.');
  // Where the surface stands with so much in it; the inlet needs its own cover of liquid.
  const surface = unwrap(levelForVolume(tank.mesh, up, wanted)).offset_m - first.inlet.submergence_m;
  const height = (surface - dot(up, [first.inlet.point_m[0], first.inlet.point_m[1], floor])) / up[2];
  return success(Math.max(0, height));
}
