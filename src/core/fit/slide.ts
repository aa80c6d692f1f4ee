import { cross, dot, scale, subtract, type Vec3 } from '../geometry';
import type { Move } from './moves';

/**
 * A contact as the part feels it, in the outer frame: where it is, which way is free, and how far it may come nearer;
 * less than nothing where it is too near already [m].
 */
export type Hold = { readonly at_m: Vec3; readonly away: Vec3; readonly room_m: number };

/** Rounds of letting each contact push once. */
const MOST_ROUNDS = 60;
/** Pushes smaller than this share of the move no longer matter. */
const SETTLED = 1e-3;

/**
 * The small move nearest to a wanted one that no contact forbids: a part that
 * is pushed against what is in its way slides along it and turns about it.
 *
 * With the turn measured as the path at a radius, it is the least-squares
 * problem of moving no nearer to any contact than its room, solved by letting
 * the contacts push in turn.
 *
 * @param middle_m about which it turns
 * @param radius_m by which a turn is weighed against a shift
 * @source C. Hildreth, "A quadratic programming procedure", Naval Research Logistics Quarterly 4 (1957)
 */
export function slid(wanted: Move, middle_m: Vec3, radius_m: number, holds: readonly Hold[]): Move {
  const x = [...wanted.shift_m, ...scale(wanted.turn_rad, radius_m)];
  const rows = rowsOf(middle_m, radius_m, holds);
  const pushes = new Float64Array(rows.length);
  const small = SETTLED * Math.hypot(...x);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let most = 0;
    rows.forEach(({ row, room_m, weight }, i) => {
      let along = 0;
      for (let k = 0; k < 6; k++) along += row[k]! * x[k]!;
      const push = Math.max(-pushes[i]!, (-room_m - along) / weight);
      if (push === 0) return;
      pushes[i]! += push;
      for (let k = 0; k < 6; k++) x[k]! += push * row[k]!;
      most = Math.max(most, Math.abs(push));
    });
    if (most < small) break;
  }
  return moveOf(x, radius_m);
}

const PUSHES = 40;

/**
 * The small move by which contacts that are too near come off, each pushing as
 * much as it is too near: between two walls the part comes to the middle.
 * Descends along the slope of the sum of squares.
 */
export function pushedOff(middle_m: Vec3, radius_m: number, holds: readonly Hold[]): Move {
  const x = [0, 0, 0, 0, 0, 0];
  const rows = rowsOf(middle_m, radius_m, holds);
  const all = rows.reduce((sum, { weight }) => sum + weight, 0);
  for (let push = 0; push < PUSHES && all > 0; push++) {
    const slope = [0, 0, 0, 0, 0, 0];
    for (const { row, room_m } of rows) {
      const lacks = -room_m - row.reduce((sum, value, k) => sum + value * x[k]!, 0);
      if (lacks > 0) row.forEach((value, k) => (slope[k]! += lacks * value));
    }
    slope.forEach((value, k) => (x[k]! += (1.5 * value) / all));
  }
  return moveOf(x, radius_m);
}

const moveOf = (x: readonly number[], radius_m: number): Move => ({
  shift_m: [x[0]!, x[1]!, x[2]!],
  turn_rad: [x[3]! / radius_m, x[4]! / radius_m, x[5]! / radius_m],
});

/** Of each contact, how much nearer a unit of each freedom brings it. */
const rowsOf = (middle_m: Vec3, radius_m: number, holds: readonly Hold[]) =>
  holds.map(({ at_m, away, room_m }) => {
    const row = [...away, ...scale(cross(subtract(at_m, middle_m), away), 1 / radius_m)];
    return { row, room_m, weight: row.reduce((sum, value) => sum + value * value, 0) };
  });

/** Length of a move, its turn measured as the path at a radius [m]. */
export const lengthOf = ({ shift_m, turn_rad }: Move, radius_m: number): number =>
  Math.sqrt(dot(shift_m, shift_m) + radius_m ** 2 * dot(turn_rad, turn_rad));

/** How much of one move points along another, both measured at a radius [m]. */
export function alongWanted(move: Move, wanted: Move, radius_m: number): number {
  const length = lengthOf(wanted, radius_m);
  return length > 0
    ? (dot(move.shift_m, wanted.shift_m) + radius_m ** 2 * dot(move.turn_rad, wanted.turn_rad)) / length
    : 0;
}
