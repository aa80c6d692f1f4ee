import { DRIVING } from '../plan/jobs/needs';
import { say, when, type Hit, type Rule } from './rule';

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
    id: 'range.timed-over-full',
    title: 'Burned more than it can',
    stage: 'range',
    severity: 'note',
    test: ({ system }) => {
      const [consumer] = system.consumers;
      return (system.vehicle.cruise ?? []).flatMap((row, i): Hit[] =>
        when(consumer !== undefined && row.burn_m3PerS.value > consumer.burnFull_m3PerS.value, () => ({
          what: say(`At ${row.name} it was timed at {timed}; at full load it burns {full}.`, {
            timed: { value: row.burn_m3PerS.value, role: 'burn' },
            full: { value: consumer!.burnFull_m3PerS.value, role: 'burn' },
          }),
          path: ['vehicle', 'cruise', i, 'burn_m3PerS'],
        })),
      );
    },
    why: 'One of the two is wrong, and the range with it.',
    mend: 'Time it again, or correct what it burns at full load.',
    source: 'the two against each other',
    status: 'derived',
  },
  {
    id: 'range.no-reserve',
    title: 'No reserve kept',
    stage: 'range',
    severity: 'warn',
    test: ({ system }) =>
      // What fills cans, feeds a stove or stands on a bench leaves nobody out at sea.
      when(
        DRIVING.has(system.consumers[0]?.kind ?? 'nozzle') &&
          system.vehicle.kind !== 'bench' &&
          system.wishes.reserve_ratio.value < 0.1,
        () => ({
          what: say('The plan keeps {reserve} of the usable fuel in hand.', {
            reserve: { value: system.wishes.reserve_ratio.value, role: 'share' },
          }),
          path: ['wishes', 'reserve_ratio'],
        }),
      ),
    why: 'Head wind, heavy going and a gauge that lies all eat the last tenth.',
    mend: 'Keep a fifth on land; a third of all is the old rule at sea.',
    source: 'common practice',
    status: 'common practice',
  },
];
