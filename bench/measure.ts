/** One line of the benchmark's report. */
export type Measurement = {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  /** What it is compared with, in words. */
  readonly reference: string;
  /** Value over reference where there is a peer in the same run; null where there is none. */
  readonly ratio: number | null;
  readonly goal: number;
  readonly met: boolean;
};

export type Bench = { readonly name: string; readonly run: () => Promise<Measurement> };

/** The value below which the given share of the samples lies. */
export function percentile(samples: readonly number[], share: number): number {
  const sorted = [...samples].sort((a, b) => a - b);
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!];
  return low + (high - low) * (at - Math.floor(at));
}
