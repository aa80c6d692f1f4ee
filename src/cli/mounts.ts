import {
  holds,
  layoutsFor,
  mountList,
  mountChangesOf,
  mountsOf,
  SHOCK_CASES,
  type MountsOf,
  type WorstUse,
} from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { UsageError } from './args';
import { failed, type Verb } from './verb';

export const mounts: Verb = {
  name: 'mounts',
  summary: 'what holds each tank when it is thrown each way, what of it gives first, and what mends it',
  prints:
    'needed (times what is asked); shells[]: tanks, mass_kg, centre_m, holds (null where not known), cases by direction (held, gives_N by mount, creeps, letGo; or goes; or why), parts[] weakest first (mount, part, when, demand_N, capacity_N, factor), swings (full[] and empty[]: way, frequency_Hz; settles_m), pressed by tank (sides[]: side, shock, peak_Pa, force_N; baffles[]: id, shock, pressure_Pa, force_N), undescribed, astray, changes[]; list (stock[], pads[], bolts[] to buy and cut); with --layouts a layout of each school: mounts, holds, factor, fouls (what has no room; null where nothing is said of the space), unreached (of which no tool gets to every bolt; null where not known)',
  options: { layouts: 'layouts of the schools for every tank, sized to hold (yes)' },
  needs: 'nothing',
  run: (system, options) => {
    const result = mountsOf(system);
    if (!result.ok) throw new UsageError(`${result.error.at}: ${result.error.detail}`);
    const { needed, shells } = result.value;
    return {
      system: system.name,
      needed,
      shells: shells.map((shell) => shellOf(system, shell, needed)),
      list: mountList(
        system.mounts,
        Object.assign({}, ...shells.map(({ strapWays_m }) => strapWays_m)) as Record<number, number>,
      ),
      ...(options.layouts === undefined
        ? {}
        : {
            layouts: system.tanks.map((tank, t) => {
              const found = layoutsFor(system, t);
              return {
                tank: tank.id,
                ways: found.ok
                  ? found.value.map((layout) => ({
                      school: layout.school,
                      holds: layout.holds ?? null,
                      factor: layout.weakest?.factor ?? null,
                      fouls: layout.fouls ?? null,
                      unreached: layout.unreached ?? null,
                      mounts: layout.mounts,
                    }))
                  : failed(found.error),
              };
            }),
          }),
    };
  },
};

function shellOf(system: SystemDocument, shell: MountsOf, needed: number) {
  const idOf = (m: number): string => system.mounts[m]!.id;
  const partOf = ({ mount, part, shock, demand_N, capacity_N, factor }: WorstUse) => ({
    mount: idOf(mount),
    part,
    when: shock,
    demand_N,
    capacity_N: capacity_N ?? null,
    factor: factor ?? null,
  });
  const changes = mountChangesOf(system, shell.tanks[0]!);
  return {
    tanks: shell.tanks.map((t) => system.tanks[t]!.id),
    mass_kg: shell.load.mass_kg,
    centre_m: shell.load.centre_m,
    holds: holds(shell, needed) ?? null,
    cases: Object.fromEntries(
      SHOCK_CASES.map((shock) => {
        const held = shell.cases[shock];
        if (held.held === undefined) return [shock, { held: null, why: held.why }];
        if (!held.held) return [shock, held];
        return [
          shock,
          {
            held: true,
            gives_N: Object.fromEntries(Object.entries(held.gives_N).map(([m, force]) => [idOf(Number(m)), force])),
            creeps: held.creeps ?? null,
            letGo: held.letGo.map(idOf),
          },
        ];
      }),
    ),
    parts: shell.parts.map(partOf),
    swings: shell.swings.ok ? shell.swings.value : failed(shell.swings.error),
    pressed: Object.fromEntries(shell.tanks.map((t, i) => [system.tanks[t]!.id, shell.pressed[i] ?? null])),
    undescribed: shell.undescribed.map(idOf),
    astray: shell.astray.map(({ mount, why }) => ({ mount: idOf(mount), why })),
    changes: changes.ok
      ? changes.value.map(({ kind, to, changed, weakest }) => ({
          kind,
          to,
          mounts: changed.map(idOf),
          weakestThen: weakest ? partOf(weakest) : null,
        }))
      : failed(changes.error),
  };
}
