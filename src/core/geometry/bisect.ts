/** A value that is known nowhere to change faster than its slopes, over a line or a rectangle of parameters. */
export type Bounded = {
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** Most that the value changes with a unit of each parameter. */
  readonly slopes: readonly number[];
};

export type Least = {
  readonly value: number;
  readonly at: readonly number[];
  /** The true least value is no lower than this. */
  readonly bound: number;
  readonly evaluations: number;
};

type Cell = { readonly centre: readonly number[]; readonly half: readonly number[]; readonly bound: number };

/** A cell is halved no more often than this in all; beyond it the bound says how much is still open. */
const MOST_SAMPLES = 4000;

/**
 * Least value over all parameters, no further above the true one than
 * `tolerance` or that share of itself: the cell that could hold the least is halved until none could hold a
 * lower one. A value of 0 or less ends the search, since a distance has none.
 *
 * @source J. Pinter, Global Optimization in Action (1996), chapter 2: branch and bound with a Lipschitz constant
 */
export function leastOver(
  { low, high, slopes }: Bounded,
  value: (at: readonly number[], atMost: number) => number,
  tolerance: number,
  tolerance_rel = 0,
): Least {
  const whole = low.map((from, k) => (high[k]! - from) / 2);
  let best = { value: Infinity, at: low as readonly number[] };
  let evaluations = 0;
  const look = (centre: readonly number[], half: readonly number[]): Cell => {
    evaluations++;
    const reach = half.reduce((sum, width, k) => sum + width * slopes[k]!, 0);
    // Beyond this the cell cannot hold anything lower than what is known.
    const here = value(centre, best.value + reach);
    if (here < best.value) best = { value: here, at: centre };
    return { centre, half, bound: here - reach };
  };
  // The ends are looked at first: the least distance of a swing is mostly there.
  for (let corner = 0; corner < 2 ** low.length; corner++)
    look(
      low.map((from, k) => ((corner >> k) & 1 ? high[k]! : from)),
      low.map(() => 0),
    );
  const open = [
    look(
      low.map((from, k) => from + whole[k]!),
      whole,
    ),
  ];
  while (best.value > 0 && evaluations < MOST_SAMPLES) {
    const next = open.reduce((lowest, cell, i) => (cell.bound < open[lowest]!.bound ? i : lowest), 0);
    const cell = open[next];
    if (!cell || cell.bound >= best.value - Math.max(tolerance, tolerance_rel * best.value)) break;
    open[next] = open[open.length - 1]!;
    open.pop();
    const across = cell.half.reduce(
      (widest, width, k) => (width * slopes[k]! > cell.half[widest]! * slopes[widest]! ? k : widest),
      0,
    );
    const half = cell.half.map((width, k) => (k === across ? width / 2 : width));
    for (const side of [-1, 1])
      open.push(
        look(
          cell.centre.map((at, k) => (k === across ? at + side * half[k]! : at)),
          half,
        ),
      );
  }
  return { ...best, bound: Math.min(best.value, ...open.map((cell) => cell.bound)), evaluations };
}

/** Whether a distance at a parameter is less than a given one; nearer than that it need not be known. */
export type IsWithin = (t: number, distance: number) => boolean;

/**
 * The first parameter from 0 to 1 at which a distance is gone; undefined where
 * there is none on the whole way. Halves the way until the distance at the
 * middle of every piece is more than it could lose within it.
 *
 * @param slope most that the distance changes over the whole way
 * @param tolerance a distance less than this counts as gone
 */
export function firstGone(isWithin: IsWithin, slope: number, tolerance: number, from = 0, to = 1): number | undefined {
  const reach = (slope * (to - from)) / 2;
  const middle = (from + to) / 2;
  if (!isWithin(middle, Math.max(reach, tolerance))) return undefined;
  if (reach <= tolerance || to - from < 1e-12) return middle;
  return firstGone(isWithin, slope, tolerance, from, middle) ?? firstGone(isWithin, slope, tolerance, middle, to);
}
