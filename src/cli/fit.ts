import {
  checkedWay,
  fitOf,
  foundWay,
  largestTanks,
  MANY_SAMPLES,
  orderOut,
  partChoices,
  reachOf,
  cutObstacles,
  obstacleTemplates,
  templatesOf,
} from '@/core/answers';
import type { WayOut } from '@/core/answers';
import { countFrom, numberFrom, UsageError } from './args';
import { failed, type Verb } from './verb';

const SEED = 1;

const wayOf = ({ moves, check, samples: looks }: WayOut) => ({
  moves: moves.map(({ shift_m, turn_rad }, i) => ({
    shift_m,
    turn_rad,
    tightest_m: check.steps[i]!.tightest_m,
    tightestTo: check.steps[i]!.tightestTo,
  })),
  tightest_m: check.tightest_m,
  tightestTo: check.tightestTo,
  looks,
});

export const fit: Verb = {
  name: 'fit',
  summary: 'clearances of the tanks to everything in their space; ways in and out',
  prints:
    'bay: corners_m, fitted_m and contradictions of the measurements; tanks[]: gaps[] (distance_m, keep_m, worst_m, spread_m, where and at which position of the moving part), chanceClear, chanceKept; mounts[]: how near each comes to what (distance_m, keep_m; as measured); bare[]: wall that something is thrown at (reached_m2) and the share behind no guard; with --largest how big a tank could be; with --reach what tools get to; with --templates faces; with --part ways',
  options: {
    part: 'id of a part that is to come out: its kept way is checked, or one is found',
    order: 'with --part: also the order in which parts come out (yes)',
    seed: `of the search for a way; ${SEED} where it is left out`,
    samples: `for how many positions a way is looked for; ${MANY_SAMPLES} where it is left out`,
    reach: 'whether hands and tools get to every port and named place (yes)',
    templates:
      'outlines of every flat face of every tank and of what stands in the space, with the lengths to check (yes)',
    largest: 'the largest box and prism that the space takes (yes)',
  },
  needs: 'nothing',
  run: (system, options) => {
    const result = fitOf(system);
    if (!result.ok) throw new UsageError(`${result.error.at}: ${result.error.detail}`);
    const largest = options.largest === undefined ? undefined : largestTanks(system);
    const reach = options.reach === undefined ? undefined : reachOf(system);
    const templates =
      options.templates === undefined
        ? undefined
        : [
            ...system.tanks.map((tank, t) => ({ tank: tank.id, faces: templatesOf(system, t) })),
            ...cutObstacles(system).map((each) => ({ obstacle: each.id, faces: obstacleTemplates(system, each) })),
          ];
    return {
      system: system.name,
      ...result.value,
      ...(reach
        ? {
            reach: reach.ok
              ? reach.value.map(({ at, ...answer }) => ({
                  ...answer,
                  ...(at ? { tool: at.key, arc_deg: at.arc_deg } : {}),
                }))
              : failed(reach.error),
          }
        : {}),
      ...(templates
        ? {
            templates: templates.map(({ faces, ...of }) => ({
              ...of,
              faces: faces.ok ? faces.value : failed(faces.error),
            })),
          }
        : {}),
      ...(largest ? { largest: largest.ok ? largest.value : failed(largest.error) } : {}),
      ...(options.part === undefined ? {} : { part: waysOf(system, options.part, options) }),
    };
  },
};

function waysOf(system: Parameters<Verb['run']>[0], id: string, options: Readonly<Record<string, string | undefined>>) {
  if (!partChoices(system).some((part) => part.id === id))
    throw new UsageError(
      `There is no part "${id}" that comes out; there is ${partChoices(system)
        .map((part) => part.id)
        .join(', ')}.`,
    );
  const search = {
    seed: options.seed === undefined ? SEED : numberFrom('--seed', options.seed),
    mostSamples: options.samples === undefined ? MANY_SAMPLES : countFrom('--looks', options.samples),
  };
  const kept = system.fit.removals.find(({ part }) => part === id);
  const checked = kept && checkedWay(system, id, kept.steps);
  const found = checked ? undefined : foundWay(system, id, search);
  const order =
    options.order === undefined
      ? undefined
      : orderOut(system, id, { ...search, mostSamples: Math.ceil(MANY_SAMPLES / 4) });
  return {
    id,
    ...(checked
      ? {
          kept: checked.ok
            ? {
                isOut: checked.value.isOut,
                tightest_m: checked.value.tightest_m,
                tightestTo: checked.value.tightestTo,
                blockedAt: checked.value.blockedAt ?? null,
                blockedBy: checked.value.steps.at(-1)?.blocked?.by ?? null,
              }
            : failed(checked.error),
        }
      : {}),
    ...(found
      ? {
          found: !found.ok
            ? failed(found.error)
            : found.value.way.ok
              ? wayOf(found.value.way.value)
              : {
                  ...failed(found.value.way.error),
                  openings: found.value.openings.map(({ id: by, name, removable, inTheWay_m }) => ({
                    id: by,
                    name,
                    removable,
                    inTheWay_m,
                  })),
                },
        }
      : {}),
    ...(order
      ? {
          order: order.ok
            ? order.value.map(({ id: out, name, way }) => ({ id: out, name, ...wayOf(way) }))
            : failed(order.error),
        }
      : {}),
  };
}
