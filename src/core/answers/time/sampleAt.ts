import type { Sample } from './played';

/**
 * How it stands at any time of a course: evenly between the two moments next to it, and as at its ends before and
 * after them.
 *
 * @param samples in order of time, at least one
 */
export function sampleAt(samples: readonly Sample[], t_s: number): Sample {
  const after = firstFrom(samples, t_s);
  const [to, from] = [samples[after] ?? samples.at(-1)!, samples[Math.max(0, after - 1)]!];
  const share = to.t_s > from.t_s ? Math.min(1, Math.max(0, (t_s - from.t_s) / (to.t_s - from.t_s))) : 1;
  const mixed = (a: number, b: number): number => a + (b - a) * share;
  const all = (a: readonly number[], b: readonly number[]): number[] => a.map((each, n) => mixed(each, b[n]!));
  return {
    t_s: mixed(from.t_s, to.t_s),
    pitch_deg: mixed(from.pitch_deg, to.pitch_deg),
    roll_deg: mixed(from.roll_deg, to.roll_deg),
    temperature_K: mixed(from.temperature_K, to.temperature_K),
    tanks: from.tanks.map((tank, t) => ({
      volume_m3: mixed(tank.volume_m3, to.tanks[t]!.volume_m3),
      gauge_Pa: mixed(tank.gauge_Pa, to.tanks[t]!.gauge_Pa),
      offset_m: mixed(tank.offset_m, to.tanks[t]!.offset_m),
    })),
    lines_m3PerS: all(from.lines_m3PerS, to.lines_m3PerS),
    consumers_m3PerS: all(from.consumers_m3PerS, to.consumers_m3PerS),
  };
}

/** The first sample at a time or after it, by halving; as many as there are where none is. */
function firstFrom(samples: readonly Sample[], t_s: number): number {
  let [low, high] = [0, samples.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (samples[middle]!.t_s < t_s) low = middle + 1;
    else high = middle;
  }
  return low;
}
