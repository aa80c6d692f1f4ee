import {
  meshArea,
  meshCentroid,
  placed,
  shellMoments,
  solidMoments,
  subtract,
  type Pose,
  type SecondMoments,
  type Vec3,
} from '../../geometry';
import { solve, Matrix } from 'ml-matrix';
import { acrossOf, naturalModes, stiffnessOf, type LineSpring, type Mode, type RigidMass } from '../../mounts';
import { memoized } from '../../memo';
import { placeOf } from '../../model/compileFit';
import type { MountSupport } from '../../model/compileMounts';
import type { TankModel } from '../../model/compileTank';
import { shellCentre_m } from '../../tank';
import type { Plan } from '../../plan/schema';
import { SHAKES, type ShakeRow } from '../../reference/shakes';
import { STANDARD_GRAVITY_M_PER_S2 } from '../../units';
import type { metalOf } from '../tank/tankResult';

/** Which way a mode swings most. */
export type SwingWay = 'along' | 'across' | 'up-and-down' | 'rolling' | 'pitching' | 'turning';

export type Swing = { readonly way: SwingWay; readonly frequency_Hz: number };

/** How a tank swings by itself on its mounts, its liquid moving with it. */
export type Swings = {
  /** Slowest first, six of each. */
  readonly full: readonly Swing[];
  readonly empty: readonly Swing[];
  /** So much lower its middle lies for what fills it [m]. */ readonly settles_m: number | undefined;
};

/** A tank of the shell with what it is made of. */
export type Swung = {
  readonly model: TankModel;
  readonly metal: ReturnType<typeof metalOf>;
  readonly liquid_kg: number;
};

type Piece = { readonly mass_kg: number; readonly centre_m: Vec3; readonly about: SecondMoments };

const outer = (a: Vec3, by: number): SecondMoments =>
  a.map((row) => a.map((value) => by * row * value)) as unknown as SecondMoments;
const sumOf = (a: SecondMoments, b: SecondMoments, by = 1): SecondMoments =>
  a.map((row, i) => row.map((value, j) => value + by * b[i]![j]!)) as unknown as SecondMoments;
const ZERO = outer([0, 0, 0], 1);

/** Moments about a piece's own centre, as they lie in the vehicle. */
function piece(at: Pose, mass_kg: number, centre_m: Vec3, aboutOrigin: SecondMoments): Piece {
  const own = sumOf(aboutOrigin, outer(centre_m, mass_kg), -1);
  const axes = at.axes;
  // R·S·Rᵀ, R's columns being where the tank's axes point.
  const about = [0, 1, 2].map((i) =>
    [0, 1, 2].map((j) =>
      [0, 1, 2].reduce(
        (sum, k) => sum + [0, 1, 2].reduce((row, l) => row + axes[k]![i]! * own[k]![l]! * axes[l]![j]!, 0),
        0,
      ),
    ),
  ) as unknown as SecondMoments;
  return { mass_kg, centre_m: placed(at, centre_m), about };
}

/** Shells, baffles, and liquid as one with them. */
function piecesOf({ model, metal, liquid_kg }: Swung, isFull: boolean): Piece[] {
  const at = placeOf(model.document.mounting);
  const [shell, ...points] = metal;
  const surface = model.body.shell;
  const moments = shellMoments(surface);
  const centre = shellCentre_m(surface);
  const area = meshArea(surface);
  return [
    piece(at, shell!.mass_kg, centre, scaled(moments, shell!.mass_kg / area)),
    ...points.map(({ mass_kg, at_m }) => piece(at, mass_kg, at_m, outer(at_m, mass_kg))),
    ...(isFull && liquid_kg > 0
      ? [piece(at, liquid_kg, meshCentroid(model.mesh), scaled(solidMoments(model.mesh), liquid_kg / model.gross_m3))]
      : []),
  ];
}

const scaled = (of: SecondMoments, by: number): SecondMoments => sumOf(ZERO, of, by);

type Bodies = Readonly<Record<'full' | 'empty', { readonly body: RigidMass; readonly centre_m: Vec3 }>>;

/** What holds it changes nothing of this: layouts are tried by the dozen. */
const bodiesOf = memoized('bodies that swing', (swung: readonly Swung[]): Bodies => ({
  full: bodyOf(swung, true),
  empty: bodyOf(swung, false),
}));

function bodyOf(swung: readonly Swung[], isFull: boolean): { readonly body: RigidMass; readonly centre_m: Vec3 } {
  const pieces = swung.flatMap((one) => piecesOf(one, isFull));
  const mass_kg = pieces.reduce((sum, one) => sum + one.mass_kg, 0);
  const centre_m = [0, 1, 2].map(
    (k) => pieces.reduce((sum, one) => sum + one.mass_kg * one.centre_m[k]!, 0) / mass_kg,
  ) as unknown as Vec3;
  const moments = pieces.reduce(
    (sum, one) => sumOf(sumOf(sum, one.about), outer(subtract(one.centre_m, centre_m), one.mass_kg)),
    ZERO,
  );
  const trace = moments[0][0] + moments[1][1] + moments[2][2];
  const inertia = moments.map((row, i) =>
    row.map((value, j) => (i === j ? trace : 0) - value),
  ) as unknown as RigidMass['inertia_kgm2'];
  return { body: { mass_kg, inertia_kgm2: inertia }, centre_m };
}

/**
 * How a tank swings by itself on what presses on it at rest: pads along and across, straps along themselves, bolts all
 * ways.
 *
 * @param forces_N of each support at rest, full
 */
export function swingsOf(
  swung: readonly Swung[],
  supports: readonly MountSupport[],
  forces_N: readonly number[],
): Swings {
  const springs = supports.flatMap((one, i): LineSpring[] => {
    if (one.acts !== 'both' && !(forces_N[i]! > 0)) return [];
    const { at_m, way } = one.legs[0]!;
    return [
      { legs: one.legs, rate_NPerM: one.stiffness_NPerM },
      ...(one.shear_NPerM === undefined
        ? []
        : acrossOf(way).map((across) => ({ legs: [{ at_m, way: across }], rate_NPerM: one.shear_NPerM! }))),
    ];
  });
  const about = ({ body, centre_m }: Bodies['full']) => {
    const near = springs.map(({ legs, rate_NPerM }): LineSpring => ({
      legs: legs.map(({ at_m, way }) => ({ at_m: subtract(at_m, centre_m), way })),
      rate_NPerM,
    }));
    return { near, modes: naturalModes(near, body).map((mode) => swingOf(mode, body)) };
  };
  const bodies = bodiesOf(swung);
  const [full, empty] = [about(bodies.full), about(bodies.empty)];
  const liquid_kg = swung.reduce((sum, one) => sum + one.liquid_kg, 0);
  const isHeld = full.modes.every(({ frequency_Hz }) => frequency_Hz > 0);
  return {
    full: full.modes,
    empty: empty.modes,
    settles_m: isHeld
      ? -solve(
          stiffnessOf(full.near),
          Matrix.columnVector([0, 0, -liquid_kg * STANDARD_GRAVITY_M_PER_S2, 0, 0, 0]),
        ).get(2, 0)
      : undefined,
  };
}

/** The way in which most of a mode's energy of motion is. */
function swingOf({ frequency_Hz, goes }: Mode, { mass_kg, inertia_kgm2 }: RigidMass): Swing {
  const energies = [
    ...goes.shift_m.map((value) => mass_kg * value * value),
    ...goes.turn_rad.map((value, k) => inertia_kgm2[k]![k]! * value * value),
  ];
  const most = energies.reduce((best, value, k) => (value > energies[best]! ? k : best), 0);
  return { way: WAYS[most]!, frequency_Hz };
}
const WAYS: readonly SwingWay[] = ['along', 'across', 'up-and-down', 'rolling', 'pitching', 'turning'];

export type Meeting = { readonly swing: Swing; readonly isFull: boolean };
export type Shaking = { readonly by: ShakeRow; /** Slowest first. */ readonly meets: readonly Meeting[] };

/** What shakes such a vehicle, each with the swings that it meets, full or empty. */
export const shakingOf = (vehicle: Plan['vehicle']['kind'], { full, empty }: Swings): Shaking[] =>
  SHAKES.filter((row) => row.vehicle === vehicle).map((by) => ({
    by,
    meets: [...full.map((swing) => ({ swing, isFull: true })), ...empty.map((swing) => ({ swing, isFull: false }))]
      .filter(({ swing: { frequency_Hz } }) => frequency_Hz >= by.from_Hz && frequency_Hz <= by.to_Hz)
      .sort((a, b) => a.swing.frequency_Hz - b.swing.frequency_Hz),
  }));

/** A way in which nothing that presses on it at rest holds it back; nothing where each has some. */
export const unheldOf = ({ full, empty }: Swings): Swing | undefined =>
  [...full, ...empty].find(({ frequency_Hz }) => frequency_Hz === 0);

/** How a tank swings, as a word. */
export const SWING_WORDS: Readonly<Record<SwingWay, string>> = {
  along: 'fore and aft',
  across: 'from side to side',
  'up-and-down': 'up and down',
  rolling: 'rolling',
  pitching: 'pitching',
  turning: 'turning on the spot',
};
