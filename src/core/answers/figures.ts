import type { Plan } from '../plan/schema';
import type { Role } from '../units';
import type { Evaluation } from './evaluate';
import { SHOCK_CASES } from './mounts/loads';
import { holds, weakest } from './mounts/mounts';
import { hasNone, NUMBER_KEYS, numbersOf, type NumberKey } from './numbers';

/** A number to compare variants by; undefined where it cannot be had. */
export type ComparedFigure = {
  readonly key: string;
  readonly label: string;
  readonly role: Role;
  readonly value: number | undefined;
  /** Which way is better, where one is. */ readonly better?: 'more' | 'less';
};

const NUMBER_WORDS: Readonly<
  Record<NumberKey, { readonly label: string; readonly role: Role; readonly better: 'more' | 'less' }>
> = {
  holds: { label: 'Holds', role: 'tankVolume', better: 'more' },
  comes: { label: 'May come at once', role: 'tankVolume', better: 'less' },
  usable: { label: 'Usable on the worst slope', role: 'tankVolume', better: 'more' },
  head: { label: 'Head', role: 'run', better: 'more' },
  delivers: { label: 'Delivers', role: 'burn', better: 'more' },
  goes: { label: 'Goes', role: 'trip', better: 'more' },
  backPressure: { label: 'Back-pressure', role: 'pressure', better: 'less' },
  gauge: { label: 'Gauge error, worst', role: 'share', better: 'less' },
};

/** What two systems are compared by: the four numbers, and what they weigh and take to build. */
export function comparedFigures(system: Plan, evaluation: Evaluation): ComparedFigure[] {
  const numbers = numbersOf(system, evaluation);
  const tanks = evaluation.tanks;
  const sum = (of: (tank: Evaluation['tanks'][number]) => number): number =>
    tanks.reduce((total, tank) => total + of(tank), 0);
  return [
    ...NUMBER_KEYS.flatMap((key): ComparedFigure[] => {
      const number = numbers[key];
      // What nothing of the plan has is no figure that it lacks.
      if (!number.ok && hasNone(number.error)) return [];
      const { label, role, better } = NUMBER_WORDS[key];
      const value = number.ok ? (key === 'gauge' ? Math.abs(number.value.value) : number.value.value) : undefined;
      return [{ key, label, role: number.ok ? number.value.role : role, value, better }];
    }),
    ...(tanks.length > 1
      ? [
          {
            key: 'all',
            label: 'All tanks together hold',
            role: 'tankVolume' as const,
            value: sum((tank) => tank.holds_m3),
            better: 'more' as const,
          },
        ]
      : []),
    { key: 'gross', label: 'To the brim', role: 'tankVolume', value: sum((tank) => tank.gross_m3), better: 'more' },
    { key: 'dry', label: 'Metal of the tanks', role: 'mass', value: sum((tank) => tank.dryMass_kg), better: 'less' },
    { key: 'full', label: 'Filled to the limit', role: 'mass', value: sum((tank) => tank.fullMass_kg) },
    { key: 'seams', label: 'Edges to weld or fold', role: 'run', value: sum((tank) => tank.edges_m), better: 'less' },
    {
      key: 'inside',
      label: 'Inside to line',
      role: 'area',
      value: sum((tank) => tank.insideArea_m2 + tank.plateArea_m2),
      better: 'less',
    },
    {
      key: 'outside',
      label: 'Outside to coat',
      role: 'area',
      value: sum((tank) => tank.outsideArea_m2),
      better: 'less',
    },
    {
      key: 'compartment',
      label: 'Largest compartment free to surge',
      role: 'tankVolume',
      value: Math.max(...tanks.map((tank) => tank.inside.largest_m3)),
      better: 'less',
    },
    ...heldFigures(evaluation),
    ...standFigures(system, evaluation),
  ];
}

/** How well what is said to hold the tanks does; of tanks of which nothing is said there is no figure. */
function heldFigures({ mounts }: Evaluation): ComparedFigure[] {
  if (!mounts?.ok) return [];
  const { needed, shells } = mounts.value;
  const mounted = shells.filter((shell) => shell.mounts.length > 0);
  if (mounted.length === 0) return [];
  const factors = mounted.map((shell) =>
    SHOCK_CASES.some((shock) => shell.cases[shock].held === false)
      ? 0
      : holds(shell, needed) === undefined
        ? undefined
        : weakest(shell)?.factor,
  );
  const known = factors.flatMap((factor) => factor ?? []);
  const isLoose = known.includes(0);
  return [
    {
      key: 'hold-factor',
      label: 'What holds it bears, times what is asked',
      role: 'count',
      value: isLoose || known.length === factors.length ? Math.min(...known) : undefined,
      better: 'more',
    },
  ];
}

/** What the tanks do, at worst of how they are filled, to axles and hull. */
function standFigures({ stance }: Pick<Plan, 'stance'>, { stands }: Evaluation): ComparedFigure[] {
  if (!stands?.ok || !stance) return [];
  const { cases } = stands.value;
  const worst = (of: (each: (typeof cases)[number]) => number | undefined): number | undefined => {
    const values = cases.map(of);
    const known = values.flatMap((value) => value ?? []);
    return known.length === values.length && known.length > 0 ? Math.max(...known) : undefined;
  };
  const axles = stance.axles ?? [];
  return [
    ...axles.flatMap(({ id, name, rating_kg }, a): ComparedFigure[] => [
      {
        key: `axle-${id}`,
        label: rating_kg ? `${name}, of what it may bear` : name,
        role: rating_kg ? 'share' : 'load',
        value: worst(({ wheels }) =>
          wheels?.ok && wheels.value.lifts.length === 0
            ? wheels.value.axles[a]!.load_kg / (rating_kg?.value ?? 1)
            : undefined,
        ),
        ...(rating_kg ? { better: 'less' as const } : {}),
      },
    ]),
    ...(stance.hull
      ? ([
          {
            key: 'lists',
            label: 'Lists at most',
            role: 'slope',
            value: worst(({ afloat }) => (afloat?.ok ? Math.abs(afloat.value.portDown_rad) : undefined)),
            better: 'less',
          },
          {
            key: 'trims',
            label: 'Trims at most',
            role: 'slope',
            value: worst(({ afloat }) => (afloat?.ok ? Math.abs(afloat.value.bowDown_rad) : undefined)),
            better: 'less',
          },
          {
            key: 'gm',
            label: 'Metacentric height left',
            role: 'tape',
            value: opposite(worst(({ afloat }) => (afloat?.ok ? -afloat.value.gm_m : undefined))),
            better: 'more',
          },
        ] as const)
      : []),
  ];
}

const opposite = (value: number | undefined): number | undefined => (value === undefined ? undefined : -value);
