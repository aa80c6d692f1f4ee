import type { MountGap } from '../answers';
import type { Plan } from '../plan/schema';
import { say, type FitRuleContext, type Hit, type Rule as AnyRule } from './rule';

type Rule = AnyRule<FitRuleContext>;

/** Less than this of an overlap is rounding and rubber [m]. */
const TOUCH_M = 5e-4;

/** A mount by its name, and its tank’s where there are several. */
function calledIn({ tanks, mounts }: Plan, { mount, mountName }: MountGap): string {
  const of = mounts.find(({ id }) => id === mount)?.tank;
  return tanks.length > 1 ? `${mountName} of ${tanks.find(({ id }) => id === of)?.name}` : mountName;
}

/** A hit for each place where a mount answers to a test. */
const mountsThat =
  (test: (gap: MountGap) => boolean, what: (gap: MountGap, name: string) => string) =>
  ({ system, evaluation }: FitRuleContext): Hit[] =>
    (evaluation.fit?.ok ? evaluation.fit.value.mounts : [])
      .filter(test)
      .map((gap) => ({
        what: say(what(gap, calledIn(system, gap)), {
          gap: { value: Math.abs(gap.distance_m), role: 'tape' },
          keep: { value: gap.keep_m, role: 'tape' },
        }),
        path: ['mounts', system.mounts.findIndex(({ id }) => id === gap.mount)],
      }));

/** Whether what holds and guards the tanks has room. */
export const MOUNT_FIT_RULES: readonly Rule[] = [
  {
    id: 'mount.fouls',
    title: 'What holds it does not fit',
    stage: 'mounts',
    severity: 'stop',
    needs: ['fit', 'mounts-there', 'mounts-said'],
    test: mountsThat(
      (gap) => gap.distance_m < -TOUCH_M,
      (gap, name) => `${name} and ${gap.name} overlap: it takes {gap} to part them.`,
    ),
    why: 'A bearer or a stop takes room too: the tank stands higher or further off than it was drawn.',
    mend: 'Raise or move the tank by so much, take a thinner mount, or move it along to where there is room.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'mount.near',
    title: 'What holds it is too near to what moves or is hot',
    stage: 'mounts',
    severity: 'warn',
    needs: ['fit', 'mounts-there', 'mounts-said'],
    test: mountsThat(
      (gap) => gap.distance_m >= -TOUCH_M && gap.distance_m < gap.keep_m - TOUCH_M,
      (gap, name) => `${name} comes within {gap} of ${gap.name}; {keep} are to be kept.`,
    ),
    why: 'What moves strikes it, and heat softens its pad and the hose beside it.',
    mend: 'Move the mount along the tank, or shorten what stands out.',
    source: 'common practice',
    status: 'common practice',
  },
];
