import { ALLOYS } from '../reference/alloys';
import { compatibilityOf } from '../reference/compatibility';
import type { Plan } from '../plan/schema';
import { say, when, type Hit, type Rule } from './rule';

type Tank = Plan['tanks'][number];
const isLined = ({ inside = [] }: Tank): boolean =>
  inside.some(({ material }) => compatibilityOf(material).group === 'liner');

/** What each way of holding fuel at the pickup is, of a tank as it is planned. */
const HAS: Readonly<Record<NonNullable<Plan['practice']['surge']>, (tank: Tank) => boolean>> = {
  baffles: ({ plates }) => plates.length > 0,
  foam: ({ foam_ratio, inside = [] }) =>
    foam_ratio !== undefined || inside.some(({ material }) => compatibilityOf(material).group === 'foam'),
  'trap-door': ({ plates }) => plates.some(({ flap }) => flap !== undefined),
};
const SURGE_WORDS = { baffles: 'baffles', foam: 'foam', 'trap-door': 'a trap door' } as const;
/** Flush with its sheet a weld has no more than the sheet: from here on that is little [m]. Common practice. */
const DRESSED_M = 0.0025;

/** Where builders disagree about the tank itself, and one school was chosen: a plan that is not as it says. */
export const SCHOOL_RULES: readonly Rule[] = [
  {
    id: 'inside.surge-unlike-plan',
    title: 'Held at the pickup otherwise than chosen',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) => {
      const { surge } = system.practice;
      return surge === undefined
        ? []
        : system.tanks.flatMap((tank): Hit[] =>
            when(tank.pickups.length > 0 && !HAS[surge](tank), () => ({
              what: say(`Fuel was to be held by ${SURGE_WORDS[surge]}, and ${tank.name} has none.`),
              path: ['practice', 'surge'],
            })),
          );
    },
    why: 'What was chosen is not in the plan, and the numbers do not count it.',
    mend: 'Plan it at Tank, or choose another school; Variants set them side by side.',
    source: 'your own choice',
    status: 'common practice',
  },
  {
    id: 'tank.lining-unlike-plan',
    title: 'Lined or bare, otherwise than chosen',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) => {
      const { lining } = system.practice;
      return lining === undefined
        ? []
        : system.tanks.flatMap((tank): Hit[] =>
            when((lining === 'lined') !== isLined(tank), () => ({
              what: say(
                lining === 'lined'
                  ? `${tank.name} was to be lined, and no liner is named in it.`
                  : `${tank.name} was to be bare, and a liner is named in it.`,
              ),
              path: ['practice', 'lining'],
            })),
          );
    },
    why: 'A liner changes what touches the fuel, what must be cleaned before, and how long it cures.',
    mend: 'Name the liner at Fuel contact, or take it out there.',
    source: 'your own choice',
    status: 'common practice',
  },
  {
    id: 'tank.dressed-thin',
    title: 'Welds dressed flush in thin sheet',
    stage: 'tank',
    severity: 'warn',
    test: ({ system }) =>
      system.practice.welds !== 'dressed'
        ? []
        : system.tanks.flatMap((tank, t): Hit[] =>
            when(ALLOYS[tank.material.alloy].isMetal && tank.material.thickness_m.value < DRESSED_M, () => ({
              what: say(`The welds of ${tank.name} are to be dressed flush, and its sheet is {thickness}.`, {
                thickness: { value: tank.material.thickness_m.value, role: 'thickness' },
              }),
              path: ['tanks', t, 'material', 'thickness_m'],
            })),
          ),
    why: 'Ground flush a weld keeps no more than the sheet, and a slip of the disc less; pores that the bead covered open.',
    mend: 'Leave welds proud but where something lies against them, or thicker sheet; test it after dressing.',
    source: 'common practice',
    status: 'common practice',
  },
];
