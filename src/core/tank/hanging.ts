import { dot, norm, subtract, unitVector, type Vec3 } from '../geometry';
import { centreAt, type Standing } from './tipping';

/** The way up is found to this [rad]. */
const NEAR_RAD = 1e-9;
const MOST_TURNS = 500;

/**
 * How something hangs at rest from a hook that is fast to it: the way up in its own frame, its centre of gravity plumb
 * below the hook and its liquids level.
 *
 * @param hook_m over its centre, in its own frame
 * @returns undefined where it does not come to rest: its liquid runs further than it leans
 * @source statics: what hangs comes to rest with its centre of gravity below what it hangs from
 */
export function hangingUp(standing: Standing, hook_m: Vec3): Vec3 | undefined {
  let up: Vec3 = [0, 0, 1];
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const centre = centreAt(standing, up);
    if (!centre) return undefined;
    const from = subtract(hook_m, centre);
    // Below its own centre a hook holds nothing upright.
    if (!(dot(from, up) > 0)) return undefined;
    const next = unitVector(from);
    if (norm(subtract(next, up)) < NEAR_RAD) return next;
    // Half way: liquid that runs to and fro is brought to rest.
    up = unitVector([(up[0] + next[0]) / 2, (up[1] + next[1]) / 2, (up[2] + next[2]) / 2]);
  }
  return undefined;
}

/**
 * What one leg of a sling bears of a weight, and how far it stands from plumb.
 *
 * Four legs are reckoned as two: a stiff load hangs from two of them, cornerwise, whatever is done.
 *
 * @param points_m where the legs are fast; the flattest of them is reckoned with
 * @source common practice in lifting: of four legs two are counted; a leg bears its share over the cosine of its lean
 */
export function slingLeg(
  points_m: readonly Vec3[],
  hook_m: Vec3,
  up: Vec3,
  weight_N: number,
): { readonly pull_N: number; readonly lean_rad: number } {
  const flattest = Math.min(...points_m.map((at) => dot(unitVector(subtract(hook_m, at)), up)));
  const lean_rad = Math.acos(Math.min(1, Math.max(-1, flattest)));
  return { pull_N: weight_N / (2 * Math.max(1e-6, flattest)), lean_rad };
}
