import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { add, cross, dot, norm, scale, subtract, unitVector, type Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';

/** A force on the body for each newton of a support's strength: along a unit vector, at a point [m]. */
export type Leg = { readonly at_m: Vec3; readonly way: Vec3 };

/**
 * One thing that holds a body: it pushes, pulls, or does both, along its legs,
 * which share its force as a strap does. What only pushes or pulls lets go
 * where it would have to do the other.
 */
export type Support = {
  readonly acts: 'push' | 'pull' | 'both';
  readonly legs: readonly Leg[];
  readonly stiffness_NPerM: number;
  /** Its force while the body has not moved [N]. */ readonly preload_N: number;
  /** Of what it presses with, so much is borne across it at its first leg before it slides. */
  readonly friction_ratio: number;
};

/** A force on a body, and its moment about the frame's origin. */
export type Wrench = { readonly force_N: Vec3; readonly moment_Nm: Vec3 };

/** A small movement: a shift of the frame's origin, and a turn about it. */
export type Shift = { readonly shift_m: Vec3; readonly turn_rad: Vec3 };

export type Held = {
  /** Of each support [N], never below zero for one that only pushes or only pulls. */
  readonly forces_N: readonly number[];
  /** What friction at each support bears [N]. */ readonly frictions_N: readonly Vec3[];
  readonly moved: Shift;
};

/** Nothing holds it: how it goes, the longest shift or turn made one. */
export type Loose = { readonly goes: Shift };

export type StaticsCode = 'bad-support' | 'not-found';
export type Stand = { readonly held: true; readonly by: Held } | { readonly held: false; readonly how: Loose };

/** Springs that stand for nothing, of the softest support: so weak that what they bear is no part of an answer. */
const GROUND_REL = 1e-5;
/** What they may bear of a load that is held. */
const UNBORNE_REL = 1e-3;
const MOST_ROUNDS = 400;
const MOST_STEPS = 200;
/** Friction's limits agree with what presses, and forces with the load, to so much of the largest force there is. */
const AGREES_REL = 1e-7;

/** Six numbers of a rigid body: three of a force or shift, three of a moment or turn. */
type Six = readonly [number, number, number, number, number, number];

const six = ({ force_N: f, moment_Nm: m }: Wrench, arm_m: number): Six => [
  f[0],
  f[1],
  f[2],
  m[0] / arm_m,
  m[1] / arm_m,
  m[2] / arm_m,
];
const times = (a: Six, b: Six): number => a.reduce((sum, value, i) => sum + value * b[i]!, 0);
const plus = (a: Six, b: Six, by = 1): Six => a.map((value, i) => value + by * b[i]!) as unknown as Six;
const sizeOf = (a: Six): number => Math.sqrt(times(a, a));

/** The wrench of forces along legs. */
export const wrenchOf = (legs: readonly Leg[], by_N = 1): Wrench =>
  legs.reduce<Wrench>(
    (sum, { at_m, way }) => ({
      force_N: add(sum.force_N, scale(way, by_N)),
      moment_Nm: add(sum.moment_Nm, cross(at_m, scale(way, by_N))),
    }),
    { force_N: [0, 0, 0], moment_Nm: [0, 0, 0] },
  );

/** Two unit vectors across one, and across each other. */
export function acrossOf(way: Vec3): readonly [Vec3, Vec3] {
  const axis: Vec3 = Math.abs(way[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
  const one = unitVector(subtract(axis, scale(way, dot(axis, way))));
  return [one, cross(way, one)];
}

type Prepared = {
  readonly support: Support;
  readonly wrench: Six;
  readonly across: readonly [Six, Six];
  readonly directions: readonly [Vec3, Vec3];
};

/** How hard a support works once the body has moved. */
function forceOf({ support, wrench }: Prepared, q: Six): number {
  const force = support.preload_N - support.stiffness_NPerM * times(wrench, q);
  return support.acts === 'both' ? force : Math.max(0, force);
}

/**
 * How a rigid body is held by springs that push or pull, with friction, under a
 * load; or how it goes where they cannot hold it.
 *
 * Between supports that are more than enough the load is shared as their
 * stiffness has it. Friction is a spring as stiff as its support up to its
 * limit (Coulomb) and a constant force beyond; it is taken to have been loaded
 * from nothing to all in one go, since how it was loaded is not known.
 *
 * @param supports each with legs of unit vectors, stiffness over 0, preload and friction of 0 or more
 * @param load its force and moment about the frame's origin
 * @param arm_m about the body's size, by which turns are made comparable with shifts
 * @returns 'not-found' where friction and pressing do not come to agree; a number is never given then
 * @source least potential energy of springs (convex); Coulomb's friction by fixed limits that are brought up to what
 * presses, as in N. Kikuchi and J. T. Oden, Contact Problems in Elasticity (1988), ch. 10; from memory
 */
export function standOf(supports: readonly Support[], load: Wrench, arm_m: number): Outcome<Stand, StaticsCode> {
  const bad = supports.findIndex(
    (one) =>
      !(one.stiffness_NPerM > 0 && Number.isFinite(one.stiffness_NPerM)) ||
      !(one.preload_N >= 0) ||
      !(one.friction_ratio >= 0) ||
      one.legs.length === 0 ||
      one.legs.some(({ at_m, way }) => ![...at_m, ...way].every(Number.isFinite) || Math.abs(norm(way) - 1) > 1e-6),
  );
  if (bad >= 0)
    return failure(
      'bad-support',
      `support ${bad + 1}`,
      'A support needs legs along unit vectors, a stiffness over 0, and preload and friction of 0 or more.',
    );
  const w = six(load, arm_m);
  const parts = supports.map((support): Prepared => {
    const { at_m, way } = support.legs[0]!;
    const directions = acrossOf(way);
    return {
      support,
      wrench: six(wrenchOf(support.legs), arm_m),
      directions,
      across: directions.map((tangent) => six(wrenchOf([{ at_m, way: tangent }]), arm_m)) as unknown as [Six, Six],
    };
  });
  const softest = Math.min(...supports.map((one) => one.stiffness_NPerM));
  const ground = supports.length === 0 ? 1 : GROUND_REL * softest;
  const largest = Math.max(sizeOf(w), ...supports.map((one) => one.preload_N));
  if (largest === 0) return success({ held: true, by: reactionsOf(parts, zeros(), [], arm_m) });
  let limits = parts.map(() => 0);
  let q = zeros();
  let last = Infinity;
  let share = 1;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const settled = settle(parts, limits, w, ground, q, largest);
    if (!settled) break;
    q = settled;
    const wanted = parts.map((part) => part.support.friction_ratio * Math.abs(forceOf(part, q)));
    const apart = Math.max(0, ...wanted.map((limit, i) => Math.abs(limit - limits[i]!)));
    if (apart <= AGREES_REL * largest) {
      const unborne = ground * sizeOf(q);
      return success(
        unborne > UNBORNE_REL * Math.max(sizeOf(w), UNBORNE_REL * largest)
          ? { held: false, how: { goes: unitShift(q, arm_m) } }
          : { held: true, by: reactionsOf(parts, q, limits, arm_m) },
      );
    }
    // Where they swing to and fro they are brought nearer by ever smaller steps.
    if (round > 0 && apart > 0.9 * last) share = Math.max(0.05, 0.7 * share);
    last = apart;
    limits = limits.map((limit, i) => limit + share * (wanted[i]! - limit));
  }
  return failure(
    'not-found',
    'supports',
    'How friction and pressing share the load was not found: the layout is near to jamming or slipping. Give it a stop, or leave friction out.',
  );
}

const zeros = (): Six => [0, 0, 0, 0, 0, 0];

const unitShift = (q: Six, arm_m: number): Shift => {
  const by = 1 / Math.max(...q.map(Math.abs));
  return {
    shift_m: [q[0] * by, q[1] * by, q[2] * by],
    turn_rad: [(q[3] * by) / arm_m, (q[4] * by) / arm_m, (q[5] * by) / arm_m],
  };
};

function reactionsOf(parts: readonly Prepared[], q: Six, limits: readonly number[], arm_m: number): Held {
  return {
    forces_N: parts.map((part) => forceOf(part, q)),
    frictions_N: parts.map((part, i) => {
      const [a, b] = frictionOf(part, limits[i] ?? 0, q);
      return add(scale(part.directions[0], a), scale(part.directions[1], b));
    }),
    moved: { shift_m: [q[0], q[1], q[2]], turn_rad: [q[3] / arm_m, q[4] / arm_m, q[5] / arm_m] },
  };
}

/** What friction gives along its two ways: against the slide, up to its limit. */
function frictionOf({ support, across }: Prepared, limit_N: number, q: Six): readonly [number, number] {
  const slide = [times(across[0], q), times(across[1], q)] as const;
  const far = Math.hypot(...slide);
  const wanted = support.stiffness_NPerM * far;
  if (limit_N === 0 || far === 0) return [0, 0];
  const by = -Math.min(wanted, limit_N) / far;
  return [by * slide[0], by * slide[1]];
}

type Energy = { readonly value: number; readonly slope: Six; readonly curve: number[][] };

/** The potential energy of all springs and the load, with its slope and curvature. */
function energyAt(parts: readonly Prepared[], limits: readonly number[], w: Six, ground: number, q: Six): Energy {
  let value = (ground / 2) * times(q, q) - times(w, q);
  let slope = plus(q.map((each) => ground * each) as unknown as Six, w, -1);
  const curve = Array.from({ length: 6 }, (_, i) => Array.from({ length: 6 }, (_, j) => (i === j ? ground : 0)));
  // In this order the matrix is symmetric to the last digit, as its decomposition wants it.
  const bend = (a: Six, by: number): void => {
    for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) curve[i]![j]! += by * (a[i]! * a[j]!);
  };
  for (const [i, part] of parts.entries()) {
    const { stiffness_NPerM: k } = part.support;
    const force = forceOf(part, q);
    if (force !== 0) {
      value += (force * force) / (2 * k);
      slope = plus(slope, part.wrench, -force);
      bend(part.wrench, k);
    }
    const limit = limits[i]!;
    if (limit === 0) continue;
    const [a, b] = part.across;
    const [sa, sb] = [times(a, q), times(b, q)];
    const far = Math.hypot(sa, sb);
    if (k * far <= limit) {
      value += (k / 2) * far * far;
      slope = plus(plus(slope, a, k * sa), b, k * sb);
      bend(a, k);
      bend(b, k);
    } else {
      value += limit * far - (limit * limit) / (2 * k);
      slope = plus(plus(slope, a, (limit * sa) / far), b, (limit * sb) / far);
      // Along the slide its force stays; across it turns.
      const turned = plus(a.map((each) => (each * -sb) / far) as unknown as Six, b, sa / far);
      bend(turned, limit / far);
    }
  }
  return { value, slope, curve };
}

/** The least energy with friction's limits as they are: Newton's steps, each made shorter until it leads down. */
function settle(
  parts: readonly Prepared[],
  limits: readonly number[],
  w: Six,
  ground: number,
  from: Six,
  largest: number,
): Six | undefined {
  let q = from;
  let here = energyAt(parts, limits, w, ground, q);
  for (let step = 0; step < MOST_STEPS; step++) {
    if (sizeOf(here.slope) <= 1e-3 * AGREES_REL * largest) return q;
    const solved = new CholeskyDecomposition(new Matrix(here.curve));
    if (!solved.isPositiveDefinite()) return undefined;
    const way = solved.solve(Matrix.columnVector(here.slope.map((each) => -each))).to1DArray() as unknown as Six;
    const down = times(here.slope, way);
    let by = 1;
    let next = energyAt(parts, limits, w, ground, plus(q, way, by));
    // Below what its own size hides an energy does not tell: there the slope does.
    const blur = 1e-14 * Math.abs(here.value);
    while (next.value > here.value + 1e-4 * by * down + blur && by > 1e-9) {
      by /= 2;
      next = energyAt(parts, limits, w, ground, plus(q, way, by));
    }
    q = plus(q, way, by);
    here = next;
  }
  return sizeOf(here.slope) <= AGREES_REL * largest ? q : undefined;
}

/** How far a point of a body goes in a small movement. */
export const shiftAt = ({ shift_m, turn_rad }: Shift, at_m: Vec3): Vec3 => add(shift_m, cross(turn_rad, at_m));

/** The wrench of all that supports bear: the load's opposite, where they hold it. */
export function reactionOf(supports: readonly Support[], { forces_N, frictions_N }: Held): Wrench {
  return supports.reduce<Wrench>(
    (sum, support, i) => {
      const along = wrenchOf(support.legs, forces_N[i]!);
      const friction = frictions_N[i]!;
      return {
        force_N: add(sum.force_N, add(along.force_N, friction)),
        moment_Nm: add(sum.moment_Nm, add(along.moment_Nm, cross(support.legs[0]!.at_m, friction))),
      };
    },
    { force_N: [0, 0, 0], moment_Nm: [0, 0, 0] },
  );
}
