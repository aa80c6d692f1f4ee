import { feedPath } from '../plan/circuits';
import { engineNeed, MOST_DROP_RATIO } from '../answers';
import { componentAt, listed } from './lineParts';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

/** A relay saves the switch above this [A]. */
const SWITCH_A = 10;
const NEED_REL = 0.05;

export const WIRE_RULES: readonly Rule[] = [
  {
    id: 'line.wire-thin',
    title: 'Pump wire too thin',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows'],
    test: (context) =>
      wired(context).flatMap(({ electrics }): Hit[] =>
        when(electrics.drop_ratio > MOST_DROP_RATIO || electrics.current_A > electrics.wireMost_A, () => ({
          what: say(
            `${electrics.name} draws {current} and gets {volts} of {supply} through its wires. ${electrics.wires.length > 0 ? `${listed(electrics.wires.map(({ name }) => name)).replace(' and ', ' or ')} would do.` : 'No wire of the table would do at this length.'}`,
            {
              current: { value: electrics.current_A, role: 'current' },
              volts: { value: electrics.pump_V, role: 'voltage' },
              supply: { value: electrics.supply_V, role: 'voltage' },
            },
          ),
          path: [...componentAt(context, electrics.pump), 'wiring', 'length_m'],
          severity: electrics.current_A > electrics.wireMost_A ? 'stop' : 'warn',
        })),
      ),
    why: 'What is lost in the wire is missing at the pump, twice over in pressure; and an overloaded wire burns.',
    mend: 'Thicker wire, a relay beside the pump, a better earth.',
    source: 'resistance and current of wires: ISO 6722-1, ISO 10133, ASTM B258, ABYC E-11',
    status: 'from memory',
  },
  {
    id: 'line.fuse-wrong',
    title: 'Fuse missing or of the wrong size',
    stage: 'lines',
    severity: 'stop',
    needs: ['flows'],
    test: (context) =>
      wired(context).flatMap(({ electrics }): Hit[] => {
        const { fuse, fuse_A } = electrics;
        const path = [...componentAt(context, electrics.pump), 'wiring'];
        if (fuse_A === undefined) return [{ what: say(`The wire of ${electrics.name} has no fuse.`), path }];
        if (fuse_A > electrics.wireMost_A)
          return [
            {
              what: say(`The fuse of ${electrics.name}, {fuse}, lets the wire burn: it bears {most}.`, {
                fuse: { value: fuse_A, role: 'current' },
                most: { value: electrics.wireMost_A, role: 'current' },
              }),
              path,
            },
          ];
        return when(fuse !== undefined && fuse_A < fuse.least_A, () => ({
          what: say(`The fuse of ${electrics.name}, {fuse}, blows in time: it draws {current}.`, {
            fuse: { value: fuse_A, role: 'current' },
            current: { value: electrics.current_A, role: 'current' },
          }),
          path,
          severity: 'warn' as const,
        }));
      }),
    why: 'A wire that chafes through without a fuse near the battery is a fire beside the fuel.',
    mend: 'A fuse at the battery, a quarter over what the pump draws and no larger than the wire bears.',
    source: 'blade fuses of ISO 8820-3 against the wire’s current',
    status: 'from memory',
  },
  {
    id: 'line.no-relay',
    title: 'Pump switched without a relay',
    stage: 'lines',
    severity: 'note',
    needs: ['flows'],
    test: (context) =>
      wired(context).flatMap(({ electrics, relay }): Hit[] =>
        when(!relay && electrics.current_A > SWITCH_A, () => ({
          what: say(`A switch has to carry the {current} of ${electrics.name}.`, {
            current: { value: electrics.current_A, role: 'current' },
          }),
          path: [...componentAt(context, electrics.pump), 'wiring'],
        })),
      ),
    why: 'Panel switches weld or burn at such currents, and the long way to them costs volts.',
    mend: 'A relay beside the pump; for an engine’s pump one that drops out when the engine stops.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'line.meter-in-the-dirt',
    title: 'Meter before the filter',
    stage: 'lines',
    severity: 'note',
    test: ({ system }) =>
      system.consumers.flatMap((consumer): Hit[] => {
        const path = feedPath(system, consumer.id);
        const at = (kind: 'meter' | 'filter'): number =>
          path.findIndex((id) => system.components.some((part) => part.id === id && part.kind === kind));
        // The way runs from the consumer back: what stands later in it comes first.
        const [meter, filter] = [at('meter'), at('filter')];
        return when(system.practice.meter === 'after-filter' && meter >= 0 && meter > filter, () => ({
          what: say(
            `${system.components.find(({ id }) => id === path[meter])!.name} takes the fuel as it comes from the tank.`,
          ),
          path: ['components', system.components.findIndex(({ id }) => id === path[meter])],
        }));
      }),
    why: 'Dirt jams its wheels and wears it, and it then counts short.',
    mend: 'Set it behind the filter, or a strainer before it.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'line.engine-needs-more',
    title: 'The engine needs more than it is given',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows'],
    test: (context) =>
      context.system.consumers.flatMap((consumer, k): Hit[] => {
        const flow = context.evaluation.flows[k];
        const need = engineNeed(consumer, (flow?.ok ? flow.value.fluid : context.evaluation.fluid).density_kgPerM3);
        if (!need) return [];
        return [
          ...when(need.burn_m3PerS > consumer.burnFull_m3PerS.value * (1 + NEED_REL), () => ({
            what: say(`By its power ${consumer.name} burns {needs} at full load; {set} is planned.`, {
              needs: { value: need.burn_m3PerS, role: 'burn' },
              set: { value: consumer.burnFull_m3PerS.value, role: 'burn' },
            }),
            path: ['consumers', k, 'burnFull_m3PerS'],
          })),
          ...when(!need.injectorsEnough, () => ({
            what: say(`Its injectors pass {pass} at their duty; {needs} is needed.`, {
              pass: { value: need.injectors_m3PerS!, role: 'burn' },
              needs: { value: need.burn_m3PerS, role: 'burn' },
            }),
            path: ['consumers', k, 'engine', 'injectorFlow_m3PerS'],
            severity: 'stop' as const,
          })),
        ];
      }),
    why: 'Starved of fuel at full load an engine runs lean and hot, and melts pistons.',
    mend: 'Take the need from power and specific consumption; larger injectors or more pressure.',
    source: 'definition of brake-specific consumption',
    status: 'derived',
  },
];

/** Pumps with wires, each as the first consumer that it feeds has it. */
function wired({ system, evaluation }: RuleContext) {
  const found = new Map(
    evaluation.flows
      .flatMap((flow) => (flow.ok ? flow.value.pumps : []))
      .flatMap((pump) => (pump.electrics ? [[pump.id, pump.electrics] as const] : [])),
  );
  return [...found].map(([id, electrics]) => {
    const pump = system.components.find((part) => part.id === id);
    return { electrics, relay: pump?.kind === 'pump' && pump.wiring?.relay === true };
  });
}
