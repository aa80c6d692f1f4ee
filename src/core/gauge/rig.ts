import { seeded, type Chance } from '../seeded';

/**
 * A tank rig that is not there: it holds a truth that differs from the plan,
 * and gives readings as a real one does. Everything it says is simulated.
 */
export type RigSetup = {
  readonly seed: number;
  /** Reading [ohm or V] with so much in the tank as drawn, the sender so much lower than planned. */
  readonly readingAt: (volume_m3: number, lowered_m: number) => number;
  readonly brim_m3: number;
  /** What is really otherwise than planned. */
  readonly volume_ratio: number;
  readonly lowered_m: number;
  /** Standard deviation of a single reading, as a share of `span`. */
  readonly noise_ratio: number;
  readonly span: number;
  /** Below this share of the tank the float sticks where it is; 0: it does not. */
  readonly sticksBelow_ratio: number;
  /** The float has come off: its reading never moves again once so much is in the tank; none if left out. */
  readonly diesAt_ratio?: number;
  readonly pulsesPerLitre: number;
  /** The meter counts so much too many, as a share. */
  readonly meter_ratio: number;
  /** Last digit of the meter that reads the sender [ohm or V]. */
  readonly digit: number;
};

export type RigState = {
  readonly t_s: number;
  readonly volume_m3: number;
  /** Still to be poured, or to be drawn off where negative, and how fast [m³/s]. */
  readonly toPour_m3: number;
  readonly flow_m3PerS: number;
  /** Passed the meter since the start, with the fraction of a pulse not yet counted. */
  readonly turned: number;
  /** Height to which the surface swings, of its mean depth. */
  readonly slosh_ratio: number;
  readonly stuckAt?: number;
};

/** What the wires say: nothing of the truth. */
export type RigReading = {
  readonly t_s: number;
  readonly reading: number;
  readonly pulses: number;
  readonly pouring: boolean;
};

export const AT_REST: RigState = { t_s: 0, volume_m3: 0, toPour_m3: 0, flow_m3PerS: 0, turned: 0, slosh_ratio: 0 };

/**
 * Pouring sets the surface swinging; it comes to rest with this time constant. Common practice: half a minute to
 * stillness.
 */
const SLOSH_FROM_POUR = 0.02;
const SLOSH_DECAY_S = 6;
const SLOSH_HZ = 1.1;

/** Begins a pour, or drawing off where negative; what the brim or the floor does not allow is not poured. */
export function pouring(setup: RigSetup, state: RigState, volume_m3: number, flow_m3PerS: number): RigState {
  const brim = setup.brim_m3 * (1 + setup.volume_ratio);
  const toPour_m3 = Math.min(brim - state.volume_m3, Math.max(-state.volume_m3, volume_m3));
  return { ...state, toPour_m3, flow_m3PerS };
}

/** The rig so much later. */
export function stepRig(setup: RigSetup, state: RigState, by_s: number): RigState {
  const moved = Math.sign(state.toPour_m3) * Math.min(Math.abs(state.toPour_m3), state.flow_m3PerS * by_s);
  const volume_m3 = state.volume_m3 + moved;
  const slosh_ratio = moved === 0 ? state.slosh_ratio * Math.exp(-by_s / SLOSH_DECAY_S) : SLOSH_FROM_POUR;
  const next = {
    ...state,
    t_s: state.t_s + by_s,
    volume_m3,
    toPour_m3: state.toPour_m3 - moved,
    turned: state.turned + Math.max(0, moved) * LITRES * setup.pulsesPerLitre * (1 + setup.meter_ratio),
    slosh_ratio,
  };
  const dead = setup.diesAt_ratio !== undefined && volume_m3 > setup.diesAt_ratio * setup.brim_m3;
  return dead && state.stuckAt === undefined ? { ...next, stuckAt: truthAt(setup, volume_m3) } : next;
}
const LITRES = 1000;

const truthAt = (setup: RigSetup, volume_m3: number): number =>
  setup.readingAt(
    Math.max(volume_m3, setup.sticksBelow_ratio * setup.brim_m3) / (1 + setup.volume_ratio),
    setup.lowered_m,
  );

/** What is read now; the same rig at the same time reads the same. */
export function rigReading(setup: RigSetup, state: RigState): RigReading {
  const chance = chanceAt(setup.seed, state.t_s);
  const swing = state.slosh_ratio * Math.sin(2 * Math.PI * SLOSH_HZ * state.t_s);
  const clean = state.stuckAt ?? truthAt(setup, state.volume_m3 * (1 + swing));
  const noisy = clean + setup.noise_ratio * setup.span * chance.normal();
  return {
    t_s: state.t_s,
    reading: Math.round(noisy / setup.digit) * setup.digit,
    pulses: Math.floor(state.turned),
    pouring: state.toPour_m3 !== 0,
  };
}

const TICK_S = 0.01;
const chanceAt = (seed: number, t_s: number): Chance => seeded((seed * 7919 + Math.round(t_s / TICK_S)) | 0);

/** Readings that lie together: their mean once they no longer swing; nothing before. */
export function settledReading(last: readonly RigReading[], count: number, within: number): number | undefined {
  const recent = last.slice(-count);
  if (recent.length < count || recent.some(({ pouring: busy }) => busy)) return undefined;
  const mean = recent.reduce((sum, { reading }) => sum + reading, 0) / count;
  // Noise alone leaves the halves together; a swing or a drift parts them.
  const half = (part: readonly RigReading[]): number =>
    part.reduce((sum, { reading }) => sum + reading, 0) / part.length;
  const middle = Math.floor(count / 2);
  const spread = Math.sqrt(recent.reduce((sum, { reading }) => sum + (reading - mean) ** 2, 0) / count);
  return spread <= within && Math.abs(half(recent.slice(0, middle)) - half(recent.slice(middle))) <= within
    ? mean
    : undefined;
}
