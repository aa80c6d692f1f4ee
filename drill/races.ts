import { seeded } from '@/core/seeded';
import { crabBoat } from '../bench/largeSystem';
import { filed, served } from '../bench/served';
import type { Drill } from './index';

/**
 * Three pages save over the same revision at once: one is answered that it did, the others that they did not, and the
 * data is the first one's.
 */
export const races: Drill = {
  name: 'races',
  run: (share, seed) =>
    served(async ({ url }) => {
      const chance = seeded(seed + 3);
      const boat = crabBoat();
      const id = await filed(url, boat);
      const tally = { races: 0, none: 0, several: 0, another: 0, odd: 0 };
      for (let from = 1; from <= 1000 * share; from++) {
        const answers = await Promise.all(
          [0, 1, 2].map(async (racer) => {
            await new Promise((resolve) => setTimeout(resolve, 3 * chance.uniform()));
            const answer = await fetch(`${url}/api/systems/${id}`, {
              method: 'PUT',
              headers: { 'content-type': 'application/json', 'if-match': String(from) },
              body: JSON.stringify({ ...boat, description: `race ${from} racer ${racer}` }),
            });
            await answer.arrayBuffer();
            return answer.status;
          }),
        );
        const winners = answers.flatMap((status, racer) => (status === 200 ? [racer] : []));
        const there = (await (await fetch(`${url}/api/systems/${id}`)).json()) as {
          revision: number;
          document: { description: string };
        };
        tally.races++;
        tally.none += Number(winners.length === 0);
        tally.several += Number(winners.length > 1);
        tally.another += Number(
          winners.length === 1 &&
            (there.document.description !== `race ${from} racer ${winners[0]!}` || there.revision !== from + 1),
        );
        tally.odd += answers.filter((status) => status !== 200 && status !== 409).length;
      }
      return {
        figures: `${tally.races} races of three: ${tally.none} without a winner, ${tally.several} with several, ${tally.another} with another’s data, ${tally.odd} other answers`,
        passed: tally.none + tally.several + tally.another + tally.odd === 0,
      };
    }),
};
