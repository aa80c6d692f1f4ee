import { factored, squareOf, type Factors } from './dense';

/** Rates of change of a state. */
export type Dynamics = {
  /** How many values the state has. */ readonly size: number;
  /** Values that rates depend on; of all others they only give sums. */ readonly acting: readonly number[];
  /** Puts the rates at a time into `out`. */
  readonly rates: (t_s: number, y: Float64Array, out: Float64Array) => void;
  /**
   * Puts the slopes of all rates over each acting value into a column of its own, and those over time into another;
   * where it is left out they are taken from rates a nudge apart.
   */
  readonly slopes?: (t_s: number, y: Float64Array, columns: readonly Float64Array[], timed: Float64Array) => void;
  /** Whether rates change with time itself, while the state stands still. */ readonly isTimed: boolean;
  /** Of each value: an error that is of no account. */ readonly tolerance: Float64Array;
  /** Of each value: so much is small beside what it is, and large beside rounding; a slope is taken over it. */
  readonly nudge: Float64Array;
};

/** One step from a state with its rates to another. */
export type Step = {
  readonly from_s: number;
  readonly to_s: number;
  readonly before: Float64Array;
  readonly after: Float64Array;
  readonly ratesBefore: Float64Array;
  readonly ratesAfter: Float64Array;
};

/**
 * Method RODAS of order 4 with an embedded one of order 3: six stages, L-stable and stiffly accurate, so that what
 * settles in a millisecond holds nothing up that goes on for hours. Sums of values that rates leave alone it leaves
 * alone to rounding.
 *
 * @source E. Hairer and G. Wanner, Solving Ordinary Differential Equations II, 2nd ed., IV.7; coefficients from memory,
 * their order is measured in rosenbrock.test.ts
 */
const GAMMA = 0.25;
const ALPHA = [0, 0.386, 0.21, 0.63, 1, 1] as const;
const GAMMAS = [0.25, -0.1043, 0.1035, -0.0362, 0, 0] as const;
const A = [
  [],
  [1.544],
  [0.9466785280815826, 0.2557011698983284],
  [3.314825187068521, 2.896124015972201, 0.9986419139977817],
  [1.221224509226641, 6.019134481288629, 12.53708332932087, -0.687886036105895],
  [1.221224509226641, 6.019134481288629, 12.53708332932087, -0.687886036105895, 1],
] as const;
const C = [
  [],
  [-5.6688],
  [-2.430093356833875, -0.2063599157091915],
  [-0.1073529058151375, -9.594562251023355, -20.47028614809616],
  [7.496443313967647, -10.24680431464352, -33.99990352819905, 11.7089089320616],
  [8.083246795921522, -7.981132988064893, -31.52159432874371, 16.31930543123136, -6.058818238834054],
] as const;
const STAGES = 6;
const ORDER = 4;

/** Slopes over time are taken over so much [s], or so much of a step. */
const [TIME_NUDGE_S, TIME_NUDGE] = [1e-6, 1e-5];
/** Of a step: how much longer or shorter the next may be. */
const [LEAST_CHANGE, MOST_CHANGE, SAFETY] = [0.2, 5, 0.85];

/**
 * The sure method: two implicit stages of order 2, L-stable and stiffly accurate.
 *
 * @source R. Alexander, SIAM J. Numer. Anal. 14 (1977) 1006
 */
const SURE_GAMMA = 1 - Math.SQRT1_2;
const SURE_ORDER = 2;
/**
 * Newton's steps for a stage, how near in tolerances it must come, when one is no nearer than the one before, and when
 * so much nearer that it needs no new slopes.
 */
const [SURE_TURNS, SURE_ENOUGH, JUMPS, NEARS] = [16, 0.05, 0.7, 0.5];
/** So many steps in a row that hardly grow or are refused, and the sure method has so many; or fails so often. */
const [HARD_STEPS, GETS_ON, SURE_STEPS, SURE_FAILS] = [3, 1.3, 40, 6];
/** After so many its steps must be so much longer; else it is asked again only after ever more, up to so many. */
const [SURE_TRIED, SURE_BETTER, MOST_PATIENCE] = [14, 2, 100];

/** A state that is stepped on; each step begins where the last one ended. */
export class Stepper {
  t_s: number;
  readonly y: Float64Array;
  readonly rates: Float64Array;
  /** Length that the next step is tried with. */ next_s: number;
  /** Steps that were thrown away. */ refused = 0;
  private readonly stages: Float64Array[];
  private readonly at: Float64Array;
  private readonly f: Float64Array;
  private readonly slopes: Float64Array[];
  private readonly timed: Float64Array;
  /** Of what acts, to be solved for. */ private readonly right: Float64Array;
  private known = false;

  constructor(
    private readonly dynamics: Dynamics,
    t_s: number,
    y: Float64Array,
    first_s: number,
  ) {
    const room = (): Float64Array => new Float64Array(dynamics.size);
    this.t_s = t_s;
    this.y = y.slice();
    this.rates = room();
    this.next_s = first_s;
    this.stages = Array.from({ length: STAGES }, room);
    this.at = room();
    this.f = room();
    this.timed = room();
    this.right = new Float64Array(dynamics.acting.length);
    this.led = room();
    this.slopes = dynamics.acting.map(room);
    dynamics.rates(t_s, this.y, this.rates);
  }

  /**
   * Goes on by one step, at most to a time; shorter steps are tried until one is good enough.
   *
   * @returns the step; undefined where none is, however short
   */
  step(until_s: number, least_s: number): Step | undefined {
    for (;;) {
      const left = until_s - this.t_s;
      // Two steps to the end rather than one and a hair.
      const h = this.next_s >= left ? left : this.next_s > left / 2 ? left / 2 : this.next_s;
      const isSure = this.sure > 0;
      const error = isSure ? this.triedSurely(h) : this.tried(h);
      const order = isSure ? SURE_ORDER : ORDER;
      const change = Number.isFinite(error)
        ? Math.min(MOST_CHANGE, Math.max(LEAST_CHANGE, SAFETY * Math.max(error, 1e-9) ** (-1 / order)))
        : LEAST_CHANGE;
      this.turn(isSure, error, change, h);
      if (error <= 1) {
        this.wasSure = isSure;
        // At its end it is at its end, not a rounding beside it.
        const step = this.taken(h, h === left ? until_s : this.t_s + h);
        this.next_s = Math.max(h * change, least_s);
        return step;
      }
      this.refused++;
      this.next_s = h * Math.min(change, 0.9);
      if (h <= least_s) return undefined;
    }
  }

  /**
   * Which method has the next turn: the sure one where the other does not get on, that one again after a while. Where
   * the sure one gets on no better the other is let go on longer before it is asked again.
   */
  private turn(isSure: boolean, error: number, change: number, h: number): void {
    if (!isSure) {
      this.hard = error > 1 || change < GETS_ON ? this.hard + 1 : Math.max(0, this.hard - 2);
      if (this.hard < this.patience) return;
      this.hard = 0;
      this.sure = SURE_STEPS;
      this.failed = 0;
      this.hardStep_s = h;
      return;
    }
    this.failed = error > 1 ? this.failed + 1 : 0;
    this.sure--;
    const isNoBetter = this.sure <= SURE_STEPS - SURE_TRIED && h < SURE_BETTER * this.hardStep_s;
    if (isNoBetter) this.patience = Math.min(2 * this.patience, MOST_PATIENCE);
    else if (this.sure === 0) this.patience = HARD_STEPS;
    if (isNoBetter || this.failed >= SURE_FAILS) this.sure = 0;
  }
  private hard = 0;
  private patience = HARD_STEPS;
  private sure = 0;
  private failed = 0;
  private hardStep_s = 0;
  private wasSure = false;
  /** What the last sure step went by; nothing where the last was none. */
  private readonly led: Float64Array;

  /**
   * The state so far along a step that was just taken: it is taken anew, shorter; and shorter still where that comes to
   * none.
   *
   * @returns undefined where no step does, however short
   */
  redo(step: Step, to_s: number, least_s: number): Step | undefined {
    this.back(step);
    const h = to_s - step.from_s;
    const error = this.wasSure ? this.triedSurely(h) : this.tried(h);
    if (Number.isFinite(error)) return this.taken(h, to_s);
    this.next_s = h / 2;
    return this.step(to_s, least_s);
  }

  /**
   * Where a step of a length would lead by two implicit stages, each solved to its end: slower in what is smooth, and
   * sure where slopes are others a hair further on, as at a valve about to open. What comes in or goes by sums is given
   * along exactly. Gives its error in tolerances, endless where a stage comes to none.
   */
  private triedSurely(h: number): number {
    const { size, acting, tolerance } = this.dynamics;
    const [first, second, base] = [this.stages[0]!, this.stages[1]!, this.stages[2]!];
    const weight = h * SURE_GAMMA;
    // Rates of what is stiff are those of errors too small to count, and lead far off: what a step went by leads on.
    first.set(this.led);
    base.set(this.y);
    if (!this.solvedStage(base, first, this.t_s + weight, weight)) return Infinity;
    second.set(first);
    for (let n = 0; n < size; n++) base[n] = this.y[n]! + h * (1 - SURE_GAMMA) * first[n]!;
    if (!this.solvedStage(base, second, this.t_s + h, weight)) return Infinity;
    for (let n = 0; n < size; n++) this.at[n] = base[n]! + weight * second[n]!;
    // What the second stage changes, as what is quick would still let stand of it.
    const factors = this.factorsFor(1 / weight);
    if (!factors) return Infinity;
    for (let a = 0; a < acting.length; a++) this.right[a] = second[acting[a]!]! - first[acting[a]!]!;
    const left = factors.solve(this.right);
    this.known = false;
    let error = 0;
    acting.forEach((index, a) => {
      error = Math.max(error, Math.abs(left[a]! / 2) / tolerance[index]!);
    });
    return Number.isFinite(error) ? error : Infinity;
  }

  /**
   * Finds the rates of a stage that leads from a base to where they hold, by Newton's steps.
   *
   * @param rate begun with, and what is found
   */
  private solvedStage(base: Float64Array, rate: Float64Array, t_s: number, weight: number): boolean {
    const { size, acting, tolerance } = this.dynamics;
    const { at, f } = this;
    for (let n = 0; n < size; n++) at[n] = base[n]! + weight * rate[n]!;
    let before = Infinity;
    let isOff = true;
    let factors: Factors | undefined;
    for (let turn = 0; turn < SURE_TURNS; turn++) {
      this.dynamics.rates(t_s, at, f);
      if (Number.isNaN(f[acting[0]!]!)) return false;
      if (isOff) {
        this.lookAt(t_s, at, f);
        factors = this.factorsFor(1 / weight);
      }
      if (!factors) return false;
      for (let a = 0; a < acting.length; a++) {
        const index = acting[a]!;
        this.right[a] = f[index]! - (at[index]! - base[index]!) / weight;
      }
      const solved = factors.solve(this.right);
      const largest = solved.reduce((most, move, a) => Math.max(most, Math.abs(move) / tolerance[acting[a]!]!), 0);
      if (!Number.isFinite(largest)) return false;
      // What jumps to and fro past where it belongs goes half as far.
      const share = largest > JUMPS * before ? 0.5 : 1;
      // Slopes that bring it near fast enough are kept.
      isOff = largest > NEARS * before;
      before = largest;
      rate.set(f);
      for (const [a, index] of acting.entries()) {
        at[index]! += share * solved[a]!;
        const slopes = this.slopes[a]!;
        for (let n = 0; n < size; n++) rate[n]! += slopes[n]! * solved[a]!;
      }
      if (share === 1 && largest < SURE_ENOUGH) return true;
    }
    return false;
  }

  private back({ from_s, before, ratesBefore }: Step): void {
    this.t_s = from_s;
    this.y.set(before);
    this.rates.set(ratesBefore);
    this.known = false;
  }

  private taken(h: number, to_s: number): Step {
    if (this.wasSure) this.led.set(this.stages[1]!);
    else this.led.fill(0);
    const before = this.y.slice();
    const ratesBefore = this.rates.slice();
    const from_s = this.t_s;
    this.t_s = to_s;
    this.y.set(this.at);
    this.dynamics.rates(this.t_s, this.y, this.rates);
    this.known = false;
    return { from_s, to_s: this.t_s, before, after: this.y.slice(), ratesBefore, ratesAfter: this.rates.slice() };
  }

  /** Where a step of a length would lead stands in `at`; gives its error in tolerances. */
  private tried(h: number): number {
    const { size, tolerance } = this.dynamics;
    if (!this.known) this.look();
    const factors = this.factorsFor(1 / (h * GAMMA));
    if (!factors) return Infinity;
    const { stages, at, f } = this;
    for (let s = 0; s < STAGES; s++) {
      const stage = stages[s]!;
      if (s === 0) f.set(this.rates);
      else {
        at.set(this.y);
        for (let b = 0; b < s; b++) {
          const a = A[s]![b]!;
          for (let n = 0; n < size; n++) at[n]! += a * stages[b]![n]!;
        }
        this.dynamics.rates(this.t_s + ALPHA[s]! * h, at, f);
      }
      for (let n = 0; n < size; n++) {
        let sum = f[n]! + h * GAMMAS[s]! * this.timed[n]!;
        for (let b = 0; b < s; b++) sum += (C[s]![b]! / h) * stages[b]![n]!;
        stage[n] = sum;
      }
      this.solved(factors, stage, h * GAMMA);
    }
    const last = stages[STAGES - 1]!;
    let error = 0;
    for (let n = 0; n < size; n++) {
      // The last argument, and the last stage on it.
      at[n]! += last[n]!;
      error = Math.max(error, Math.abs(last[n]!) / tolerance[n]!);
    }
    return Number.isFinite(error) ? error : Infinity;
  }

  /** Slopes of the rates over what acts, and over time. */
  private look(): void {
    this.lookAt(this.t_s, this.y, this.rates);
    this.known = true;
  }

  private lookAt(t_s: number, y: Float64Array, ratesThere: Float64Array): void {
    const { acting, rates, nudge, size, isTimed } = this.dynamics;
    this.timed.fill(0);
    if (this.dynamics.slopes) return this.dynamics.slopes(t_s, y, this.slopes, this.timed);
    const [beside, out] = [this.stages[4]!, this.stages[5]!];
    beside.set(y);
    acting.forEach((index, a) => {
      beside[index] = y[index]! + nudge[index]!;
      const over = beside[index]! - y[index]!;
      rates(t_s, beside, out);
      beside[index] = y[index]!;
      const slopes = this.slopes[a]!;
      for (let n = 0; n < size; n++) slopes[n] = (out[n]! - ratesThere[n]!) / over;
    });
    if (!isTimed) return;
    const over = Math.max(TIME_NUDGE_S, Math.abs(this.next_s) * TIME_NUDGE);
    rates(t_s + over, y, out);
    for (let n = 0; n < size; n++) this.timed[n] = (out[n]! - ratesThere[n]!) / over;
  }

  /** Of the matrix 1/(h γ) − J, among what acts. */
  private factorsFor(diagonal: number): Factors | undefined {
    const { acting } = this.dynamics;
    const n = acting.length;
    const matrix = squareOf(n);
    for (let column = 0; column < n; column++)
      for (let row = 0; row < n; row++)
        matrix.values[row * n + column] = (row === column ? diagonal : 0) - this.slopes[column]![acting[row]!]!;
    return factored(matrix);
  }

  /** Solves (1/(h γ) − J) u = right in place: among what acts by the factors, and all that only sums from that. */
  private solved(factors: Factors, right: Float64Array, hGamma: number): void {
    const { acting, size } = this.dynamics;
    for (let a = 0; a < acting.length; a++) this.right[a] = right[acting[a]!]!;
    const small = factors.solve(this.right);
    for (let n = 0; n < size; n++) {
      let sum = right[n]!;
      for (let a = 0; a < acting.length; a++) sum += this.slopes[a]![n]! * small[a]!;
      right[n] = sum * hGamma;
    }
  }
}

/**
 * The state within a step, by the cubic through its ends and their rates. Where a rate at an end has died away within
 * the step, as quick values' do, it is held to what goes on from one end to the other without turning round.
 *
 * @source F. N. Fritsch and R. E. Carlson, SIAM J. Numer. Anal. 17 (1980) 238, for slopes that do not overshoot
 */
export function within({ from_s, to_s, before, after, ratesBefore, ratesAfter }: Step, t_s: number): Float64Array {
  const h = to_s - from_s;
  const x = h > 0 ? (t_s - from_s) / h : 1;
  const [a, b] = [(1 + 2 * x) * (1 - x) ** 2, x * x * (3 - 2 * x)];
  const [c, d] = [x * (1 - x) ** 2, x * x * (x - 1)];
  return before.map((value, n) => {
    const goes = after[n]! - value;
    return a * value + b * after[n]! + c * held(h * ratesBefore[n]!, goes) + d * held(h * ratesAfter[n]!, goes);
  });
}

const held = (slope: number, goes: number): number =>
  goes >= 0 ? Math.min(Math.max(slope, 0), 3 * goes) : Math.max(Math.min(slope, 0), 3 * goes);
