import { isInTank } from '../components';
import { hungParts } from '../plan/circuits';
import { END_WORDS } from '../plan/circuitEdits';
import { from, lineAt } from './lineParts';
import { say, when, type Hit, type Rule } from './rule';

/** Less than this runs out of any joint [m³]: a wet rag. */
const RAG_M3 = 20e-6;
/** A siphon of less is a puddle [m³]. */
const PUDDLE_M3 = 1e-3;
/** Common practice: a stretched hose is never the answer under pump pressure, and this is little [Pa]. */
const STRETCHED_PA = 35e3;

export const JOINT_RULES: readonly Rule[] = [
  {
    id: 'line.joint-broken',
    title: 'Two ends do not go together',
    stage: 'lines',
    severity: 'stop',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ joints }) => joints).flatMap((joint): Hit[] =>
        when(joint.state === 'broken', () => ({
          what: say(`${joint.lineName} does not fit ${joint.partName}. ${joint.why}`),
          path: [...lineAt(context, joint.line), joint.at],
        })),
      ),
    why: 'A thread that only starts, or a hose on the wrong barb, leaks or lets go; sealant does not make up for it.',
    mend: 'Choose one of the chains of adapters that are offered at the joint, or another end.',
    source: 'thread and hose systems of the table of joins',
    status: 'from memory',
  },
  {
    id: 'line.hose-stretched',
    title: 'Hose stretched over a larger barb',
    stage: 'lines',
    severity: 'note',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ joints }) => joints).flatMap((joint): Hit[] => {
        if (!joint.isStretched || joint.stretch_ratio === undefined) return [];
        const pressures = context.evaluation.flows.flatMap((flow) =>
          flow.ok ? flow.value.nodes.filter(({ id }) => id === `${joint.part}:${joint.end}`) : [],
        );
        const most = Math.max(-Infinity, ...pressures.map(({ gauge_Pa }) => gauge_Pa));
        const isPressed = most > STRETCHED_PA;
        return [
          {
            what: say(
              `${joint.lineName} is stretched by {stretch} over the barb of ${joint.partName}${isPressed ? ', and stands at {pressure} there' : ''}.`,
              {
                stretch: { value: joint.stretch_ratio, role: 'share' },
                ...(isPressed ? { pressure: { value: most, role: 'pressure' as const } } : {}),
              },
            ),
            path: [...lineAt(context, joint.line), joint.at],
            ...(isPressed ? { severity: 'stop' as const } : {}),
          },
        ];
      }),
    why: 'A hose pushed over warm is thinned and stressed where the clamp bites: it cracks there first, and lets go under pressure.',
    mend: 'Hose of the barb’s size, or an adapter. On a low-pressure line only, and looked at every season.',
    source: 'one size larger, below 35 kPa: common practice',
    status: 'common practice',
  },
  {
    id: 'line.in-tank-apart',
    title: 'Said to be in the tank, and hangs on nothing there',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: ({ system }) => {
      const hung = hungParts(system);
      return system.components.flatMap((part, c) =>
        when(isInTank(part) && !hung.has(part.id), () => ({
          what: say(
            `${part.name} is said to stand in the tank, but does not follow a pickup there: it is worked out as standing outside.`,
          ),
          path: ['components', c],
        })),
      );
    },
    why: 'In the liquid a pump has nothing to lift and a leak spills nothing; outside it has both.',
    mend: 'Put it right after the pickup or after another part in the tank, or say that it stands outside.',
    source: 'the list of circuits',
    status: 'derived',
  },
  {
    id: 'line.end-open',
    title: 'An end leads nowhere',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ list }) => list.openEnds).map(({ item, name, end }) => {
        const c = context.system.components.findIndex((part) => part.id === item);
        const k = context.system.consumers.findIndex((consumer) => consumer.id === item);
        return {
          what: say(
            c >= 0 || k >= 0 ? `The ${END_WORDS[end]} of ${name} has no line and no plug.` : `${name} has no line.`,
          ),
          ...(c >= 0 ? { path: ['components', c] } : k >= 0 ? { path: ['consumers', k] } : {}),
        };
      }),
    why: 'An open end sprays, drains or draws air.',
    mend: 'Join a line to it, or say that a plug closes it.',
    source: 'the list of circuits',
    status: 'derived',
  },
  {
    id: 'line.boils-on-the-way',
    title: 'Fuel boils at a high point',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ profiles }) => profiles).flatMap((run): Hit[] => {
        const at = run.nearestBoiling;
        return when(at?.line !== undefined && at.margin_Pa! < 0, () => ({
          what: say(
            `${at!.line} rises to {height} on its way, where {margin} is missing for the fuel to stay liquid.`,
            { height: { value: at!.height_m, role: 'run' }, margin: { value: -at!.margin_Pa!, role: 'pressure' } },
          ),
          path: ['lines', context.system.lines.findIndex(({ name }) => name === at!.line), 'points'],
        }));
      }),
    why: 'Vapour gathers at the hump and the feed stops, first on a hot day.',
    mend: 'Lead the line lower, or set the pump before the hump.',
    source: 'pressure along the line against the fuel’s vapour pressure',
    status: 'derived',
  },
  {
    id: 'line.siphons',
    title: 'A broken line empties the tank',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ breakSpills }) => breakSpills).flatMap((spill): Hit[] =>
        spill.tanks
          .filter(({ volume_m3 }) => volume_m3 > PUDDLE_M3)
          .map((tank) => ({
            what: say(
              `If ${spill.lineName} breaks at its lowest point, {volume} of ${tank.name} ${tank.bySiphon ? 'siphons' : 'runs'} out with the pumps at rest.`,
              { volume: { value: tank.volume_m3, role: 'tankVolume' } },
            ),
            path: [
              ...lineAt(context, context.system.lines.find(({ name }) => name === spill.lineName)?.id ?? ''),
              'rise_m',
            ],
          })),
      ),
    why: 'A hose that chafes through under way empties the tank into the bilge, onto the exhaust or the road.',
    mend: 'Keep the line over the tank’s surface, or put a shut-off or an anti-siphon valve at the tank; open spring pressure must exceed the head.',
    source:
      'head from the tank’s surface to the lowest point of the run; boat rulebooks ask for anti-siphon protection: the current text decides',
    status: 'common practice',
  },
  {
    id: 'line.spills-when-opened',
    title: 'Undoing a joint drains a tank',
    stage: 'lines',
    severity: 'note',
    needs: ['lines'],
    test: (context) => {
      const open = from(context, ({ jointSpills }) => jointSpills).flatMap((spill) =>
        spill.tanks
          .filter(({ bySiphon, volume_m3 }) => !bySiphon && volume_m3 > RAG_M3)
          .map((tank) => ({ spill, tank })),
      );
      return [...new Set(open.map(({ tank }) => tank.tank))].map((id) => {
        const of = open.filter(({ tank }) => tank.tank === id);
        const worst = of.reduce((most, each) => (each.tank.volume_m3 > most.tank.volume_m3 ? each : most));
        return {
          what: say(
            `Undoing ${of.length === 1 ? `the joint of ${worst.spill.lineName}` : `any of ${of.length} joints, such as ${worst.spill.lineName} at its ${worst.spill.at === 'from' ? 'near' : 'far'} end,`} lets out {volume} of ${worst.tank.name} as the valves stand.`,
            { volume: { value: worst.tank.volume_m3, role: 'tankVolume' } },
          ),
          path: [...lineAt(context, worst.spill.line), worst.spill.at],
        };
      });
    },
    why: 'A filter cannot be changed without emptying the tank first.',
    mend: 'Put a shut-off at the tank; a second one at the far end keeps the line’s own fuel in it.',
    source: 'heights of the joint and of the tank’s surface',
    status: 'derived',
  },
];
