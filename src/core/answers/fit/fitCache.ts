import type { FitCode } from '../../model/compileFit';
import type { MountDocument, SpacePlan } from '../../plan/schema';
import { chosen } from '../../schema/known';
import { memoized, memoizedSteps } from '../../memo';
import type { Outcome } from '../../outcome';
import { allSteps, type Steps } from '../../steps';
import { fitSteps, type FitResult } from './fit';
import { reachOf, type ReachAnswer } from './reach';

export type FitOutcome = Outcome<FitResult, FitCode>;
export type ReachOutcome = Outcome<readonly ReachAnswer[], FitCode>;

/** Whether anything is said of the space round the tanks. */
export const hasSpace = ({ fit: { bay, obstacles } }: Pick<SpacePlan, 'fit'>): boolean =>
  bay.kind !== 'none' || obstacles.length > 0;
/**
 * Whether there is anything to reach past: a space, a place that is named, bolts of mounts, or parts whose hexagons
 * are known beside each other.
 */
export const hasReach = (system: Pick<SpacePlan, 'fit' | 'tanks' | 'mounts'>): boolean =>
  hasSpace(system) ||
  system.fit.spots.length > 0 ||
  system.mounts.some(({ made }) => made !== undefined) ||
  system.tanks.some(({ ports }) => ports.some(({ part }) => part !== undefined));

/** Of tanks as they stand in their space: nothing that hangs in them or is told of them. */
const outside = ({ tanks, mounts, ...rest }: SpacePlan): SpacePlan => ({
  ...rest,
  mounts: mounts.map(shapeOf),
  tanks: tanks.map((tank) => ({ ...tank, senders: [], sightTubes: [], dipsticks: [], calibrations: [], built: [] })),
});

/** A mount as it takes up room: what it is made of and how hard its bolts are makes it no larger. */
function shapeOf(mount: MountDocument): MountDocument {
  if (!mount.made) return mount;
  const { made } = mount;
  const same = {
    stock: 'mild-steel',
    ...('tension_N' in made ? { tension_N: chosen(0) } : {}),
    ...('bolts' in made && made.bolts ? { bolts: { ...made.bolts, class: '8.8', held: 'nut' } } : {}),
    ...('bears' in made ? { bears: { ...made.bears, stock: 'mild-steel' } } : {}),
    ...('weld' in made ? { weld: undefined } : {}),
    ...('pad' in made ? { pad: { ...made.pad, of: 'rubber', own: undefined } } : {}),
  };
  return { ...mount, made: { ...made, ...same } } as MountDocument;
}

const fitIn = memoizedSteps('fit', fitSteps, 2);
const reachIn = memoized('reach of hands and tools', reachOf, 2);

/** The fit of a system; undefined where nothing is said of the space. */
export const fitFor = (system: SpacePlan): FitOutcome | undefined => allSteps(fitForSteps(system));

/** The same in steps. */
export function* fitForSteps({ fit, tanks, mounts, lines }: SpacePlan): Steps<FitOutcome | undefined> {
  if (!hasSpace({ fit })) return undefined;
  return yield* fitIn(outside({ fit: { ...fit, removals: [], spots: [] }, tanks, mounts, lines }));
}

/** What hands and tools get to; undefined where there is nothing to reach past. */
export const reachFor = ({ fit, tanks, mounts, lines }: SpacePlan): ReachOutcome | undefined =>
  hasReach({ fit, tanks, mounts })
    ? reachIn(outside({ fit: { ...fit, removals: [] }, tanks, mounts, lines }))
    : undefined;
