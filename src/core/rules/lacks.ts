import { hasReach, hasSpace, isTransfer, type Evaluation } from '../answers';
import { fluidAt } from '../plan/circuits';
import { holdsTank } from '../model/compileMounts';
import { shellsIn } from '../plan/divider';
import { fillingsOf } from '../plan/filled';
import type { Plan } from '../plan/schema';
import type { FluidKey } from '../reference/fluids';
import type { Outcome } from '../outcome';
import type { Need } from './rule';

/** As much of an evaluation as there is. */
export type Partly = { readonly system: Plan; readonly evaluation: Partial<Evaluation> };

const later = (what: string): string => `${what} not worked out yet`;
const failed = (outcome: Outcome<unknown> | undefined): string | undefined =>
  outcome && !outcome.ok ? `${outcome.error.at}: ${outcome.error.detail}` : undefined;
const firstFailed = (outcomes: readonly Outcome<unknown>[] | undefined): string | undefined =>
  outcomes?.map(failed).find((each) => each !== undefined);

/** Says of each need what is missing; undefined where it is there. */
const LACKS: Readonly<Record<Need, (partly: Partly) => string | undefined>> = {
  fit: ({ system, evaluation: { fit } }) =>
    hasSpace(system) ? (fit ? failed(fit) : later('clearances are')) : 'nothing is said of the space round the tank',
  // Whether it can be worked out at all: for what says that it cannot.
  'fit-tried': ({ system, evaluation: { fit } }) => (hasSpace(system) && !fit ? later('clearances are') : undefined),
  reach: ({ system, evaluation: { reach } }) =>
    hasReach(system)
      ? reach
        ? failed(reach)
        : later('what hands and tools get to is')
      : 'nothing is said of what stands round the tank',
  sheets: ({ evaluation: { sheets } }) => (sheets ? failed(sheets) : later('the faces are')),
  details: ({ evaluation: { lines } }) => (lines ? undefined : later('drawings and tables are')),
  lines: ({ evaluation: { lines } }) => (lines ? undefined : later('the lines are')),
  circuits: ({ evaluation: { lines } }) => (lines ? lines.circuits.failed : later('the circuits are')),
  duties: ({ evaluation: { flows } }) =>
    flows
      ?.flatMap((flow) =>
        flow.ok
          ? flow.value.duties.flatMap(({ duty, pressure_Pa }) =>
              pressure_Pa === undefined ? `the pressure at ${duty} is not found` : [],
            )
          : [],
      )
      .at(0),
  'last-of-tank': ({ evaluation: { lines } }) =>
    lines?.circuits.lowest
      .flatMap(({ name, delivered_m3PerS }) =>
        delivered_m3PerS === undefined ? `what ${name} gets with the last of the tank is not found` : [],
      )
      .at(0),
  flows: ({ evaluation: { flows } }) => (flows ? firstFailed(flows) : later('the flow is')),
  gauges: ({ evaluation: { gauges } }) => (gauges ? firstFailed(gauges) : later('the gauge is')),
  // Of a nozzle no range is asked.
  range: ({ system, evaluation: { range } }) =>
    isTransfer(system) ? undefined : range ? failed(range) : later('the range is'),
  expelled: ({ evaluation: { expelled } }) =>
    expelled
      ? firstFailed(
          expelled.flatMap(({ comes, pressure, boils }) => [comes, pressure, boils].flatMap((each) => each ?? [])),
        )
      : later('what engines throw out is'),
  'open-ends': ({ system }) =>
    outlets(system)
      .flatMap(({ id, name, place }) =>
        place === undefined && !isHarmless(fluidAt(system, id)) ? `where ${name} ends is not said` : [],
      )
      .at(0),
  screens: ({ system }) =>
    outlets(system)
      .flatMap(({ name, screened }) => (screened === undefined ? `whether ${name} has a screen is not said` : []))
      .at(0),
  filled: ({ system }) =>
    fillingsOf(system)
      .flatMap(({ consumer, receiver }) => (receiver ? [] : `what ${consumer.name} is held into is not in the plan`))
      .at(0),
  spouts: ({ system }) =>
    fillingsOf(system)
      .flatMap(({ consumer, receiver }) =>
        receiver && consumer.nozzle ? [] : `the spout of ${consumer.name}, or what it is held into, is not in the plan`,
      )
      .at(0),
  'backs-up': ({ system }) =>
    fillingsOf(system)
      .flatMap(({ consumer, receiver }) =>
        receiver?.backsUp_m3PerS ? [] : `from what flow backs up what ${consumer.name} is held into is not said`,
      )
      .at(0),
  seals: ({ system }) =>
    system.tanks
      .flatMap(({ name, ports }) => {
        const unsaid = ports.filter(({ seal }) => seal === undefined).length;
        return unsaid > 0 ? `what seals ${unsaid} of the ${ports.length} ports of ${name} is not said` : [];
      })
      .at(0),
  'mounts-there': ({ system }) =>
    shellsIn(system.tanks)
      .flatMap((shell) =>
        system.mounts.some((mount) => holdsTank(mount) && shell.some(({ id }) => id === mount.tank))
          ? []
          : `nothing is said of what holds ${shell.map(({ name }) => name).join(' and ')}`,
      )
      .at(0),
  'mounts-said': ({ system }) =>
    system.mounts.flatMap(({ name, made }) => (made ? [] : `how ${name} is made is not said`)).at(0),
  'mounts-pressed': ({ evaluation: { mounts } }) =>
    mounts
      ? (failed(mounts) ??
        (mounts.ok && mounts.value.shells.some(({ pressed }) => pressed.includes(undefined))
          ? 'where a liquid goes when it is thrown could not be worked out'
          : undefined))
      : later('how the tanks are held is'),
  'mounts-solved': ({ evaluation: { mounts } }) =>
    mounts
      ? (failed(mounts) ??
        (mounts.ok
          ? mounts.value.shells
              .flatMap(({ cases }) => Object.values(cases).flatMap((each) => (each.held === undefined ? each.why : [])))
              .at(0)
          : undefined))
      : later('how the tanks are held is'),
  'mount-parts': ({ system, evaluation: { mounts } }) =>
    mounts?.ok
      ? mounts.value.shells
          .flatMap(({ parts }) =>
            parts.flatMap(({ mount, factor }) =>
              factor === undefined ? `what a part of ${system.mounts[mount]!.name} bears is not known` : [],
            ),
          )
          .at(0)
      : undefined,
  'mount-swings': ({ evaluation: { mounts } }) =>
    mounts?.ok ? firstFailed(mounts.value.shells.map(({ swings }) => swings)) : undefined,
  'axles-said': ({ system }) =>
    isOnLand(system) && (system.stance?.axles ?? []).length === 0
      ? 'nothing is said of what its axles bear'
      : undefined,
  'axle-ratings': ({ system }) =>
    system.stance?.axles
      ?.flatMap(({ name, rating_kg }) => (rating_kg ? [] : `what ${name} may bear is not said`))
      .at(0),
  'hitch-rating': ({ system }) => {
    const { stance, vehicle } = system;
    if (stance?.hitch) return stance.hitch.rating_kg ? undefined : 'what the coupling may bear is not said';
    return vehicle.kind === 'trailer' ? 'nothing is said of its coupling' : undefined;
  },
  'whole-rating': ({ system: { stance } }) =>
    (stance?.axles ?? []).length > 0 && !stance?.rating_kg ? 'what it may weigh in all is not said' : undefined,
  'hull-said': ({ system }) =>
    system.vehicle.kind === 'boat' && !system.stance?.hull ? 'nothing is said of the hull' : undefined,
  'expelled-axles': ({ system, evaluation: { expelled } }) =>
    isOnLand(system) && expelled?.some(({ tank }) => tank) && (system.stance?.axles ?? []).length === 0
      ? 'nothing is said of where its axles are'
      : undefined,
  'transfers-followed': ({ evaluation: { lines } }) =>
    lines?.circuits.transfers
      .flatMap(({ name, ends, leftOn }) =>
        ends === 'failed' || leftOn.ends === 'failed' ? `how ${name} goes on as levels change is not found` : [],
      )
      .at(0),
  'vent-ends': ({ system, evaluation: { lines } }) =>
    system.vehicle.kind === 'boat'
      ? lines?.ventEnds.flatMap(({ name, at_m }) => (at_m ? [] : `where ${name} ends is not in the plan`)).at(0)
      : undefined,
  'stands-solved': ({ evaluation: { stands } }) => {
    if (!stands) return later('what the vehicle stands on is');
    // Whether it had to be said, others say.
    if (!stands.ok) return stands.error.code === 'not-said' ? undefined : failed(stands);
    const lifted = stands.value.cases.find(({ wheels }) => wheels?.ok && wheels.value.lifts.length > 0);
    if (lifted) return 'a wheel lifts off: what the others bear then is not known';
    return firstFailed(
      stands.value.cases.flatMap(({ wheels, tips, afloat }) => [wheels, tips, afloat].flatMap((each) => each ?? [])),
    );
  },
};

const isOnLand = ({ vehicle }: Plan): boolean => vehicle.kind !== 'boat' && vehicle.kind !== 'bench';

/** What does no harm where it runs out: neither fire nor fumes. */
export const isHarmless = (fluid: FluidKey | undefined): boolean =>
  fluid === 'water' || fluid === 'urea' || fluid === 'coolant';

const outlets = ({ components }: Plan) => components.flatMap((part) => (part.kind === 'outlet' ? [part] : []));

/** What a rule with these needs lacks; undefined where it lacks nothing. */
export const lacking = (needs: readonly Need[] | undefined, partly: Partly): string | undefined =>
  needs?.map((need) => LACKS[need](partly)).find((each) => each !== undefined);
