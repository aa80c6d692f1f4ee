import { failure, unwrap, success, type Outcome } from '../outcome';
import { parseMesh, type ClosedMesh } from './mesh';
import { fillProfile, parseProfile, signedArea_m2, type Profile, type ProfileCode } from './polygon';
import type { Point2 } from './section';
import type { Vec3 } from './vec';

/** Which way a profile is extruded; the other two axes, in order, are the profile's. */
export type ExtrudeAxis = 'x' | 'y' | 'z';

export type LoftCode = ProfileCode | 'points-differ' | 'no-length' | 'turns-inside-out';

/** Places a point of a profile at a distance along the axis. */
const PLACE: Readonly<Record<ExtrudeAxis, (p: Point2, at: number) => Vec3>> = {
  x: ([u, v], at) => [at, u, v],
  y: ([u, v], at) => [u, at, v],
  z: ([u, v], at) => [u, v, at],
};
/** Along y the profile's (x, z) runs against the right hand, so its faces turn. */
const TURNS: Readonly<Record<ExtrudeAxis, boolean>> = { x: false, y: true, z: false };

/** A twisted panel is cut into this many strips along its length, each a fan about its own middle. */
const TWIST_STRIPS = 8;

/**
 * A body between two outlines with the same number of points, point joined to
 * point by straight lines: a prism when they are alike.
 *
 * Panels that twist are ruled surfaces and cannot be folded flat. Each is cut
 * into strips, and each strip into four triangles about its middle: of these
 * two lie over the surface and two as much under it, so that the volume is
 * that of the ruled body.
 *
 * @param near,far outlines [m], counter-clockwise or not, in the two other axes
 * @param length_m along the axis, > 0
 */
export function loftMesh(
  near: readonly Point2[],
  far: readonly Point2[],
  axis: ExtrudeAxis,
  length_m: number,
): Outcome<ClosedMesh, LoftCode> {
  if (!(length_m > 0)) return failure('no-length', 'length', 'The length must be above zero.');
  if (near.length !== far.length)
    return failure(
      'points-differ',
      'profiles',
      `The two profiles must have as many points; they have ${near.length} and ${far.length}.`,
    );
  if (signedArea_m2(near) * signedArea_m2(far) < 0)
    return failure('turns-inside-out', 'profiles', 'The two profiles run opposite ways round.');
  const first = parseProfile(near);
  if (!first.ok) return first;
  const last = near === far ? first : parseProfile(far);
  if (!last.ok) return last;
  if (first.value.length !== last.value.length)
    return failure('points-differ', 'profiles', 'Two points of one profile fall together and not in the other.');
  // One outline all along closes up nowhere.
  const pinched = near === far ? undefined : pinchedAt(first.value, last.value);
  if (pinched !== undefined)
    return failure(
      'turns-inside-out',
      'profiles',
      `Between the two profiles the body closes up, ${Math.round(100 * pinched)} % of the way from the first: points that belong together are given in another order, or one profile is turned against the other.`,
    );
  const strips = largestTwist_sin(first.value, last.value) > PARALLEL_SIN ? TWIST_STRIPS : 1;
  return success(build(first.value, last.value, axis, length_m, strips));
}

/** Sections looked at for sides that cross each other on the way. */
const SECTIONS = 24;
/** Of the larger end's area: a section that encloses less is closed up. */
const CLOSED_REL = 1e-3;

/**
 * Where between its ends a section closes up or crosses itself, as a share of
 * the length; undefined where it nowhere does. The enclosed area is a
 * quadratic of the distance, so that its least is known.
 */
function pinchedAt(near: Profile, far: Profile): number | undefined {
  const section = (t: number): Point2[] => near.map((p, i) => between(p, far[i]!, t));
  const [a0, a1] = [signedArea_m2(near), signedArea_m2(far)];
  const half = signedArea_m2(section(0.5));
  // A(t) = a0 + b t + c t², through both ends and the middle.
  const c = 2 * (a0 + a1) - 4 * half;
  const least = c > 0 ? Math.min(1, Math.max(0, (c + a0 - a1) / (2 * c))) : 0;
  if (a0 + (a1 - a0 - c) * least + c * least * least <= CLOSED_REL * Math.max(a0, a1)) return least;
  for (let k = 1; k < SECTIONS; k++) if (!parseProfile(section(k / SECTIONS)).ok) return k / SECTIONS;
  return undefined;
}

/** A profile extruded. */
export const prismMesh = (
  profile: readonly Point2[],
  axis: ExtrudeAxis,
  length_m: number,
): Outcome<ClosedMesh, LoftCode> => loftMesh(profile, profile, axis, length_m);

const between = (a: Point2, b: Point2, t: number): Point2 => [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];

/** Edges that turn less than this are parallel but for rounding. */
const PARALLEL_SIN = 1e-12;

/** An edge that points another way at the far end leaves its panel twisted: the sine of the most that one turns. */
export const largestTwist_sin = (near: readonly Point2[], far: readonly Point2[]): number =>
  Math.max(...near.map((p, i) => twistOf(near, far, i, p)));

function twistOf(near: readonly Point2[], far: readonly Point2[], i: number, p: Point2): number {
  const j = (i + 1) % near.length;
  const [a, b] = [
    [near[j]![0] - p[0], near[j]![1] - p[1]],
    [far[j]![0] - far[i]![0], far[j]![1] - far[i]![1]],
  ] as const;
  return Math.abs(a[0]! * b[1]! - a[1]! * b[0]!) / (Math.hypot(...a) * Math.hypot(...b));
}

/**
 * Volume of the ruled body between two outlines [m³].
 * @source prismatoid formula, exact here since the section's area is a
 * quadratic of the distance along the axis
 */
export function loftVolume_m3(near: readonly Point2[], far: readonly Point2[], length_m: number): number {
  const middle = near.map((p, i) => between(p, far[i]!, 0.5));
  return (length_m / 6) * Math.abs(signedArea_m2(near) + 4 * signedArea_m2(middle) + signedArea_m2(far));
}

function build(near: Profile, far: Profile, axis: ExtrudeAxis, length_m: number, strips: number): ClosedMesh {
  const n = near.length;
  const place = PLACE[axis];
  const rings = Array.from({ length: strips + 1 }, (_, k) =>
    near.map((p, i) => place(between(p, far[i]!, k / strips), (length_m * k) / strips)),
  );
  const middles =
    strips === 1
      ? []
      : Array.from({ length: strips * n }, (_, at) => {
          const [k, i] = [Math.floor(at / n), at % n];
          const corners = [rings[k]![i]!, rings[k]![(i + 1) % n]!, rings[k + 1]![i]!, rings[k + 1]![(i + 1) % n]!];
          return [0, 1, 2].map((axisIndex) => corners.reduce((sum, corner) => sum + corner[axisIndex]! / 4, 0));
        });
  const triangles: number[] = [];
  const push = (a: number, b: number, c: number): void =>
    void (TURNS[axis] ? triangles.push(a, c, b) : triangles.push(a, b, c));
  for (let k = 0; k < strips; k++) {
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const [a, b, c, d] = [k * n + i, k * n + j, (k + 1) * n + i, (k + 1) * n + j];
      if (strips === 1) {
        push(a, b, d);
        push(a, d, c);
        continue;
      }
      const middle = strips * n + n + k * n + i;
      for (const [p, q] of [
        [a, b],
        [b, d],
        [d, c],
        [c, a],
      ] as const)
        push(p, q, middle);
    }
  }
  const base = fillProfile(near);
  for (let i = 0; i < base.length; i += 3) push(base[i]!, base[i + 2]!, base[i + 1]!);
  const top = fillProfile(far);
  const lift = strips * n;
  for (let i = 0; i < top.length; i += 3) push(lift + top[i]!, lift + top[i + 1]!, lift + top[i + 2]!);
  return unwrap(parseMesh(Float64Array.from([...rings.flat(), ...middles].flat()), Uint32Array.from(triangles)));
}
