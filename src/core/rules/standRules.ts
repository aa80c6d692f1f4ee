import { HEEL_SHOWS_RAD, TRIM_SHOWS_RAD, type OnWheels, type StandCase, type Stands } from '../answers';
import { sideText } from '../plan/sides';
import type { Plan } from '../plan/schema';
import { say, type Message } from '../units';
import { type Hit, type Rule as AnyRule, type StandRuleContext } from './rule';

type Rule = AnyRule<StandRuleContext>;

const standsIn = ({ evaluation: { stands } }: StandRuleContext): Stands | undefined =>
  stands?.ok ? stands.value : undefined;

/** With what in the tanks, said after "with". */
export function fillWords(system: Pick<Plan, 'tanks'>, { fill, tanks }: StandCase): string {
  const names = tanks.map((t) => system.tanks[t]!.name).join(' and ');
  if (fill === 'only') return `only ${names} full`;
  const all = tanks.length > 1 ? 'all tanks' : names;
  return fill === 'half' ? `${all} half full` : `${all} ${fill}`;
}

/** What wheels bear in a case, where that is known: all of them on the ground. */
const borneIn = ({ wheels }: StandCase): OnWheels | undefined =>
  wheels?.ok && wheels.value.lifts.length === 0 ? wheels.value : undefined;

/** The worst case by a measure that is over a limit where it is positive; nothing where none is. */
function worst(
  stands: Stands | undefined,
  over: (each: StandCase) => number | undefined,
): { readonly each: StandCase; readonly by: number } | undefined {
  let found: { each: StandCase; by: number } | undefined;
  for (const each of stands?.cases ?? []) {
    const by = over(each);
    if (by !== undefined && by > (found?.by ?? 0)) found = { each, by };
  }
  return found;
}

const plain = (text: string): Message => say(text, {});
const load = (value: number) => ({ value, role: 'load' as const });
/** A hit at something that bears more than it may, in the worst case of all. */
function overHits(
  context: StandRuleContext,
  name: string,
  rating: number,
  path: NonNullable<Hit['path']>,
  of: (on: OnWheels) => number | undefined,
): Hit[] {
  const found = worst(standsIn(context), (each) => {
    const on = borneIn(each);
    const bears = on && of(on);
    return bears === undefined ? undefined : bears - rating;
  });
  if (!found) return [];
  const words = `${name} bears {load} with ${fillWords(context.system, found.each)}; {most} is allowed.`;
  return [{ what: say(words, { load: load(rating + found.by), most: load(rating) }), path }];
}

/** Least metacentric height that a working boat is left with [m]. */
export const LEAST_GM_M = 0.35;
/** Of a trailer’s weight so much presses on its coupling at least and at most. */
export const COUPLING_SHARES = [0.05, 0.15] as const;
/** Of a vehicle’s weight its foremost axle bears so much at least, or it steers poorly. */
export const STEERS_SHARE = 0.2;

const leaning = (
  context: StandRuleContext,
  which: 'bowDown_rad' | 'portDown_rad',
  limit_rad: number,
  words: (isMore: boolean) => string,
): Hit[] => {
  const found = worst(standsIn(context), ({ afloat }) =>
    afloat?.ok ? Math.abs(afloat.value[which]) - limit_rad : undefined,
  );
  if (!found) return [];
  const { afloat } = found.each;
  const angle = afloat?.ok ? afloat.value[which] : 0;
  return [
    {
      what: say(
        sideText(
          context.system.vehicle.kind,
          `With ${fillWords(context.system, found.each)} she lies {angle} down ${words(angle > 0)} of how she was weighed.`,
        ),
        { angle: { value: Math.abs(angle), role: 'slope' } },
      ),
      path: ['tanks', found.each.tanks[0] ?? 0, 'mounting'],
    },
  ];
};

const MOMENTS = 'statics: moments about the axles';
const COMMON = { source: 'common practice', status: 'common practice' } as const;

export const STAND_RULES: readonly Rule[] = [
  {
    id: 'weight.axle-over',
    title: 'An axle bears too much',
    stage: 'mounts',
    severity: 'stop',
    needs: ['axles-said', 'stands-solved', 'axle-ratings'],
    test: (context) =>
      (context.system.stance?.axles ?? []).flatMap(({ name, rating_kg }, a): Hit[] => {
        if (!rating_kg) return [];
        return overHits(context, name, rating_kg.value, ['stance', 'axles', a], ({ axles }) => axles[a]!.load_kg);
      }),
    why: 'Tyres, bearings and brakes are made for no more; on a road it is against the law.',
    mend: 'Move the tank away from that axle, make it smaller, or fill it to less.',
    source: `${MOMENTS}; the rating is its maker’s`,
    status: 'derived',
  },
  {
    id: 'weight.whole-over',
    title: 'The whole vehicle weighs too much',
    stage: 'mounts',
    severity: 'stop',
    needs: ['axles-said', 'stands-solved', 'whole-rating'],
    test: (context) => {
      const rating = context.system.stance?.rating_kg;
      if (!rating) return [];
      return overHits(context, 'It', rating.value, ['stance', 'rating_kg'], ({ total_kg }) => total_kg);
    },
    why: 'It stops later, its tyres run hot, and on a road it is against the law.',
    mend: 'Make the tank smaller, fill it to less, or leave something else at home.',
    source: 'the weights added up; the rating is its maker’s',
    status: 'derived',
  },
  {
    id: 'weight.lifts',
    title: 'A wheel lifts off',
    stage: 'mounts',
    severity: 'stop',
    needs: ['axles-said', 'stands-solved'],
    test: (context) => {
      const found = standsIn(context)?.cases.find(({ wheels }) => wheels?.ok && wheels.value.lifts.length > 0);
      if (!found?.wheels?.ok) return [];
      return [
        {
          what: plain(
            `With ${fillWords(context.system, found)} a wheel of ${found.wheels.value.lifts.join(' and of ')} is lifted off the ground.`,
          ),
          path: ['tanks', found.tanks[0] ?? 0, 'mounting'],
        },
      ];
    },
    why: 'What does not stand on all its wheels neither steers nor brakes.',
    mend: 'Move the tank between the axles, and to the middle.',
    source: MOMENTS,
    status: 'derived',
  },
  {
    id: 'weight.steers-light',
    title: 'Too little weight on the foremost axle',
    stage: 'mounts',
    severity: 'warn',
    needs: ['axles-said', 'stands-solved'],
    test: (context) => {
      const axles = context.system.stance?.axles ?? [];
      if (axles.length < 2 || context.system.stance?.hitch || context.system.vehicle.kind === 'trailer') return [];
      const front = axles.reduce((best, { x_m }, a) => (x_m.value > axles[best]!.x_m.value ? a : best), 0);
      const shareOf = (each: StandCase): number | undefined => {
        const on = borneIn(each);
        return on && on.axles[front]!.load_kg / on.total_kg;
      };
      const found = worst(standsIn(context), (each) => {
        const share = shareOf(each);
        return share === undefined ? undefined : STEERS_SHARE - share;
      });
      if (!found) return [];
      return [
        {
          what: say(
            `With ${fillWords(context.system, found.each)} ${axles[front]!.name} bears {share} of the weight.`,
            { share: { value: STEERS_SHARE - found.by, role: 'share' } },
          ),
          path: ['stance', 'axles', front],
        },
      ];
    },
    why: 'With less than about a fifth of the weight on them, the wheels that steer slide straight on.',
    mend: 'Move the tank forward, or put ballast before that axle.',
    ...COMMON,
  },
  {
    id: 'weight.hitch-over',
    title: 'The coupling bears too much',
    stage: 'mounts',
    severity: 'stop',
    needs: ['axles-said', 'stands-solved', 'hitch-rating'],
    test: (context) => {
      const rating = context.system.stance?.hitch?.rating_kg;
      if (!rating) return [];
      const path = ['stance', 'hitch', 'rating_kg'];
      return overHits(context, 'The coupling', rating.value, path, ({ hitch_kg }) => hitch_kg);
    },
    why: 'It lifts the front wheels of what pulls it, and breaks the ball or its bracket.',
    mend: 'Move the tank aft, towards the axle.',
    source: `${MOMENTS}; the rating is its maker’s`,
    status: 'derived',
  },
  {
    id: 'weight.hitch-share',
    title: 'The coupling bears too little or too much of the trailer',
    stage: 'mounts',
    severity: 'warn',
    needs: ['axles-said', 'stands-solved', 'hitch-rating'],
    test: (context) => {
      const [least, most] = COUPLING_SHARES;
      const shareOf = (each: StandCase): number | undefined => {
        const on = borneIn(each);
        return on?.hitch_kg === undefined ? undefined : on.hitch_kg / on.total_kg;
      };
      const found = worst(standsIn(context), (each) => {
        const share = shareOf(each);
        return share === undefined ? undefined : Math.max(least - share, share - most);
      });
      if (!found) return [];
      const share = shareOf(found.each)!;
      return [
        {
          what: say(
            share < 0
              ? `With ${fillWords(context.system, found.each)} the coupling is pulled up: {share} of the trailer’s weight.`
              : `With ${fillWords(context.system, found.each)} the coupling bears {share} of the trailer’s weight.`,
            { share: { value: Math.abs(share), role: 'share' } },
          ),
          path: ['stance', 'hitch'],
          ...(share < 0 ? { severity: 'stop' as const } : {}),
        },
      ];
    },
    why: 'Below about a twentieth a trailer begins to snake; above about a seventh what pulls it is lifted in front. Schools differ: 4 to 7 % in Europe, 10 to 15 % in North America.',
    mend: 'Put the middle of the tank a little before the axle, so that full and empty both are within that.',
    ...COMMON,
  },
  {
    id: 'weight.heels',
    title: 'The tank makes her list',
    stage: 'mounts',
    severity: 'warn',
    needs: ['hull-said', 'stands-solved'],
    test: (context) =>
      leaning(context, 'portDown_rad', HEEL_SHOWS_RAD, (isPort) => (isPort ? 'to port' : 'to starboard')),
    why: 'A boat that lists rolls further to that side, and everything level in her is not.',
    mend: 'Put the tank on her middle line, a second one on the other side with the same draw, or ballast.',
    ...COMMON,
  },
  {
    id: 'weight.trims',
    title: 'The tank changes her trim',
    stage: 'mounts',
    severity: 'warn',
    needs: ['hull-said', 'stands-solved'],
    test: (context) =>
      leaning(context, 'bowDown_rad', TRIM_SHOWS_RAD, (isBow) => (isBow ? 'by the bow' : 'by the stern')),
    why: 'Bow down she steers badly and ships water; stern down she is slow to plane.',
    mend: 'Put the tank where she floats level: near the middle of her waterplane.',
    ...COMMON,
  },
  {
    id: 'weight.unsteady',
    title: 'She is left too little steadiness',
    stage: 'mounts',
    severity: 'warn',
    needs: ['hull-said', 'stands-solved'],
    test: (context) => {
      const cases = standsIn(context)?.cases ?? [];
      const over = cases.find(
        ({ afloat }) => afloat && !afloat.ok && (afloat.error.code === 'unsteady' || afloat.error.code === 'too-far'),
      );
      if (over?.afloat && !over.afloat.ok)
        return [
          {
            what: plain(`With ${fillWords(context.system, over)}: ${over.afloat.error.detail}`),
            path: ['stance', 'hull'],
            severity: 'stop' as const,
          },
        ];
      const found = worst(standsIn(context), ({ afloat }) => (afloat?.ok ? LEAST_GM_M - afloat.value.gm_m : undefined));
      if (!found) return [];
      return [
        {
          what: say(
            `With ${fillWords(context.system, found.each)} her metacentric height is {gm}, its liquid running free.`,
            { gm: { value: LEAST_GM_M - found.by, role: 'tape' } },
          ),
          path: ['stance', 'hull'],
        },
      ];
    },
    why: 'Liquid that runs to the low side takes steadiness away; a hull that has little rolls slowly, far, and once too far.',
    mend: 'Lower the tank, or divide it lengthwise so that its liquid cannot run across.',
    source: 'IMO code for fishing vessels: 0.35 m at least; small open boats have no such figure, and want more',
    status: 'from memory',
  },
];
