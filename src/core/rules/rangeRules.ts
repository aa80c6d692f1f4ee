import { say, when, type Rule } from './rule';

export const RANGE_RULES: readonly Rule[] = [
  {
    id: 'range.shorter-than-wished',
    title: 'Runs shorter than asked for',
    stage: 'range',
    severity: 'warn',
    needs: ['range'],
    test: ({ system, evaluation }) => {
      const wish = system.wishes.endurance_s;
      const { range } = evaluation;
      if (!wish || !range.ok) return [];
      return when(range.value.endurance_s < wish.value, () => ({
        what: say('It runs for {runs} at this duty; you asked for {wish}.', {
          runs: { value: range.value.endurance_s, role: 'duration' },
          wish: { value: wish.value, role: 'duration' },
        }),
        path: ['wishes', 'endurance_s'],
      }));
    },
    why: 'Usable fuel, less the reserve, is used up sooner than planned.',
    mend: 'Carry more, lose less on slopes, or plan a lower duty.',
    source: 'your own wish',
    status: 'common practice',
  },
  {
    id: 'range.no-reserve',
    title: 'No reserve kept',
    stage: 'range',
    severity: 'warn',
    test: ({ system }) =>
      when(system.wishes.reserve_ratio.value < 0.1, () => ({
        what: say('The plan keeps {reserve} of the usable fuel in hand.', {
          reserve: { value: system.wishes.reserve_ratio.value, role: 'share' },
        }),
        path: ['wishes', 'reserve_ratio'],
      })),
    why: 'Head wind, heavy going and a gauge that lies all eat the last tenth.',
    mend: 'Keep a fifth on land; a third of all is the old rule at sea.',
    source: 'common practice',
    status: 'common practice',
  },
];
