import { hasReach, hasSpace, type Evaluation } from '../answers';
import type { Plan } from '../plan/schema';
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
  range: ({ evaluation: { range } }) => (range ? failed(range) : later('the range is')),
};

/** What a rule with these needs lacks; undefined where it lacks nothing. */
export const lacking = (needs: readonly Need[] | undefined, partly: Partly): string | undefined =>
  needs?.map((need) => LACKS[need](partly)).find((each) => each !== undefined);
