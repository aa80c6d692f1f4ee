import { failure, success, type Outcome } from '../outcome';
import { THREAD_SYSTEMS, THREADS, type ThreadRow } from '../reference/threads';

/** What someone with a calliper and a thread gauge finds on an unknown thread. */
export type ThreadReading = {
  /** Whether it is measured over the crests of an outside thread, or across the crests of an inside one. */
  readonly on: 'outside' | 'inside';
  readonly diameter_m: number;
  /** Half-width within which the diameter lies 95 times in 100 [m]. */
  readonly diameterSpread_m: number;
  /** By a pitch gauge, or counted against a rule; left out where nobody has looked. */
  readonly pitch_m?: number;
  readonly pitchSpread_m?: number;
  /** Whether it narrows along its length, where that has been seen. */
  readonly tapers?: boolean;
};

export type ThreadCandidate = {
  readonly thread: ThreadRow;
  /** Against all the others of the table, each as likely as another before anything was measured. */
  readonly share: number;
  /** Measured less what the thread should measure [m]. */
  readonly diameterOff_m: number;
  readonly pitchOff_m?: number;
};

/** Two candidates that the readings leave open, and what would settle it. */
export type ThreadTell = {
  readonly between: readonly [string, string];
  readonly how: readonly ('pitch' | 'diameter' | 'taper' | 'flanks' | 'nose')[];
};

export type FoundThread = { readonly candidates: readonly ThreadCandidate[]; readonly tell: ThreadTell | undefined };

export type ThreadCode = 'out-of-range' | 'none-near';

/**
 * Crests of real threads lie so far under the nominal outside diameter, for tolerance and wear, as a share of the
 * pitch: middle and spread of what is met. Common practice.
 */
const CREST_LOW = 0.08;
const CREST_SPREAD = 0.12;
/**
 * Depth of the crest of an inside thread from the nominal diameter, as a share of the pitch: 5/8 of the height of a 60°
 * form, and about as much of a 55° one.
 */
const INSIDE_DEPTH = 1.0825;
/**
 * A taper thread measured anywhere over its gauge length is smaller than at the gauge plane by up to so many pitches of
 * taper.
 */
const TAPER_TURNS = 5;
/** Candidates further off than this many standard deviations are none. */
const MOST_SIGMAS = 4;
/** Candidates less likely than this beside the best are not worth a line. */
const LEAST_SHARE = 0.01;
const MOST_LISTED = 6;

/**
 * Threads of the table that a reading may be, the likeliest first.
 *
 * Each thread's own crest diameter is taken as normal about what such threads
 * measure; the readings are normal about the truth. A taper thread may have
 * been measured at any place along it.
 *
 * @param reading diameter 3 … 80 mm, pitch 0.3 … 7 mm
 * @source Bayes' rule with an even prior over the table; crest depth of the ISO and Whitworth basic profiles (ISO 68-1,
 * ISO 228-1)
 */
export function findThread(reading: ThreadReading): Outcome<FoundThread, ThreadCode> {
  const { diameter_m, diameterSpread_m, pitch_m, pitchSpread_m = 5e-5 } = reading;
  if (!(diameter_m >= 0.003 && diameter_m <= 0.08))
    return failure('out-of-range', 'diameter', 'must be from 3 to 80 mm');
  if (pitch_m !== undefined && !(pitch_m >= 3e-4 && pitch_m <= 7e-3))
    return failure('out-of-range', 'pitch', 'must be from 0.3 to 7 mm a turn');
  if (!(diameterSpread_m > 0) || !(pitchSpread_m > 0))
    return failure('out-of-range', 'spread', 'must be more than nothing: say how well it was measured');
  const weighed = THREADS.flatMap((thread) => {
    const off = diameterOff(thread, reading);
    const sigma = Math.hypot(diameterSpread_m / 2, CREST_SPREAD * thread.pitch_m);
    const pitchSigma = pitchSpread_m / 2;
    const pitchOff_m = pitch_m === undefined ? undefined : pitch_m - thread.pitch_m;
    const sigmas = Math.hypot(off.beyond_m / sigma, (pitchOff_m ?? 0) / pitchSigma);
    const tapers = THREAD_SYSTEMS[thread.system].taper_ratio > 0;
    if (sigmas > MOST_SIGMAS || (reading.tapers !== undefined && reading.tapers !== tapers)) return [];
    // A diameter that may lie anywhere in a band is the less telling the wider the band.
    const weight = Math.exp(-(sigmas ** 2) / 2) / (sigma * SQRT_TURN + off.band_m);
    return [{ thread, weight, diameterOff_m: off.off_m, ...(pitchOff_m === undefined ? {} : { pitchOff_m }) }];
  });
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  if (total === 0)
    return failure(
      'none-near',
      'thread',
      'No thread of the table is near this diameter and pitch; measure both again, over the crests.',
    );
  const candidates = weighed
    .map(({ weight, ...rest }): ThreadCandidate => ({ ...rest, share: weight / total }))
    .filter(({ share }) => share >= LEAST_SHARE)
    .sort((a, b) => b.share - a.share)
    .slice(0, MOST_LISTED);
  const [first, next] = candidates;
  // A pitch settles more than anything else, so it is asked for first where it would.
  const second =
    (pitch_m === undefined
      ? candidates.find(({ thread }) => Math.abs(thread.pitch_m - first!.thread.pitch_m) > SEEN_PITCH_M)
      : undefined) ?? next;
  return success({
    candidates,
    tell:
      first && second
        ? { between: [first.thread.name, second.thread.name], how: tellsApart(first.thread, second.thread, reading) }
        : undefined,
  });
}

const SQRT_TURN = Math.sqrt(2 * Math.PI);

/** How far a reading lies from what a thread measures: from the nearest end of the band of a taper one. */
function diameterOff(
  thread: ThreadRow,
  { on, diameter_m }: ThreadReading,
): { off_m: number; beyond_m: number; band_m: number } {
  const crest =
    on === 'outside'
      ? thread.major_m - CREST_LOW * thread.pitch_m
      : thread.major_m - INSIDE_DEPTH * thread.pitch_m + CREST_LOW * thread.pitch_m;
  const band_m = THREAD_SYSTEMS[thread.system].taper_ratio * TAPER_TURNS * thread.pitch_m;
  const off_m = diameter_m - crest;
  return { off_m, beyond_m: off_m > 0 ? off_m : Math.min(0, off_m + band_m), band_m };
}

/** A difference larger than this is seen with a calliper, and this with a pitch gauge [m]. */
const SEEN_DIAMETER_M = 3e-4;
const SEEN_PITCH_M = 4e-5;

function tellsApart(a: ThreadRow, b: ThreadRow, { pitch_m }: ThreadReading): ThreadTell['how'] {
  const [one, other] = [THREAD_SYSTEMS[a.system], THREAD_SYSTEMS[b.system]];
  return [
    ...(pitch_m === undefined && Math.abs(a.pitch_m - b.pitch_m) > SEEN_PITCH_M ? ['pitch' as const] : []),
    ...(one.taper_ratio !== other.taper_ratio ? ['taper' as const] : []),
    ...(one.flank_deg !== undefined && other.flank_deg !== undefined && one.flank_deg !== other.flank_deg
      ? ['flanks' as const]
      : []),
    ...(a.system !== b.system &&
    [a.system, b.system].every((system) => system === 'flare-37' || system === 'o-ring-boss')
      ? ['nose' as const]
      : []),
    ...(Math.abs(a.major_m - b.major_m) > SEEN_DIAMETER_M ? ['diameter' as const] : []),
  ];
}
