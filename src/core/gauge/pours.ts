/** One line of a calibration log. */
export type Pour = {
  readonly id: string;
  /** When, in seconds; left out where nobody wrote it down. */
  readonly at_s?: number;
  /** Poured in, or drawn off where negative; and the half-width within which that lies 95 times in 100 [m³]. */
  readonly added_m3: number;
  readonly spread_m3: number;
  /** Read after it [ohm, V, share or m]; nothing was read where left out. */
  readonly reading?: number;
  readonly state: 'counts' | 'reading-struck' | 'entry-struck' | 'spilt';
};

/** What is odd about a line. Nothing is left out for it but what the builder strikes, and readings that are far off. */
export type PourFlag =
  'struck' | 'spilt' | 'out-of-order' | 'repeated' | 'falls' | 'dead' | 'out-of-range' | 'too-much' | 'far-off';

export type LoggedPour = {
  readonly id: string;
  /** In the tank after it, and half its 95-in-100 width as a standard deviation [m³]. */
  readonly volume_m3: number;
  readonly sigma_m3: number;
  /**
   * Variance of the pours up to it, less that of the start [m⁶]: two lines share what was poured before the first of
   * them.
   */
  readonly poured_m6: number;
  readonly reading?: number;
  /** Whether the reading takes part in the fit. */
  readonly counts: boolean;
  readonly flags: readonly PourFlag[];
};

export type LogLimits = {
  readonly start_m3: number;
  readonly startSpread_m3: number;
  /** To the brim, as drawn [m³]. */
  readonly brim_m3: number;
  /** Least and most that the instrument can give, with its tolerance. */
  readonly range: readonly [number, number];
  /** Whether more in the tank reads more, or less. */
  readonly rises: boolean;
  /** A change of the reading smaller than this is none: noise, or the width of a step. */
  readonly resolution: number;
};

/** A spread is two standard deviations. */
const SIGMAS = 2;
/** Two lines of the same amount and reading so soon after each other are one, written twice [s]. */
const AGAIN_S = 90;
/** A reading that stands still over so many pours, or this share of the tank, in the middle of its range. */
const DEAD_POURS = 3;
const DEAD_RATIO = 0.12;
/** Nearer than this to an end of the range a float may rightly rest. */
const END_RATIO = 0.04;
/** The tank may hold this much more than drawn before a pour counts as impossible. */
const MORE_RATIO = 0.08;
/** A fall counts from so many resolutions on. */
const FALL = 2;

/**
 * Sums up a log: what is in the tank after each line, how surely, and what is
 * odd. Lines with times are taken in the order of their times. The lines come
 * back in the order in which they count.
 */
export function loggedPours(pours: readonly Pour[], limits: LogLimits): LoggedPour[] {
  const timed = pours.every(({ at_s }) => at_s !== undefined);
  const order = timed
    ? [...pours.keys()].sort((a, b) => pours[a]!.at_s! - pours[b]!.at_s! || a - b)
    : [...pours.keys()];
  let volume_m3 = limits.start_m3;
  const start = (limits.startSpread_m3 / SIGMAS) ** 2;
  let poured_m6 = 0;
  let last: { readonly pour: Pour; readonly volume_m3: number } | undefined;
  const lines: (LoggedPour & { readonly flags: PourFlag[] })[] = [];
  for (const index of order) {
    const pour = pours[index]!;
    const flags: PourFlag[] = [];
    if (timed && index > 0 && pour.at_s! < Math.max(...pours.slice(0, index).map(({ at_s }) => at_s!)))
      flags.push('out-of-order');
    if (pour.state === 'entry-struck' || pour.state === 'reading-struck') flags.push('struck');
    if (pour.state === 'spilt') flags.push('spilt');
    if (pour.state !== 'entry-struck') {
      volume_m3 += pour.added_m3;
      // Of what was spilt nobody knows how much.
      poured_m6 +=
        ((pour.state === 'spilt' ? Math.max(pour.spread_m3, Math.abs(pour.added_m3)) : pour.spread_m3) / SIGMAS) ** 2;
    }
    const { reading } = pour;
    if (last && isAgain(last.pour, pour, limits)) flags.push('repeated');
    const sigma_m3 = Math.sqrt(start + poured_m6);
    if (volume_m3 > limits.brim_m3 * (1 + MORE_RATIO) + SIGMAS * sigma_m3 || volume_m3 < -SIGMAS * sigma_m3 - LEAST_M3)
      flags.push('too-much');
    const read = reading !== undefined && pour.state !== 'entry-struck' && pour.state !== 'reading-struck';
    if (read && (reading < limits.range[0] || reading > limits.range[1])) flags.push('out-of-range');
    if (
      read &&
      last?.pour.reading !== undefined &&
      (reading - last.pour.reading) * (limits.rises ? 1 : -1) * Math.sign(volume_m3 - last.volume_m3) <
        -FALL * limits.resolution
    )
      flags.push('falls');
    if (pour.state !== 'entry-struck' && read) last = { pour, volume_m3 };
    lines.push({
      id: pour.id,
      volume_m3,
      sigma_m3,
      poured_m6,
      ...(reading === undefined ? {} : { reading }),
      counts: read && !flags.includes('out-of-range'),
      flags,
    });
  }
  for (const [from, to] of deadRuns(lines, limits))
    for (let i = from; i <= to; i++) if (lines[i]!.counts) lines[i]!.flags.push('dead');
  return lines;
}
const LEAST_M3 = 1e-4;

const isAgain = (before: Pour, after: Pour, { resolution }: LogLimits): boolean =>
  before.at_s !== undefined &&
  after.at_s !== undefined &&
  Math.abs(after.at_s - before.at_s) <= AGAIN_S &&
  before.added_m3 === after.added_m3 &&
  before.reading !== undefined &&
  after.reading !== undefined &&
  Math.abs(after.reading - before.reading) <= resolution;

/** Runs of lines over which the reading does not move although the tank fills, away from both ends. */
function deadRuns(lines: readonly LoggedPour[], { range, resolution, brim_m3 }: LogLimits): [number, number][] {
  const read = lines.flatMap((line, i) => (line.counts ? [i] : []));
  const edge = END_RATIO * (range[1] - range[0]);
  const runs: [number, number][] = [];
  for (let a = 0; a < read.length;) {
    let b = a;
    while (b + 1 < read.length && Math.abs(lines[read[b + 1]!]!.reading! - lines[read[a]!]!.reading!) <= resolution)
      b++;
    const reading = lines[read[a]!]!.reading!;
    const filled = Math.abs(lines[read[b]!]!.volume_m3 - lines[read[a]!]!.volume_m3);
    if (b - a >= DEAD_POURS && filled > DEAD_RATIO * brim_m3 && reading > range[0] + edge && reading < range[1] - edge)
      runs.push([read[a]!, read[b]!]);
    a = b + 1;
  }
  return runs;
}
