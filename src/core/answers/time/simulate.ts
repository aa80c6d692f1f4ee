import { fluidState } from '../../fluids';
import { success, failure, type Outcome } from '../../outcome';
import type { Scenario } from '../../plan/schemaScenario';
import type { Steps } from '../../steps';
import { Stepper, within, type Dynamics, type Step } from '../../time';
import type { At } from '../at';
import { Course, type CourseCode } from './course';
import type { Sample, Simulated, Totals } from './played';
import { GAS, LIQUID, slotOf, VAPOUR } from './rates';
import { breaksOf } from './schedule';
import type { Watch } from './watches';

export type SimulateCode = CourseCode | 'temperature-range' | 'no-tanks' | 'chatters' | 'stuck' | 'not-conserved';

/** A share of what moved that may not be accounted for. */
const CONSERVED = 1e-6;
/** Steps and events beyond which a course is not gone on with. */
const MOST_STEPS = 60_000;
const MOST_EVENTS = 5_000;
/** At one moment: more than this is to and fro. */
const MOST_AT_ONCE = 200;
const LEAST_STEP_S = 1e-8;
const FIRST_STEP_S = 1e-2;
/** Beyond so many samples every second one is left out, unless something happens there. */
const MOST_SAMPLES = 3_000;
/** No step is longer than that there are so many: what is told of a moment was worked out there. */
const LEAST_SAMPLES = 120;
/** So near to where something happens, it does [s]. */
const NEAR_S = 1e-6;
/** Places within a step at which what may happen is looked for. */
const LOOKS = [0.25, 0.5, 0.75, 1] as const;

/**
 * Plays a scenario: from the state that conditions describe, and the fills that the scenario begins with, through all
 * that it sets, with every event found where it happens.
 *
 * Liquid and gas of each tank are the state; at every moment the network is steady between the pressures that they
 * give. Gas has the temperature of the liquid.
 *
 * @param tell is told of each sample as it has been worked out
 * @returns samples in order of time, the first at the beginning and the last at the end
 */
export function* simulate(
  at: At,
  scenario: Scenario,
  tell: (sample: Sample) => void = () => undefined,
): Steps<Outcome<Simulated, SimulateCode>> {
  if (at.model.tanks.length === 0) return failure('no-tanks', 'tanks', 'A system without a tank has nothing to play.');
  for (const temperature_K of [at.state.fuelTemperature_K, ...scenario.temperatures.map((each) => each.temperature_K)])
    for (const { batch } of at.model.tanks) {
      const state = fluidState(batch, temperature_K);
      if (!state.ok) return state;
    }
  const course = new Course(at, scenario);
  const { duration_s } = scenario;
  const breaks = [
    ...breaksOf(scenario, course.pitchBefore_deg, course.rollBefore_deg, at.state.fuelTemperature_K),
    duration_s,
  ];
  const samples: Sample[] = [];
  const kept = new Set<number>();
  const keep = (always = false): void => {
    const sample = course.sample();
    if (samples.at(-1)?.t_s === sample.t_s) samples.pop();
    samples.push(sample);
    tell(sample);
    if (always) kept.add(sample.t_s);
    if (samples.length <= MOST_SAMPLES) return;
    const fewer = samples.filter(({ t_s }, n) => n % 2 === 0 || kept.has(t_s));
    samples.splice(0, samples.length, ...fewer);
  };
  const longest_s = duration_s / LEAST_SAMPLES;
  const start_y = course.y.slice();
  let [steps, refused, solutions] = [0, 0, 0];
  for (const until_s of breaks) {
    const set = course.set();
    if (!set.ok) return set;
    while (course.t_s < until_s || samples.length === 0) {
      const settled = settle(course);
      if (!settled.ok) return settled;
      keep(true);
      if (course.t_s >= until_s) break;
      const { rates } = course;
      const dynamics = dynamicsOf(course);
      const first_s = Math.min(FIRST_STEP_S, until_s - course.t_s);
      const stepper = new Stepper(dynamics, course.t_s, course.y, first_s);
      let happens: Watch | undefined;
      while (course.t_s < until_s && !happens) {
        yield;
        if (++steps > MOST_STEPS) return stuck(course, `More than ${MOST_STEPS} steps were needed`);
        let step = stepper.step(Math.min(until_s, course.t_s + longest_s), LEAST_STEP_S);
        const found = step && firstOf(course, step);
        if (step && found) step = stepper.redo(step, found.t_s, LEAST_STEP_S);
        if (!step)
          return rates.fault
            ? failure(rates.fault.code, rates.fault.at, rates.fault.detail)
            : stuck(course, 'No step is short enough');
        if (found && step.to_s === found.t_s) happens = found.watch;
        course.goTo(step.to_s, step.after);
        // What only the curve between two ends had come to is not there yet.
        if (happens && happens.value() > 0 && step.to_s - step.from_s > NEAR_S) happens = undefined;
        if (!happens) {
          keep();
          continue;
        }
        keep(true);
        const happened = goneOn(course, happens);
        if (!happened.ok) return happened;
        // What is only told leaves the flow as it is: the steps go on.
        if (happened.value) happens = undefined;
      }
      refused += stepper.refused;
      solutions += rates.solutions;
    }
  }
  keep(true);
  const unaccounted = balanceOf(course, start_y);
  if (!(unaccounted.liquid_ratio <= CONSERVED && unaccounted.gas_ratio <= CONSERVED))
    return failure(
      'not-conserved',
      'balance',
      `What went in and out does not add up: ${(100 * Math.max(unaccounted.liquid_ratio, unaccounted.gas_ratio)).toPrecision(2)} % of what moved is missing.`,
    );
  return success({
    samples,
    events: course.events,
    totals: totalsOf(course, start_y),
    unaccounted,
    work: { steps, refused, solutions },
  });
}

const stuck = (course: Course, why: string) =>
  failure(
    'stuck' as const,
    `${course.t_s.toFixed(1)} s`,
    `${why} from ${course.t_s.toFixed(1)} s on; the last: ${course.lastWords()}.`,
  );

/** Lets something happen, and all that follows at that moment; says whether the flow goes on as it did. */
function goneOn(course: Course, happens: Watch): Outcome<boolean, SimulateCode> {
  const { made } = course;
  const done = course.happen(happens);
  if (!done.ok) return done;
  if (course.events.length > MOST_EVENTS)
    return failure('chatters', 'events', `More than ${MOST_EVENTS} things happen; the last: ${course.lastWords()}.`);
  const settled = settle(course);
  return settled.ok ? success(course.made === made) : settled;
}

/** All that has to happen at the moment where the course stands, one after the other. */
function settle(course: Course): Outcome<undefined, SimulateCode> {
  for (let turn = 0; turn < MOST_AT_ONCE; turn++) {
    const worked = course.work();
    if (!worked.ok) return worked;
    const due = course.watches().find((watch) => watch.value() <= 0);
    if (!due) return success(undefined);
    const done = course.happen(due);
    if (!done.ok) return done;
  }
  return failure(
    'chatters',
    `${course.t_s.toFixed(1)} s`,
    `At ${course.t_s.toFixed(1)} s one thing sets off another without end; the last: ${course.lastWords()}.`,
  );
}

/** What happens first within a step, and when. */
function firstOf(course: Course, step: Step): { readonly t_s: number; readonly watch: Watch } | undefined {
  const h = step.to_s - step.from_s;
  const watches = course.watches();
  const lookAt = (share: number, needsFlow: boolean): void => {
    const t_s = step.from_s + share * h;
    course.peek(t_s, share === 1 ? step.after : within(step, t_s), needsFlow);
  };
  /** Of each that has happened, the look before it had and the one when it had. */
  const over = new Map<Watch, { low: number; high: number }>();
  LOOKS.forEach((share, look) => {
    // What needs the flow is dear: it is looked at where the step ends.
    const due = watches.filter((watch) => !over.has(watch) && (share === 1 || !watch.needsFlow));
    lookAt(
      share,
      due.some(({ needsFlow }) => needsFlow),
    );
    for (const watch of due)
      if (watch.value() <= 0) over.set(watch, { low: watch.needsFlow ? 0 : (LOOKS[look - 1] ?? 0), high: share });
  });
  let first: { readonly t_s: number; readonly watch: Watch } | undefined;
  for (const [watch, bounds] of over) {
    let { low, high } = bounds;
    for (let n = 0; n < 40 && (high - low) * h > 1e-9 * Math.max(1, step.to_s); n++) {
      const middle = (low + high) / 2;
      lookAt(middle, watch.needsFlow);
      if (watch.value() <= 0) high = middle;
      else low = middle;
    }
    const t_s = step.from_s + high * h;
    if (!first || t_s < first.t_s) first = { t_s, watch };
  }
  return first;
}

/** The rates of a course as things stand, with what error each value of its state may have. */
export function dynamicsOf(course: Course): Dynamics {
  const { rates, slots, y, isTimed } = course;
  const tolerance = new Float64Array(slots.size);
  const nudge = new Float64Array(slots.size);
  let all_kg = 0;
  let all_mol = 0;
  for (const [t, { mass_kg, gas_mol }] of course.most.entries()) {
    all_kg += mass_kg;
    all_mol += gas_mol;
    tolerance[slotOf(t, LIQUID)] = 2e-6 * mass_kg;
    tolerance[slotOf(t, GAS)] = 2e-5 * Math.max(1e-3 * gas_mol, y[slotOf(t, GAS)]!);
    tolerance[slotOf(t, VAPOUR)] = 2e-5 * gas_mol;
    nudge[slotOf(t, LIQUID)] = 1e-8 * mass_kg;
    nudge[slotOf(t, GAS)] = Math.max(1e-8 * y[slotOf(t, GAS)]!, 1e-11 * gas_mol);
    nudge[slotOf(t, VAPOUR)] = 1e-4 * gas_mol;
  }
  const acting = Array.from({ length: 3 * slots.tanks }, (_, n) => n);
  for (let n = acting.length; n < slots.size; n++) tolerance[n] = 1e-5 * Math.max(all_kg, all_mol);
  for (const { gas } of slots.lines.values()) tolerance[gas] = 1e-5 * all_mol;
  tolerance[slots.outside] = tolerance[slots.evaporated] = 1e-4 * all_mol;
  return {
    size: slots.size,
    acting,
    tolerance,
    nudge,
    isTimed,
    rates: (t_s, state, out) => rates.rates(t_s, state, out),
    slopes: (t_s, state, columns, timed) => rates.slopes(t_s, state, columns, timed),
  };
}

/**
 * What comes to a node and what leaves it agree in a network's solution to this flow: over a course it adds up to what
 * nobody can account for, and where hardly anything moves that is more than a millionth of it [m³/s].
 */
const RESOLVED_M3_PER_S = 1e-15;
/** Of no liquid here is a cubic metre much more, nor of air outside [kg/m³, mol/m³]. */
const [LIQUID_KG_PER_M3, AIR_MOL_PER_M3] = [1000, 42];

function balanceOf({ slots, y, scenario }: Course, start: Float64Array): Simulated['unaccounted'] {
  const gone = (n: number): number => y[n]! - start[n]!;
  let [liquid, gas, movedLiquid, movedGas] = [0, 0, 0, 0];
  const book = (n: number, sign: 1 | -1, isGas: boolean): void => {
    if (isGas) {
      gas += sign * gone(n);
      movedGas += Math.abs(gone(n));
    } else {
      liquid += sign * gone(n);
      movedLiquid += Math.abs(gone(n));
    }
  };
  for (let t = 0; t < slots.tanks; t++) {
    book(slotOf(t, LIQUID), 1, false);
    book(slotOf(t, GAS), 1, true);
  }
  for (const n of [...slots.consumers.values(), ...slots.spilt.values()]) book(n, 1, false);
  for (const n of slots.poured) book(n, -1, false);
  for (const line of slots.lines.values()) {
    book(line.liquid, 1, false);
    book(line.gas, 1, true);
  }
  for (const n of [slots.outside, slots.swallowed, slots.blown]) book(n, 1, true);
  book(slots.evaporated, -1, true);
  const resolved_m3 = RESOLVED_M3_PER_S * scenario.duration_s;
  const share = (missing: number, moved: number, most: number, perVolume: number): number =>
    Math.max(0, Math.abs(missing) - resolved_m3 * perVolume) / Math.max(moved, CONSERVED * most);
  const full = start.reduce((sum, each) => sum + Math.abs(each), 0);
  return {
    liquid_ratio: share(liquid, movedLiquid, full, LIQUID_KG_PER_M3),
    gas_ratio: share(gas, movedGas, full, AIR_MOL_PER_M3),
  };
}

function totalsOf(course: Course, start: Float64Array): Totals {
  const { slots, y, scenario } = course;
  const gone = (n: number): number => y[n]! - start[n]!;
  const volume = (id: string, n: number): number => gone(n) / course.density_kgPerM3(id);
  return {
    poured_m3: slots.poured.reduce((sum, n, pour) => sum + volume(scenario.pours[pour]!.port, n), 0),
    burnt_m3: [...slots.consumers].map(([id, n]) => ({ id, volume_m3: volume(id, n) })),
    spilt_m3: [...slots.spilt].flatMap(([id, n]) => (gone(n) > 0 ? [{ id, volume_m3: volume(id, n) }] : [])),
    ventedOut_mol: gone(slots.outside),
    evaporated_mol: gone(slots.evaporated),
  };
}
