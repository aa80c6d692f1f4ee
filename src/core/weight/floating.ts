import { unitVector, type Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';

/** A hull's breadth at a place along it. */
export type Station = { readonly x_m: number; readonly beam_m: number };

/** The area that a hull cuts out of the water. */
export type Waterplane = {
  readonly area_m2: number;
  /** Where its middle lies along the hull: she trims about it. */ readonly middle_m: number;
  /** Second moments: along the hull about that middle, and across about the hull's own middle [m⁴]. */
  readonly along_m4: number;
  readonly across_m4: number;
};

/**
 * The waterplane of a hull that is alike on both sides, straight between its stations.
 *
 * @param stations at least two, at different places; in any order
 * @returns undefined where they enclose nothing
 * @source the integrals of the breadth, of its cube, and of its moments between two stations, in closed form
 */
export function waterplaneOf(stations: readonly Station[]): Waterplane | undefined {
  const sorted = [...stations].sort((a, b) => a.x_m - b.x_m);
  let [area, first, second, across] = [0, 0, 0, 0];
  for (const [i, from] of sorted.entries()) {
    const to = sorted[i + 1];
    if (!to) break;
    const [x, X, b, B] = [from.x_m, to.x_m, from.beam_m, to.beam_m];
    const h = X - x;
    area += (h * (b + B)) / 2;
    first += (h * (b * (2 * x + X) + B * (x + 2 * X))) / 6;
    second += (h * (b * (3 * x * x + 2 * x * X + X * X) + B * (x * x + 2 * x * X + 3 * X * X))) / 12;
    across += (h * (b ** 3 + b * b * B + b * B * B + B ** 3)) / 48;
  }
  if (!(area > 0)) return undefined;
  const middle_m = first / area;
  return { area_m2: area, middle_m, along_m4: second - area * middle_m ** 2, across_m4: across };
}

/**
 * Metacentric height from a weight of the boat's own that was moved across her deck.
 *
 * @source the inclining experiment: the moment of the weight is that of the hull, w·d = Δ·GM·tan φ
 */
export const inclinedGm_m = (displacement_kg: number, moved_kg: number, moved_m: number, heeled_rad: number): number =>
  (moved_kg * moved_m) / (displacement_kg * Math.tan(heeled_rad));

/** So many of her breadths over the root of GM is how long a small boat takes to roll once [s/√m]. */
export const ROLL_COEFFICIENT = 0.8;
/**
 * Metacentric height from how long she takes to roll to one side and back.
 *
 * @source rolling test of small ships in the IMO code of intact stability: GM = (f·B/T)², f about 0.8; from memory
 */
export const rolledGm_m = (beam_m: number, period_s: number): number => ((ROLL_COEFFICIENT * beam_m) / period_s) ** 2;

export type Hull = {
  readonly waterplane: Waterplane;
  readonly displacement_kg: number;
  readonly density_kgPerM3: number;
  /** Metacentric height, as weighed [m]. */ readonly gm_m: number;
  /** Of the hull’s middle, across, and of its waterline [m]. */
  readonly middle_m: number;
  readonly waterline_m: number;
};

/** What came aboard since she was weighed; less than nothing is what went. */
export type Aboard = { readonly mass_kg: number; readonly at_m: Vec3 };

export type Afloat = {
  /** Deeper in the middle of her waterplane by so much [m]. */ readonly sinks_m: number;
  readonly bowDown_rad: number;
  readonly portDown_rad: number;
  /** Metacentric height with what came aboard, its liquids running to the low side [m]. */ readonly gm_m: number;
};

export type AfloatCode = 'unsteady' | 'too-far' | 'not-found';

/** Sides of a hull are upright for no more than this [rad]. */
export const MOST_LEAN_RAD = (12 * Math.PI) / 180;
const STEP_RAD = 2e-4;
const NEAR_RAD = 1e-9;
const MOST_TURNS = 60;

/**
 * How a hull lies with something more aboard, liquids at rest as she lies: trim and heel at which her righting moment
 * is that of all aboard. Her sides are taken as upright about the waterline, so it holds for small leans alone.
 *
 * @param aboard all that came aboard, in the vehicle's axes, where it lies with up that way; undefined where that is
 * not found
 * @source naval architecture: GM along is GM across with the difference of the second moments of the waterplane over
 * the volume; a weight that comes aboard is carried by a layer of water at the waterline
 */
export function afloat(hull: Hull, aboard: (up: Vec3) => readonly Aboard[] | undefined): Outcome<Afloat, AfloatCode> {
  const { waterplane, displacement_kg, density_kgPerM3, gm_m, middle_m, waterline_m } = hull;
  const level = aboard([0, 0, 1]);
  if (!level) return failure('not-found', 'hull', 'Where the weight aboard lies could not be worked out.');
  const more_kg = level.reduce((sum, { mass_kg }) => sum + mass_kg, 0);
  const sinks_m = more_kg / (density_kgPerM3 * waterplane.area_m2);
  const across_kgm = displacement_kg * gm_m;
  const along_kgm = across_kgm + density_kgPerM3 * (waterplane.along_m4 - waterplane.across_m4);
  // Moments over gravity that lean her further: bow down, and port down.
  const moments = (bow: number, port: number): readonly [number, number] | undefined => {
    const masses = aboard(unitVector([-Math.tan(bow), -Math.tan(port), 1]));
    if (!masses) return undefined;
    let [along, across] = [-along_kgm * Math.sin(bow), -across_kgm * Math.sin(port)];
    for (const { mass_kg, at_m } of masses) {
      const over_m = at_m[2] - waterline_m - sinks_m / 2;
      along += mass_kg * ((at_m[0] - waterplane.middle_m) * Math.cos(bow) + over_m * Math.sin(bow));
      across += mass_kg * ((at_m[1] - middle_m) * Math.cos(port) + over_m * Math.sin(port));
    }
    return [along, across];
  };
  let [bow, port] = [0, 0];
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const here = moments(bow, port);
    const sides = [
      moments(bow + STEP_RAD, port),
      moments(bow - STEP_RAD, port),
      moments(bow, port + STEP_RAD),
      moments(bow, port - STEP_RAD),
    ];
    if (!here || sides.includes(undefined))
      return failure('not-found', 'hull', 'Where the weight aboard lies could not be worked out.');
    const slope = (plus: number, minus: number, k: 0 | 1): number =>
      (sides[minus]![k] - sides[plus]![k]) / (2 * STEP_RAD);
    const [ll, lt, tl, tt] = [slope(0, 1, 0), slope(2, 3, 0), slope(0, 1, 1), slope(2, 3, 1)];
    const spread = ll * tt - lt * tl;
    if (!(ll > 0 && tt > 0 && spread > 0))
      return failure(
        'unsteady',
        'hull',
        'With this aboard she does not stay upright: her metacentric height is used up. Weight lower down, less of it, or liquid that cannot run across.',
      );
    const [dBow, dPort] = [(tt * here[0] - lt * here[1]) / spread, (ll * here[1] - tl * here[0]) / spread];
    bow += dBow;
    port += dPort;
    if (Math.max(Math.abs(bow), Math.abs(port)) > MOST_LEAN_RAD)
      return failure('too-far', 'hull', 'She would lean more than 12°: more than upright sides can tell.');
    if (Math.max(Math.abs(dBow), Math.abs(dPort)) < NEAR_RAD)
      return success({ sinks_m, bowDown_rad: bow, portDown_rad: port, gm_m: tt / (displacement_kg + more_kg) });
  }
  return failure('not-found', 'hull', 'How she lies could not be found: trim and heel did not come to rest.');
}

/** Weight that brings a hull level: so much at a place along her and so much at a place across her. */
export type Ballast = {
  readonly along_kg: number;
  readonly at_x_m: number;
  readonly across_kg: number;
  readonly at_y_m: number;
};

/** Ballast stands so far in from her ends, of her length, and so far out from her middle, of her beam. */
const BALLAST_AT = { in: 0.15, out: 0.35 } as const;

/**
 * What ballast lays her level with all that came aboard: each weight on the side that is too light. Level, its lever is
 * all that counts, so it is exact; it lies in the middle the other way.
 *
 * @param level all that came aboard as it lies with her level
 * @param along her waterline’s ends, and her greatest breadth [m]
 * @source moments about the middle of the waterplane and about her middle line
 */
export function ballastFor(
  { waterplane, middle_m }: Hull,
  level: readonly Aboard[],
  { aft_m, fore_m, beam_m }: { readonly aft_m: number; readonly fore_m: number; readonly beam_m: number },
): Ballast {
  const bow = level.reduce((sum, { mass_kg, at_m }) => sum + mass_kg * (at_m[0] - waterplane.middle_m), 0);
  const port = level.reduce((sum, { mass_kg, at_m }) => sum + mass_kg * (at_m[1] - middle_m), 0);
  const inset = BALLAST_AT.in * (fore_m - aft_m);
  const at_x_m = bow > 0 ? aft_m + inset : fore_m - inset;
  const at_y_m = middle_m + (port > 0 ? -1 : 1) * BALLAST_AT.out * beam_m;
  return {
    along_kg: Math.abs(bow / (at_x_m - waterplane.middle_m)),
    at_x_m,
    across_kg: Math.abs(port / (at_y_m - middle_m)),
    at_y_m,
  };
}
