import { failure, success, type Outcome } from '../../outcome';
import type { StanceDocument } from '../../plan/schema';
import { springShares, type Aboard, type Spring } from '../../weight';

/** What wheels and a coupling bear. */
export type OnWheels = {
  /** In the order of the plan’s axles [kg]. */
  readonly axles: readonly { readonly load_kg: number; readonly port_kg: number; readonly starboard_kg: number }[];
  readonly hitch_kg: number | undefined;
  readonly total_kg: number;
  /** Where all of it lies, along and across [m]. */
  readonly centre_m: readonly [number, number];
  /** Names of what the rest would have to hold down: no load is right then. */
  readonly lifts: readonly string[];
};

/** A coupling stays at its height: against it wheels are soft. */
const HITCH_RATE = 1e4;
/** Where no rate of any wheel is said only that they are alike matters [N/m]. */
const ANY_RATE_N_PER_M = 1e5;

/** Axles that share their load by a beam, as the springs of their two sides. */
type Bogie = { readonly axles: readonly number[]; readonly port: Spring; readonly starboard: Spring };

function springsOf(stance: StanceDocument): { readonly bogies: readonly Bogie[]; readonly hitch: Spring | undefined } {
  const axles = stance.axles ?? [];
  const rates = axles.flatMap(({ rate_NPerM }) => rate_NPerM?.value ?? []);
  const usual = rates.length > 0 ? rates.reduce((sum, rate) => sum + rate, 0) / rates.length : ANY_RATE_N_PER_M;
  const groups: number[][] = [];
  for (const [a, { sharesWithLast }] of axles.entries())
    if (sharesWithLast && groups.length > 0) groups.at(-1)!.push(a);
    else groups.push([a]);
  const mean = (group: readonly number[], of: (axle: (typeof axles)[number]) => number): number =>
    group.reduce((sum, a) => sum + of(axles[a]!), 0) / group.length;
  const bogies = groups.map((group): Bogie => {
    const [x, half] = [mean(group, ({ x_m }) => x_m.value), mean(group, ({ track_m }) => track_m.value) / 2];
    const rate_NPerM = group.length * mean(group, ({ rate_NPerM }) => rate_NPerM?.value ?? usual);
    const at = (y: number): Spring => ({ at_m: [x, stance.middle_m.value + y], rate_NPerM });
    return { axles: group, port: at(half), starboard: at(-half) };
  });
  const most = Math.max(...bogies.map(({ port }) => port.rate_NPerM));
  return {
    bogies,
    hitch: stance.hitch && { at_m: [stance.hitch.x_m.value, stance.middle_m.value], rate_NPerM: HITCH_RATE * most },
  };
}

/** What each wheel bears: as it was weighed, with its share of what came aboard since. */
export function wheelsOf(stance: StanceDocument, more: readonly Aboard[]): Outcome<OnWheels, 'no-base'> {
  const axles = stance.axles ?? [];
  const { bogies, hitch } = springsOf(stance);
  const springs = [...bogies.flatMap(({ port, starboard }) => [port, starboard]), ...(hitch ? [hitch] : [])];
  const sums = springs.map(() => 0);
  for (const { mass_kg, at_m } of more) {
    const shares = springShares(springs, [at_m[0], at_m[1]]);
    if (!shares)
      return failure('no-base', 'stance', 'Its wheels stand on one line: say where another axle or its coupling is.');
    for (const [i, share] of shares.entries()) sums[i]! += mass_kg * share;
  }
  const loads = axles.map(({ load_kg, portLoad_kg }, a) => {
    const b = bogies.findIndex((bogie) => bogie.axles.includes(a));
    const count = bogies[b]!.axles.length;
    const onPort = portLoad_kg?.value ?? load_kg.value / 2;
    const port_kg = onPort + sums[2 * b]! / count;
    const starboard_kg = load_kg.value - onPort + sums[2 * b + 1]! / count;
    return { load_kg: port_kg + starboard_kg, port_kg, starboard_kg };
  });
  const hitch_kg = stance.hitch && stance.hitch.load_kg.value + sums.at(-1)!;
  const total_kg = loads.reduce((sum, { load_kg }) => sum + load_kg, 0) + (hitch_kg ?? 0);
  if (!(total_kg > 0)) return failure('no-base', 'stance', 'As weighed, with the tanks, it weighs nothing.');
  const middle = stance.middle_m.value;
  const along =
    loads.reduce((sum, { load_kg }, a) => sum + load_kg * axles[a]!.x_m.value, 0) +
    (hitch_kg ?? 0) * (stance.hitch?.x_m.value ?? 0);
  const across = loads.reduce(
    (sum, { port_kg, starboard_kg }, a) => sum + ((port_kg - starboard_kg) * axles[a]!.track_m.value) / 2,
    0,
  );
  return success({
    axles: loads,
    hitch_kg,
    total_kg,
    centre_m: [along / total_kg, middle + across / total_kg],
    lifts: [...axles.flatMap(({ name }, a) => (Math.min(loads[a]!.port_kg, loads[a]!.starboard_kg) < 0 ? [name] : []))],
  });
}
