import { runsOf, type Circuits } from '../../plan/circuits';
import { joiningRun, transferPickup, type SecondTank } from '../../plan/jobs';
import type { PlanAt } from '../../plan/schema';
import type { Scenario } from '../../plan/schemaScenario';

/** What is moved into begins with so little. */
export const RECEIVES_RATIO = 0.2;

export type TransferSchool = SecondTank['by'];

/** How one part or opening has to stand while it is moved, and when it is not. */
export type Stand = { readonly id: string; readonly name: string; readonly moving: string; readonly resting: string };

/**
 * Pairs of tanks that are joined, or may be: from one that has a pickup, which feeds nothing else, to one that holds
 * the same. Those that are come first.
 */
export function joinablePairs(system: PlanAt): readonly (readonly [s: number, t: number])[] {
  const runs = runsOf(system);
  const pairs = system.tanks.flatMap((from, s) =>
    system.tanks.flatMap((to, t) => {
      const pickup = s === t || from.fluid !== to.fluid ? undefined : transferPickup(system, s, t)?.id;
      const isFree = pickup !== undefined && !runs.some(({ steps }) => steps[0]?.id === pickup);
      return pickup !== undefined && (isFree || joiningRun(system, pickup, t)) ? [[s, t] as const] : [];
    }),
  );
  const isJoined = ([s, t]: readonly [number, number]): boolean => joinedBy(system, s, t) !== undefined;
  return [...pairs].sort((a, b) => Number(isJoined(b)) - Number(isJoined(a)));
}

/** The run by which two tanks are joined now; undefined where they are not. */
export const joinedRun = (system: Circuits, s: number, t: number): ReturnType<typeof joiningRun> => {
  const pickup = transferPickup(system, s, t)?.id;
  return pickup === undefined ? undefined : joiningRun(system, pickup, t);
};

/** How two tanks are joined now; undefined where they are not. */
export function joinedBy(system: PlanAt, s: number, t: number): TransferSchool | undefined {
  const now = joinedRun(system, s, t);
  if (!now) return undefined;
  if (now.selector !== undefined) return 'selector';
  const pumps = new Set(system.components.flatMap(({ id, kind }) => (kind === 'pump' ? [id] : [])));
  if (now.run.steps.some(({ id }) => pumps.has(id))) return 'pump';
  return system.practice.transferBy === 'vacuum' ? 'vacuum' : 'gravity';
}

/** Parts between the two tanks, from the pickup of the one on. */
export function partsBetween(system: Circuits, s: number, t: number): Circuits['components'] {
  const now = joinedRun(system, s, t);
  return system.components.filter(({ id }) => now?.run.steps.some((step) => step.id === id));
}

/** What is set to move it: valves open, couplers joined, pumps on, a selector on the tank that it comes from. */
export const movingSets = (system: Circuits, s: number, t: number): Scenario['sets'] =>
  partsBetween(system, s, t).flatMap(({ id, kind }): Scenario['sets'] => {
    if (kind === 'valve' || kind === 'coupler' || kind === 'pump') return [{ at_s: 0, part: id, on: true }];
    return kind === 'selector' ? [{ at_s: 0, part: id, position: 'side-out' }] : [];
  });

/** How valves, pumps, vents and caps have to stand while it is moved by a school, and when it is not. */
export function standsFor(system: PlanAt, s: number, t: number, by: TransferSchool): Stand[] {
  const [from, to] = [system.tanks[s]!, system.tanks[t]!];
  const parts = partsBetween(system, s, t).flatMap(({ id, name, kind }): Stand[] => {
    switch (kind) {
      case 'valve':
        return [{ id, name, moving: 'open', resting: 'SHUT' }];
      case 'coupler':
        return [{ id, name, moving: 'joined', resting: 'parted' }];
      case 'pump':
        return [{ id, name, moving: 'running', resting: 'OFF' }];
      case 'selector':
        return [{ id, name, moving: `on ${from.name}`, resting: `on ${to.name}` }];
      default:
        return [];
    }
  });
  const openings = (tank: typeof from, moving: string): Stand[] =>
    tank.ports.flatMap(({ id, name, role }): Stand[] => {
      if (role === 'vent') return [{ id, name: `${name}, ${tank.name}`, moving, resting: 'open' }];
      if (role !== 'filler' || moving !== 'SHUT') return [];
      return [{ id, name: `Cap of ${name}, ${tank.name}`, moving: 'ON, tight', resting: 'on' }];
    });
  return [...parts, ...openings(from, 'open'), ...openings(to, by === 'vacuum' ? 'SHUT' : 'open')];
}
