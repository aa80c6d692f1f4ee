import { LAMINAR_RE } from './friction';
import { answerForLaws, kernel, kernelTurn, type RealArray, type WholeArray } from './kernel';
import type { LineTerms, LossLaw } from './laws';
import type { SparseShape } from './sparse';

/**
 * The door to the compiled part of the solver, `kernel/newton.kernel.ts`. One
 * network is laid out in its memory at a time; what is known of it stays here.
 */
export type Work = {
  readonly matrix: SparseShape;
  /** By link: the places of its ends and of its entry in the matrix. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly entryOf: Int32Array;
  /** Laws of the links that are no plain lines; the numbers of those that are. */
  readonly laws: (LossLaw | undefined)[];
  readonly terms: Float64Array;
  readonly rough: Float64Array;
  readonly flow: Float64Array;
  /** By place: what is drawn there, given potentials (0 where free), potentials. */
  readonly outflow: Float64Array;
  readonly given: Float64Array;
  readonly potential: Float64Array;
};

/**
 * Where the steps ended: after how many (0 where they came to no end), the
 * largest disagreement of a law with its pressures and the link that it is of,
 * the largest imbalance and its place, and how large each may be.
 */
export type Settled = {
  readonly iterations: number;
  readonly energy_Pa: number;
  readonly energyMost_Pa: number;
  readonly worst: number;
  readonly mass_m3PerS: number;
  readonly massMost_m3PerS: number;
  readonly worstPlace: number;
};

/** Numbers to a link in `terms` and in `rough`. */
const [TERMS, ROUGH] = [3, 6];
/** Slope added to every law so that a link without loss still has one [Pa s/m³]: 0.1 mPa at 6 L/min. */
export const LEAST_SLOPE = 1;

/** @param places of all nodes, the free ones first, by their step */
export const workFor = (
  matrix: SparseShape,
  places: number,
  from: Int32Array,
  to: Int32Array,
  entryOf: Int32Array,
): Work => ({
  matrix,
  from,
  to,
  entryOf,
  laws: new Array<undefined>(from.length).fill(undefined),
  terms: new Float64Array(TERMS * from.length),
  rough: new Float64Array(ROUGH * from.length),
  flow: new Float64Array(from.length),
  outflow: new Float64Array(places),
  given: new Float64Array(places),
  potential: new Float64Array(places),
});

/** Puts in a link's law; a plain line as its numbers. */
export function putLaw(work: Work, link: number, law: LossLaw): void {
  if (law.line) return putLine(work, link, law.line);
  work.laws[link] = law;
  // No flow is that small: the law is asked at all of them.
  work.terms[TERMS * link + 2] = -1;
}

/** Puts in a plain line. */
export function putLine({ terms, rough }: Work, link: number, line: LineTerms): void {
  const linear = line.linear_PaSPerM3 + LEAST_SLOPE;
  const t = TERMS * link;
  terms[t] = 64 * line.friction_Pa * line.rePerFlow_sPerM3 + linear;
  terms[t + 1] = line.square_PaS2PerM6;
  terms[t + 2] = LAMINAR_RE / line.rePerFlow_sPerM3;
  const r = ROUGH * link;
  rough[r] = line.friction_Pa;
  rough[r + 1] = line.rePerFlow_sPerM3;
  rough[r + 2] = line.relativeRoughness;
  rough[r + 3] = linear;
  rough[r + 4] = line.bridge.end;
  rough[r + 5] = line.bridge.slope;
}

/**
 * Steps from the flows that the work holds until laws and pressures agree; its
 * flows and potentials are then those of the solution, and else as they were.
 *
 * @param near whether they are near: then the first step is searched along too
 */
export function settle(work: Work, near: boolean): Settled {
  const room = roomFor(work);
  for (const name of ['terms', 'rough', 'flow', 'outflow', 'given'] as const) room[name].set(work[name]);
  const { settle: run, energy, energyMost, worst, mass, massMost, worstPlace } = kernel();
  const iterations = run(near);
  if (iterations > 0) {
    work.flow.set(room.flow);
    work.potential.set(room.potential);
  }
  return {
    iterations,
    energy_Pa: energy.value,
    energyMost_Pa: energyMost.value,
    worst: worst.value,
    mass_m3PerS: mass.value,
    massMost_m3PerS: massMost.value,
    worstPlace: worstPlace.value,
  };
}

/** The kernel's memory as one network is laid out in it. */
type Room = Readonly<Record<RealArray, Float64Array>> & { readonly work: Work; readonly turn: number };

let current: Room | undefined;

function roomFor(work: Work): Room {
  if (current?.work === work && current.turn === kernelTurn()) return current;
  const { matrix, from, to, entryOf } = work;
  const [links, places] = [from.length, work.outflow.length];
  const known = kernel();
  current = undefined;
  if (!known.layOut(links, places, matrix.size, matrix.rows.length, matrix.targets.length))
    throw new RangeError(`There is no memory for a network of ${links} lines.`);
  const wholes: Readonly<Record<WholeArray, Int32Array>> = {
    from,
    to,
    entryOf,
    starts: matrix.starts,
    rows: matrix.rows,
    targets: matrix.targets,
  };
  for (const [name, values] of Object.entries(wholes))
    new Int32Array(known.memory.buffer, known[name as WholeArray].value, values.length).set(values);
  const real = (name: RealArray, length: number): Float64Array =>
    new Float64Array(known.memory.buffer, known[name].value, length);
  answerForLaws(lossOf);
  current = {
    work,
    turn: kernelTurn(),
    terms: real('terms', TERMS * links),
    rough: real('rough', ROUGH * links),
    flow: real('flow', links),
    loss: real('loss', links),
    slope: real('slope', links),
    outflow: real('outflow', places),
    given: real('given', places),
    potential: real('potential', places),
  };
  return current;
}

/** Loss and slope of a link that is no line, put where the kernel looks for them. */
function lossOf(link: number, flow_m3PerS: number): void {
  const { work, loss, slope } = current!;
  const { pressure_Pa, slope_PaSPerM3 } = work.laws[link]!(flow_m3PerS);
  loss[link] = pressure_Pa + LEAST_SLOPE * flow_m3PerS;
  slope[link] = slope_PaSPerM3 + LEAST_SLOPE;
}
