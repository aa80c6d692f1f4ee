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
// By place: what is drawn there, given potentials (0 where free), potentials, by how much they are to change, what is left over.
export let outflow: usize = 0;
export let given: usize = 0;
export let potential: usize = 0;
let shift: usize = 0;
let balance: usize = 0;
// Of the matrix, conductances: to given potentials by place, to other places column by column; and what a row is divided by.
let ground: usize = 0;
let inverse: usize = 0;
let entries: usize = 0;
let entriesEnd: usize = 0;
// Places of the links' ends and of their entries; the matrix's columns, rows and products.
export let from: usize = 0;
export let to: usize = 0;
export let entryOf: usize = 0;
export let starts: usize = 0;
export let rows: usize = 0;
export let targets: usize = 0;

/** Where the last step ended: the largest disagreement of a law with its pressures [Pa] and whose it is; the largest imbalance [m³/s] and where; and how large each may be. */
export let energy: f64 = 0;
export let worst: i32 = 0;
export let energyMost: f64 = 0;
export let mass: f64 = 0;
export let worstPlace: i32 = 0;
export let massMost: f64 = 0;
/** The largest flow [m³/s]. */
let largest: f64 = 0;

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
  shift = room(byPlace);
  balance = room(byPlace);
  inverse = room(byPlace);
  ground = room(byPlace);
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
  mass = Infinity;
  worst = 0;
  worstPlace = 0;
  memory.copy(potential, given, <usize>places << 3);
  for (let l = 0; l < links; l++) evaluate(l, real(flow, l));
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    linearise();
    if (!eliminate()) return 0;
    energyMost = ENERGY_ABS + ENERGY_REL * largestPotential();
    takeStep(direction(), near || iterations > 1);
    if (!(energy <= energyMost)) continue;
    imbalance();
    massMost = MASS_ABS + MASS_REL * largest;
    if (mass <= massMost) return iterations;
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

/**
 * The matrix, and as its right side what is left over at each place. All is
 * reckoned from the flows and potentials that there are, so that what is solved
 * for are changes: they end in nothing, and with them their rounding. In a link
 * of next to no loss a flow told by the difference of two potentials would keep
 * the rounding of these.
 */
function linearise(): void {
  memory.fill(ground, 0, entriesEnd - ground);
  for (let place = 0; place < places; place++) put(shift, place, -real(outflow, place));
  for (let l = 0; l < links; l++) {
    const a = whole(from, l);
    const b = whole(to, l);
    const conductance = 1 / real(slope, l);
    // Would bring the law to the potentials that there are.
    const correction = (real(potential, a) - real(potential, b) - real(loss, l)) * conductance;
    put(change, l, correction);
    const q = real(flow, l) + correction;
    add(shift, a, -q);
    add(shift, b, q);
    if (a >= size) add(ground, b, conductance);
    else if (b >= size) add(ground, a, conductance);
    else add(entries, whole(entryOf, l), conductance);
  }
}

/**
 * Solves in place: the conductances to other places become the entries of L of
 * the matrix's L D Lᵀ, the right side becomes the changes of the potentials.
 * A pivot is the sum of all conductances left at its place and nothing is ever
 * taken away, so that a seat that leaks next to nothing counts beside a join
 * without loss. False when a place is left without any.
 *
 * Source: W. Grassmann, M. Taksar and D. Heyman, Operations Research 33 (1985), for matrices of this kind.
 */
function eliminate(): bool {
  let target = targets;
  for (let step = 0; step < size; step++) {
    const begin = entries + (<usize>whole(starts, step) << 3);
    const end = entries + (<usize>whole(starts, step + 1) << 3);
    const grounded = real(ground, step);
    let pivot = grounded;
    for (let a = begin; a < end; a += 8) pivot += load<f64>(a);
    if (!(pivot > 0) || pivot === Infinity) return false;
    const inverted = 1 / pivot;
    put(inverse, step, inverted);
    const known = real(shift, step);
    let row = rows + (<usize>whole(starts, step) << 2);
    for (let a = begin; a < end; a += 8) {
      const scaled = load<f64>(a) * inverted;
      for (let b = begin; b < a; b += 8) {
        add(entries, load<i32>(target), scaled * load<f64>(b));
        target += 4;
      }
      add(ground, load<i32>(row), scaled * grounded);
      add(shift, load<i32>(row), scaled * known);
      row += 4;
    }
    for (let a = begin; a < end; a += 8) store<f64>(a, load<f64>(a) * inverted);
  }
  for (let step = size - 1; step >= 0; step--) {
    let sum = real(shift, step) * real(inverse, step);
    for (let a = whole(starts, step); a < whole(starts, step + 1); a++) sum += real(entries, a) * real(shift, whole(rows, a));
    put(shift, step, sum);
    add(potential, step, sum);
  }
  for (let place = size; place < places; place++) put(shift, place, 0);
  return true;
}

/** How each flow is to change. Returns the content's slope that way, where it begins; it is negative. */
function direction(): f64 {
  let content: f64 = 0;
  for (let l = 0; l < links; l++) {
    const rises = real(slope, l);
    const step = real(change, l) + (real(shift, whole(from, l)) - real(shift, whole(to, l))) / rises;
    put(change, l, step);
    content -= step * step * rises;
  }
  return content;
}

/**
 * Goes along the step: all of it unless that overshoots the content's minimum
 * badly. Where the laws agree with the pressures at its end it is taken whole:
 * what is left of the content's slope then is rounding. Leaves the laws worked
 * out where it ends.
 */
function takeStep(atNone: f64, searched: bool): void {
  if (along(1) > OVERSHOOT * Math.abs(atNone) && searched && !(energy <= energyMost)) {
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

/** Finds the largest imbalance at a free node; no number where a flow is none. */
function imbalance(): void {
  memory.fill(balance, 0, <usize>places << 3);
  for (let l = 0; l < links; l++) {
    add(balance, whole(from, l), -real(flow, l));
    add(balance, whole(to, l), real(flow, l));
  }
  mass = 0;
  for (let place = 0; place < size; place++) {
    const off = Math.abs(real(balance, place) - real(outflow, place));
    if (off <= mass || mass !== mass) continue;
    mass = off;
    worstPlace = place;
  }
}
