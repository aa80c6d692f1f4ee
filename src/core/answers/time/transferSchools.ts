import { runsOf } from '../../plan/circuits';
import { transferPickup, type SecondTank } from '../../plan/jobs';
import type { PlanAt, SystemDocument } from '../../plan/schema';

export type TransferSchool = SecondTank['by'];

/** How one part or opening has to stand while it is moved, and when it is not. */
export type Stand = { readonly id: string; readonly name: string; readonly moving: string; readonly resting: string };

/** Pairs of tanks that may be joined, those that are first: from one that has a pickup to one that holds the same. */
export function joinablePairs(system: PlanAt): readonly (readonly [s: number, t: number])[] {
  const pairs = system.tanks.flatMap((from, s) =>
    system.tanks.flatMap((to, t) =>
      s !== t && from.fluid === to.fluid && from.pickups.length > 0 ? [[s, t] as const] : [],
    ),
  );
  const isJoined = ([s, t]: readonly [number, number]): boolean => joinedBy(system, s, t) !== undefined;
  return [...pairs].sort((a, b) => Number(isJoined(b)) - Number(isJoined(a)));
}

/** How two tanks are joined now; undefined where they are not. */
export function joinedBy(system: PlanAt, s: number, t: number): TransferSchool | undefined {
  const pickup = transferPickup(system, s, t)?.id;
  const run = runsOf(system).find(({ steps }) => steps[0]?.id === pickup);
  const ends = run?.steps.at(-1)?.id;
  const kinds = new Map(system.components.map(({ id, kind }) => [id, kind]));
  if (run && ends !== undefined && kinds.get(ends) === 'selector') return 'selector';
  if (!run || !system.tanks[t]!.ports.some(({ id }) => id === ends)) return undefined;
  if (run.steps.some(({ id }) => kinds.get(id) === 'pump')) return 'pump';
  return system.practice.transferBy === 'vacuum' ? 'vacuum' : 'gravity';
}

/** Parts between the two tanks, from the pickup of the one on. */
export function partsBetween(system: SystemDocument, s: number, t: number): SystemDocument['components'] {
  const pickup = transferPickup(system, s, t)?.id;
  const run = runsOf(system).find(({ steps }) => steps[0]?.id === pickup);
  return system.components.filter(({ id }) => run?.steps.some((step) => step.id === id));
}

/** How valves, pumps, vents and caps have to stand while it is moved by a school, and when it is not. */
export function standsFor(system: SystemDocument, s: number, t: number, by: TransferSchool): Stand[] {
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
