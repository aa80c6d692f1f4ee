import { faceSheets, pickupCuts } from '@/core/answers';
import { failed, type Verb } from './verb';

export const ports: Verb = {
  name: 'ports',
  summary: 'faces as sheets with their holes, what will not do, pickups cut and reserves',
  prints:
    'tanks[]: faces[] (name, kind, ports[] with at_m, hole_m, fromEdges[], plan, tap, checks[]), pickups[] (cut_m, shortest_m, longest_m, lowestEnd_m, highestEnd_m, near[]); reserves[]',
  needs: 'lines',
  run: (system, { tanks, reserves }) => ({
    system: system.name,
    tanks: system.tanks.map((tank, t) => {
      const faces = faceSheets(system, t);
      const cuts = pickupCuts(system, t);
      return {
        id: tank.id,
        faces: faces.ok
          ? faces.value.map(({ name, kind, width_m, height_m, loops, baffles, over, ports: holes }) => ({
              name,
              kind,
              width_m,
              height_m,
              loops,
              baffles,
              over,
              ports: holes,
            }))
          : failed(faces.error),
        pickups: cuts.ok
          ? tanks[t]!.pickups.map(({ id, plan }) => ({
              id,
              ...cuts.value.find((cut) => cut.id === id),
              near: plan?.near ?? [],
            }))
          : failed(cuts.error),
      };
    }),
    reserves,
  }),
};
