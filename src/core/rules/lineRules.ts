import { feedPath, fluidAt } from '../plan/circuits';
import { flowRole } from '../plan/fields';
import { isElectric } from '../components';
import { feedLines } from '../model/networkParts';
import type { ConsumerDocument, Plan } from '../plan/schema';
import { FLUIDS } from '../reference/fluids';
import { CALM_M_PER_S, COMFORT_RATIO, VAPOUR_MARGIN_PA, type FlowResult } from '../answers';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

const LOW_VOLTAGE_RATIO = 0.9;

const solvedFlows = ({ system, evaluation }: RuleContext) =>
  evaluation.flows.flatMap((flow, c) => (flow.ok ? [{ flow: flow.value, consumer: system.consumers[c]!, c }] : []));

const deliveryOf = (flow: FlowResult) => ({
  needed: { value: flow.needed_m3PerS, role: flowRole(flow.needed_m3PerS) },
  pressure: { value: flow.neededPressure_Pa, role: 'pressure' as const },
  delivered: { value: flow.delivered_m3PerS, role: flowRole(flow.needed_m3PerS) },
});

/** As many times the pressure asked for as a consumer stands; others do not mind. */
const MOST_PRESSURE: Readonly<Partial<Record<ConsumerDocument['kind'], number>>> = {
  'petrol-injection': 1.2,
  'petrol-carburettor': 2,
};

/** Of the tank that the four numbers speak of. */
const fluidOfNumbers = (system: Plan) =>
  (system.consumers[0] && fluidAt(system, system.consumers[0].id)) ?? system.fluids[0]!.fluid;

/** Ids of the lines between the tank and the first pump on a consumer's feed. */
function suctionLines({ system }: RuleContext, consumerId: string): string[] {
  const path = feedPath(system, consumerId);
  const firstPump = path.findLastIndex((id) =>
    system.components.some((part) => part.id === id && part.kind === 'pump'),
  );
  return firstPump < 0 ? [] : path.slice(firstPump + 1).filter((id) => system.lines.some((line) => line.id === id));
}

export const LINE_RULES: readonly Rule[] = [
  {
    id: 'line.cannot-deliver',
    title: 'The feed cannot deliver',
    stage: 'lines',
    severity: 'stop',
    needs: ['flows'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow, consumer, c }): Hit[] =>
        when(flow.margin_ratio < 1, () => ({
          what: say(`${consumer.name} needs {needed} at {pressure} and gets {delivered}.`, deliveryOf(flow)),
          path: ['consumers', c, 'neededFlow_m3PerS'],
        })),
      ),
    why: 'Less than the need, and it loses power or stops.',
    mend: 'Wider or shorter line, fewer elbows, a bigger filter, a stronger pump, or more volts at it.',
    source: 'network solution',
    status: 'derived',
  },
  {
    id: 'line.thin-margin',
    title: 'Little in hand',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow, consumer, c }): Hit[] =>
        when(flow.margin_ratio >= 1 && flow.margin_ratio < COMFORT_RATIO, () => ({
          what: say(
            `${consumer.name} gets {delivered} where {needed} is needed at {pressure}: enough, with less than a fifth over.`,
            deliveryOf(flow),
          ),
          path: ['consumers', c, 'neededFlow_m3PerS'],
        })),
      ),
    why: 'A dirty filter, a tired pump or a cold day takes a fifth.',
    mend: 'Wider or shorter line, fewer elbows, a bigger filter, or a stronger pump.',
    source: 'network solution; a fifth in hand is common practice',
    status: 'common practice',
  },
  {
    id: 'line.too-much-pressure',
    title: 'More pressure than the engine is made for',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows', 'details', 'duties'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow, consumer, c }): Hit[] => {
        const most = MOST_PRESSURE[consumer.kind];
        const stands = Math.max(-Infinity, ...flow.duties.flatMap(({ pressure_Pa }) => pressure_Pa ?? []));
        return when(most !== undefined && flow.neededPressure_Pa > 0 && stands > most * flow.neededPressure_Pa, () => ({
          what: say(
            `${consumer.name} is to have {needed} and stands at up to {stands}${context.system.components.some(({ kind }) => kind === 'regulator') ? '' : ': nothing regulates it'}.`,
            {
              needed: { value: flow.neededPressure_Pa, role: 'pressure' },
              stands: { value: stands, role: 'pressure' },
            },
          ),
          path: ['consumers', c, 'neededPressure_Pa'],
          ...(consumer.kind === 'petrol-injection' ? { severity: 'stop' as const } : {}),
        }));
      }),
    why: 'Injectors give more than the engine counts on and it runs rich; a carburettor’s needle is forced off its seat and floods.',
    mend: 'A regulator: for injection one that lets the rest back to the tank, for a carburettor one that lowers the pressure.',
    source:
      'network solution from idle to full load; a fifth over for injection, twice for a carburettor: common practice',
    status: 'common practice',
  },
  {
    id: 'line.no-flow',
    title: 'No steady flow',
    stage: 'lines',
    severity: 'stop',
    test: ({ evaluation }) =>
      evaluation.flows.flatMap((flow, c): Hit[] =>
        flow.ok ? [] : [{ what: say(flow.error.detail), path: ['consumers', c] }],
      ),
    why: 'With no way for the fuel, or none for the air that must replace it, there is no flow to compute.',
    mend: 'Join the open end, open the valve or the vent, or fill the tank.',
    source: 'network solution',
    status: 'derived',
  },
  {
    id: 'line.vapour-lock',
    title: 'Fuel near boiling on the suction side',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow }): Hit[] =>
        when(flow.suction.margin_Pa < VAPOUR_MARGIN_PA, () => ({
          what: say(`At ${flow.suction.node} only {margin} is left before the fuel boils.`, {
            margin: { value: flow.suction.margin_Pa, role: 'pressure' },
          }),
          path: ['conditions', 'fuelTemperature_K'],
          severity: flow.suction.margin_Pa < 0 ? 'stop' : 'warn',
        })),
      ),
    why: 'Fuel that boils in the line fills the pump with vapour and the feed stops.',
    mend: 'Bring the pump down beside the tank or into it, shorten and widen the suction line, keep it from heat.',
    source: 'vapour pressure of the fuel against absolute pressure in the line; 15 kPa in hand is common practice',
    status: 'common practice',
  },
  {
    id: 'line.lift-too-high',
    title: 'Pump cannot lift that high',
    stage: 'lines',
    severity: 'stop',
    needs: ['flows'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow }) =>
        flow.pumps.flatMap((result): Hit[] => {
          const index = context.system.components.findIndex((part) => part.id === result.id);
          const pump = context.system.components[index]!;
          if (pump.kind !== 'pump') return [];
          return when(result.lift_m > pump.selfPrimingLift_m.value, () => ({
            what: say(`${pump.name} must draw {lift} of fuel; it primes itself to {can}.`, {
              lift: { value: result.lift_m, role: 'run' },
              can: { value: pump.selfPrimingLift_m.value, role: 'run' },
            }),
            path: ['components', index, 'selfPrimingLift_m'],
          }));
        }),
      ),
    why: 'Height and friction together hold the pump below what it can suck; it runs dry and wears out.',
    mend: 'Set the pump lower and nearer the tank.',
    source: 'network solution against the pump’s data',
    status: 'derived',
  },
  {
    id: 'line.fast-suction',
    title: 'Fast flow in the suction line',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows'],
    test: (context) =>
      solvedFlows(context).flatMap(({ flow, consumer }) => {
        const suction = suctionLines(context, consumer.id);
        return flow.links
          .filter((link) => suction.includes(link.id) && (link.velocity_mPerS ?? 0) > CALM_M_PER_S)
          .map((link) => ({
            what: say(`${link.name} runs at {speed}.`, {
              speed: { value: link.velocity_mPerS!, role: 'lineSpeed' as const },
            }),
            path: ['lines', context.system.lines.findIndex((line) => line.id === link.id), 'bore_m'],
          }));
      }),
    why: 'Fast suction costs pressure, draws air at every joint and builds static charge.',
    mend: 'Use the next larger bore before the pump.',
    source: 'common practice: 1.5 m/s before a pump',
    status: 'common practice',
  },
  {
    id: 'line.no-filter',
    title: 'No filter in the feed',
    stage: 'lines',
    severity: 'warn',
    test: ({ system }) =>
      system.consumers.flatMap((consumer, c) => {
        const path = feedPath(system, consumer.id);
        const joined = path.length > 1;
        const filtered = path.some((id) => system.components.some((part) => part.id === id && part.kind === 'filter'));
        return when(joined && !filtered, () => ({
          what: say(`Nothing filters the fuel on its way to ${consumer.name}.`),
          path: ['consumers', c],
        }));
      }),
    why: 'New tanks shed swarf and scale for months.',
    mend: 'Put a filter that you can reach and change between tank and pump or after the pump.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'line.low-voltage',
    title: 'Low voltage at the pump',
    stage: 'lines',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      system.components.flatMap((part, index) =>
        part.kind !== 'pump'
          ? []
          : when(
              part.running &&
                isElectric(part) &&
                evaluation.state.supply_V < LOW_VOLTAGE_RATIO * part.ratedVoltage_V.value,
              () => ({
                what: say(`${part.name} gets {volts} of {rated}.`, {
                  volts: { value: evaluation.state.supply_V, role: 'voltage' },
                  rated: { value: part.ratedVoltage_V.value, role: 'voltage' },
                }),
                path: ['components', index, 'ratedVoltage_V'],
              }),
            ),
      ),
    why: 'Flow falls with voltage and pressure with its square; thin wire gets hot.',
    mend: 'Thicker wire, a relay close to the pump, a better earth.',
    source: 'affinity laws; a tenth lost is common practice',
    status: 'common practice',
  },
  {
    id: 'line.not-in-flow',
    title: 'A line is not in the flow',
    stage: 'lines',
    severity: 'note',
    test: ({ system }) => {
      const used = new Set(feedLines(system).map((line) => line.id));
      const receivers = new Set(system.components.flatMap(({ id, kind }) => (kind === 'receiver' ? [id] : [])));
      // What a nozzle held into an opening gives is what arrives at the nozzle.
      const isHeld = ({ from, to }: (typeof system.lines)[number]): boolean =>
        receivers.has(from.item) || receivers.has(to.item);
      return system.lines.flatMap((line, l) =>
        when(!isHeld(line) && !used.has(line.id) && line.purpose !== 'vent' && line.purpose !== 'overflow', () => ({
          what: say(`${line.name} is a ${line.purpose} line: its flow is not worked out here.`),
          path: ['lines', l],
        })),
      );
    },
    why: 'The steady solution covers feed, return, transfer and the air of vents; filling comes and goes.',
    mend: 'Nothing to mend; know that its flow is not computed.',
    source: 'scope of the solver',
    status: 'derived',
  },
  {
    id: 'line.properties-stretched',
    title: 'Fuel data stretched',
    stage: 'lines',
    severity: 'note',
    test: ({ system, evaluation }) =>
      when(evaluation.fluid.extrapolated, () => ({
        what: say(
          `At {temperature} the data for ${FLUIDS[fluidOfNumbers(system)].name} are stretched beyond their range.`,
          { temperature: { value: evaluation.state.fuelTemperature_K, role: 'temperature' } },
        ),
        path: ['conditions', 'fuelTemperature_K'],
      })),
    why: 'Outside the range of the table density and viscosity are extrapolated; cold diesel may also cloud and gel.',
    mend: 'Measure the viscosity, or keep the temperature within the range.',
    source: 'validity range in the fluid table',
    status: 'derived',
  },
];
