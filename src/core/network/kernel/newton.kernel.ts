/**
 * Newton's method on a network, in AssemblyScript: all of a solution's time
 * goes here. `npm run kernel` compiles this folder's two into `bytes.ts`;
 * `newton.ts` is the door.
 *
 * Nodes stand at places: the free ones in the order of their elimination,
 * behind them those of given potential. Links with a given end have their
 * entry of the matrix in a last one, which nobody reads; so no link needs to
 * be asked what its ends are.
 */

import { friction, frictionSlope } from './friction.kernel';

export { colebrookRoot, friction, frictionSlope } from './friction.kernel';

/** Works out loss and slope of a link that is no line. */
// @ts-ignore: a decorator of a function
@external('door', 'law')
declare function law(link: i32, flow: f64): void;

/** Numbers to a link in `terms`: laminar slope, square, and the flow that laminar flow ends at; below none for what is no line. */
const TERMS: i32 = 3;
/** Numbers to a link in `rough`: friction, Re per flow, relative roughness, linear, and the end and slope of its bridge. */
const ROUGH: i32 = 6;

const MAX_ITERATIONS: i32 = 100;
/** A hundredth of a millimetre of fuel [Pa]; and a billionth of the largest pressure at work. */
const ENERGY_ABS: f64 = 1e-4;
const ENERGY_REL: f64 = 1e-9;
/** Far below a drop an hour [m³/s]; and rounding against the largest flow. */
const MASS_ABS: f64 = 1e-15;
const MASS_REL: f64 = 1e-9;
/** A step is cut back when the content's slope at its end is above this share of that at its start. */
const OVERSHOOT: f64 = 0.5;
const SEARCH_SHARE: f64 = 0.1;
const SEARCH_STEPS: i32 = 40;

let links: i32 = 0;
let places: i32 = 0;
let size: i32 = 0;

// Where each array begins. By link:
export let terms: usize = 0;
export let rough: usize = 0;
export let flow: usize = 0;
export let loss: usize = 0;
export let slope: usize = 0;
let change: usize = 0;
let tried: usize = 0;
// By place: what is drawn there, given potentials (0 where free), potentials, what is left over.
export let outflow: usize = 0;
export let given: usize = 0;
export let potential: usize = 0;
let balance: usize = 0;
// Of the matrix: the diagonal by place, the entries below it column by column.
let diagonal: usize = 0;
let entries: usize = 0;
let entriesEnd: usize = 0;
// Places of the links' ends and of their entries; the matrix's columns, rows and products.
export let from: usize = 0;
export let to: usize = 0;
export let entryOf: usize = 0;
export let starts: usize = 0;
export let rows: usize = 0;
export let targets: usize = 0;

/** Where the last step ended: the largest disagreement of a law with its pressures [Pa], whose it is, and the largest flow and imbalance [m³/s]. */
export let energy: f64 = 0;
export let worst: i32 = 0;
let largest: f64 = 0;
export let mass: f64 = 0;

// @ts-ignore: a decorator of a function
@inline
function real(array: usize, index: i32): f64 {
  return load<f64>(array + (<usize>index << 3));
}

// @ts-ignore: a decorator of a function
@inline
function put(array: usize, index: i32, value: f64): void {
  store<f64>(array + (<usize>index << 3), value);
}

// @ts-ignore: a decorator of a function
@inline
function add(array: usize, index: i32, value: f64): void {
  const at = array + (<usize>index << 3);
  store<f64>(at, load<f64>(at) + value);
}

// @ts-ignore: a decorator of a function
@inline
function whole(array: usize, index: i32): i32 {
  return load<i32>(array + (<usize>index << 2));
}

let next: usize = 0;

function room(bytes: usize): usize {
  const at = next;
  next = (next + bytes + 7) & ~7;
  return at;
}

/** Makes room for a network; all that was there is gone. False where there is not so much memory. */
export function layOut(linkCount: i32, placeCount: i32, freeCount: i32, entryCount: i32, targetCount: i32): bool {
  links = linkCount;
  places = placeCount;
  size = freeCount;
  next = __heap_base;
  const byLink = <usize>links << 3;
  const byPlace = <usize>places << 3;
  terms = room(byLink * TERMS);
  rough = room(byLink * ROUGH);
  flow = room(byLink);
  loss = room(byLink);
  slope = room(byLink);
  change = room(byLink);
  tried = room(byLink);
  outflow = room(byPlace);
  given = room(byPlace);
  potential = room(byPlace);
  balance = room(byPlace);
  diagonal = room(byPlace);
  entries = room(<usize>(entryCount + 1) << 3);
  entriesEnd = next;
  from = room(<usize>links << 2);
  to = room(<usize>links << 2);
  entryOf = room(<usize>links << 2);
  starts = room(<usize>(size + 1) << 2);
  rows = room(<usize>entryCount << 2);
  targets = room(<usize>targetCount << 2);
  const pages = <i32>((next + 0xffff) >> 16);
  return pages <= memory.size() || memory.grow(pages - memory.size()) >= 0;
}

/**
 * Steps until laws and pressures agree.
 *
 * @param near whether the flows to begin with are near: then the first step is searched along too
 * @returns the number of steps, or 0 where it does not settle
 */
export function settle(near: bool): i32 {
  energy = Infinity;
  worst = 0;
  for (let l = 0; l < links; l++) evaluate(l, real(flow, l));
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    linearise();
    if (!eliminate()) return 0;
    takeStep(direction(), near || iterations > 1);
    if (!(energy <= ENERGY_ABS + ENERGY_REL * largestPotential())) continue;
    mass = imbalance();
    if (mass <= MASS_ABS + MASS_REL * largest) return iterations;
  }
  return 0;
}

/** Loss and slope of a link at a flow. */
// @ts-ignore: a decorator of a function
@inline
function evaluate(l: i32, q: f64): void {
  const at = terms + <usize>(l * TERMS) * 8;
  const amount = Math.abs(q);
  if (amount <= load<f64>(at, 16)) {
    const linear = load<f64>(at);
    const square = load<f64>(at, 8) * amount;
    put(loss, l, (linear + square) * q);
    put(slope, l, linear + 2 * square);
  } else if (load<f64>(at, 16) < 0) {
    law(l, q);
  } else {
    turbulent(l, q, amount, load<f64>(at, 8) * amount);
  }
}

function turbulent(l: i32, q: f64, amount: f64, square: f64): void {
  const at = rough + <usize>(l * ROUGH) * 8;
  const factor = load<f64>(at);
  const perFlow = load<f64>(at, 8);
  const linear = load<f64>(at, 24);
  const number = friction(amount * perFlow, load<f64>(at, 16), load<f64>(at, 32), load<f64>(at, 40));
  const pressure = factor * number + (linear + square) * amount;
  put(loss, l, q < 0 ? -pressure : pressure);
  put(slope, l, factor * perFlow * frictionSlope + linear + 2 * square);
}

/** The matrix, and in the potentials' room its right side. */
function linearise(): void {
  memory.fill(diagonal, 0, entriesEnd - diagonal);
  for (let place = 0; place < places; place++) put(potential, place, -real(outflow, place));
  for (let l = 0; l < links; l++) {
    const a = whole(from, l);
    const b = whole(to, l);
    const conductance = 1 / real(slope, l);
    // Flow through the link = conductance x (difference of potentials) + constant.
    const constant = real(flow, l) - real(loss, l) * conductance;
    add(diagonal, a, conductance);
    add(diagonal, b, conductance);
    add(potential, a, conductance * real(given, b) - constant);
    add(potential, b, conductance * real(given, a) + constant);
    add(entries, whole(entryOf, l), -conductance);
  }
}

/**
 * Solves in place: factors the matrix as L D Lᵀ, so that the entries below the
 * diagonal become those of L and the diagonal what D is divided by; the right
 * side becomes the potentials. False when the matrix is not positive definite.
 *
 * Source: G. Golub and C. Van Loan, Matrix Computations, section 4.1.
 */
function eliminate(): bool {
  let target = targets;
  for (let step = 0; step < size; step++) {
    const pivot = real(diagonal, step);
    if (!(pivot > 0) || pivot === Infinity) return false;
    const begin = entries + (<usize>whole(starts, step) << 3);
    const end = entries + (<usize>whole(starts, step + 1) << 3);
    const inverse = 1 / pivot;
    put(diagonal, step, inverse);
    const known = real(potential, step);
    let row = rows + (<usize>whole(starts, step) << 2);
    for (let a = begin; a < end; a += 8) {
      const value = load<f64>(a);
      const scaled = value * inverse;
      for (let b = begin; b < a; b += 8) {
        add(entries, load<i32>(target), -scaled * load<f64>(b));
        target += 4;
      }
      add(diagonal, load<i32>(row), -scaled * value);
      add(potential, load<i32>(row), -scaled * known);
      row += 4;
    }
    for (let a = begin; a < end; a += 8) store<f64>(a, load<f64>(a) * inverse);
  }
  for (let step = size - 1; step >= 0; step--) {
    let sum = real(potential, step) * real(diagonal, step);
    for (let a = whole(starts, step); a < whole(starts, step + 1); a++) sum -= real(entries, a) * real(potential, whole(rows, a));
    put(potential, step, sum);
  }
  for (let place = size; place < places; place++) put(potential, place, real(given, place));
  return true;
}

/** How each flow is to change. Returns the content's slope that way, where it begins; it is negative. */
function direction(): f64 {
  let content: f64 = 0;
  for (let l = 0; l < links; l++) {
    const rises = real(slope, l);
    const step = (real(potential, whole(from, l)) - real(potential, whole(to, l)) - real(loss, l)) / rises;
    put(change, l, step);
    content -= step * step * rises;
  }
  return content;
}

/** Goes along the step: all of it unless that overshoots the content's minimum badly. Leaves the laws worked out where it ends. */
function takeStep(atNone: f64, searched: bool): void {
  if (along(1) > OVERSHOOT * Math.abs(atNone) && searched) {
    let low: f64 = 0;
    let high: f64 = 1;
    for (let i = 0; i < SEARCH_STEPS; i++) {
      const length = (low + high) / 2;
      const rises = along(length);
      if (Math.abs(rises) <= SEARCH_SHARE * Math.abs(atNone)) break;
      if (rises > 0) high = length;
      else low = length;
    }
  }
  memory.copy(flow, tried, <usize>links << 3);
}

/** Tries a length of the step: works out the laws there and what is still wrong. Returns the content's slope, which rises with the length. */
function along(length: f64): f64 {
  let content: f64 = 0;
  energy = 0;
  largest = 0;
  for (let l = 0; l < links; l++) {
    const step = real(change, l);
    const q = real(flow, l) + length * step;
    put(tried, l, q);
    evaluate(l, q);
    const off = real(loss, l) - real(potential, whole(from, l)) + real(potential, whole(to, l));
    content += step * off;
    // What is no number counts as the largest, and stays it.
    if (!(Math.abs(off) <= energy) && energy === energy) {
      energy = Math.abs(off);
      worst = l;
    }
    largest = Math.max(largest, Math.abs(q));
  }
  return content;
}

function largestPotential(): f64 {
  let most: f64 = 0;
  for (let place = 0; place < places; place++) most = Math.max(most, Math.abs(real(potential, place)));
  return most;
}

/** Largest imbalance at a free node; no number where a flow is none. */
function imbalance(): f64 {
  memory.fill(balance, 0, <usize>places << 3);
  for (let l = 0; l < links; l++) {
    add(balance, whole(from, l), -real(flow, l));
    add(balance, whole(to, l), real(flow, l));
  }
  let most: f64 = 0;
  for (let place = 0; place < size; place++) most = Math.max(most, Math.abs(real(balance, place) - real(outflow, place)));
  return most;
}
