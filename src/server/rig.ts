import { number, object, string } from 'yup';
import type { SystemDocument } from '@/core/plan';
import { rigPlan, type RigPlan } from '@/core/answers';
import { AT_REST, pouring, rigReading, stepRig, type RigReading, type RigSetup, type RigState } from '@/core/gauge';
import { loadKernel } from '@/core/geometry';
import { failure, success, type Outcome } from '@/core/outcome';
import { seeded } from '@/core/seeded';

export const RIG_FAULTS = ['none', 'sticks', 'dies'] as const;

/** What is asked of a new rig beside the system and the sender. */
export const rigQuery = object({
  sender: string().required('sender is missing').max(40),
  seed: number()
    .integer('seed must be a whole number')
    .min(0, 'seed must be 0 or more')
    .max(1e9, 'seed must be at most 1000000000')
    .default(1),
  /** Seconds of the rig to one of the clock. */
  speed: number().min(1, 'speed must be from 1 to 120').max(120, 'speed must be from 1 to 120').default(1),
  fault: string()
    .oneOf(RIG_FAULTS, `fault must be one of ${RIG_FAULTS.join(', ')}`)
    .default('none'),
});

/** A pour into the rig, or out of it where negative. */
export const pourBody = object({
  volume_m3: number()
    .required('volume_m3 is missing')
    .typeError('volume_m3 must be a number')
    .min(-20, 'volume_m3 must be from -20 to 20')
    .max(20, 'volume_m3 must be from -20 to 20'),
  flow_m3PerS: number()
    .typeError('flow_m3PerS must be a number')
    .min(1e-6, 'flow_m3PerS must be from 0.000001 to 0.1')
    .max(0.1, 'flow_m3PerS must be from 0.000001 to 0.1'),
}).noUnknown();

type Rig = { readonly setup: RigSetup; readonly speed: number; state: RigState; seen_ms: number; touched_ms: number };

/** Rigs that run in this server's memory; each is told to be simulated, and none outlives the server. */
const shared = globalThis as typeof globalThis & { gaslineRigs?: Map<string, Rig> };
/** One for the whole server: each route's own copy of this module would have its own. */
const rigs = (shared.gaslineRigs ??= new Map<string, Rig>());
const MOST_RIGS = 16;
const FORGOTTEN_MS = 3_600_000;

export type RigStarted = {
  readonly id: string;
  readonly simulated: true;
  readonly tank: string;
  readonly sender: string;
  readonly signal: 'resistance' | 'voltage';
  readonly pulsesPerLitre: number;
  readonly span: number;
};

/** What is otherwise than planned in a rig, drawn by its seed. */
function truthOf(plan: RigPlan, seed: number, fault: (typeof RIG_FAULTS)[number]): RigSetup {
  const chance = seeded(seed);
  return {
    seed,
    readingAt: plan.readingAt,
    brim_m3: plan.brim_m3,
    span: plan.span,
    volume_ratio: VOLUME_SIGMA * chance.normal(),
    lowered_m: LOWERED_SIGMA_M * chance.normal(),
    meter_ratio: METER_SIGMA * chance.normal(),
    noise_ratio: 0.003,
    pulsesPerLitre: 100,
    digit: plan.signal === 'resistance' ? 0.1 : 0.001,
    sticksBelow_ratio: fault === 'sticks' ? 0.15 : 0,
    ...(fault === 'dies' ? { diesAt_ratio: 0.5 } : {}),
  };
}
/** How far builders' tanks and senders are met to be off; the meter as sold. Common practice. */
const VOLUME_SIGMA = 0.03;
const LOWERED_SIGMA_M = 0.006;
const METER_SIGMA = 0.005;

export async function startRig(
  system: SystemDocument,
  query: {
    readonly sender: string;
    readonly seed: number;
    readonly speed: number;
    readonly fault: (typeof RIG_FAULTS)[number];
  },
  id: string,
  now_ms: number,
): Promise<Outcome<RigStarted>> {
  await loadKernel();
  for (const [old, rig] of rigs) if (now_ms - rig.touched_ms > FORGOTTEN_MS) rigs.delete(old);
  if (rigs.size >= MOST_RIGS)
    return failure('too-many', 'rig', `${MOST_RIGS} simulated rigs are running already; end one of them first.`);
  const plan = rigPlan(system, query.sender);
  if (!plan.ok) return plan;
  const setup = truthOf(plan.value, query.seed, query.fault);
  rigs.set(id, { setup, speed: query.speed, state: AT_REST, seen_ms: now_ms, touched_ms: now_ms });
  const { tank, sender, signal, span } = plan.value;
  return success({ id, simulated: true, tank, sender, signal, span, pulsesPerLitre: setup.pulsesPerLitre });
}

/** Longest step in which a rig is moved on [s]. */
const STEP_S = 0.1;
/** A rig that nobody looked at stands still after this long of its own time [s]. */
const MOST_S = 120;

/** The rig as it is now, moved on by the clock. */
function current(id: string, now_ms: number): Rig | undefined {
  const rig = rigs.get(id);
  if (!rig) return undefined;
  let left = Math.min(MOST_S, (Math.max(0, now_ms - rig.seen_ms) / 1000) * rig.speed);
  rig.seen_ms = now_ms;
  while (left > 1e-9) {
    const by = Math.min(STEP_S, left);
    rig.state = stepRig(rig.setup, rig.state, by);
    left -= by;
  }
  return rig;
}

export type RigSample = RigReading & { readonly simulated: true };

export function readRig(id: string, now_ms: number): RigSample | undefined {
  const rig = current(id, now_ms);
  return rig && { simulated: true, ...rigReading(rig.setup, rig.state) };
}

export function pourInto(id: string, volume_m3: number, flow_m3PerS: number, now_ms: number): RigSample | undefined {
  const rig = current(id, now_ms);
  if (!rig) return undefined;
  rig.touched_ms = now_ms;
  rig.state = pouring(rig.setup, rig.state, volume_m3, flow_m3PerS);
  return readRig(id, now_ms);
}

export type RigTruth = {
  readonly simulated: true;
  readonly volume_ratio: number;
  readonly lowered_m: number;
  readonly meter_ratio: number;
  readonly sticksBelow_ratio: number;
  readonly diesAt_ratio: number | null;
};

/** Ends a rig and tells what was true of it. */
export function endRig(id: string): RigTruth | undefined {
  const rig = rigs.get(id);
  rigs.delete(id);
  return (
    rig && {
      simulated: true,
      volume_ratio: rig.setup.volume_ratio,
      lowered_m: rig.setup.lowered_m,
      meter_ratio: rig.setup.meter_ratio,
      sticksBelow_ratio: rig.setup.sticksBelow_ratio,
      diesAt_ratio: rig.setup.diesAt_ratio ?? null,
    }
  );
}
