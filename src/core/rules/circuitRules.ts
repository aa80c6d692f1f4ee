import { isInTank } from '../components';
import { feedPath, fluidAt, hungParts, runsOf, stockOf } from '../plan/circuits';
import { END_WORDS } from '../plan/circuitEdits';
import { engineNeed, MOST_DROP_RATIO, type LineAnswers } from '../answers';
import { compatibilityOf, CONTACT_OF_FLUID } from '../reference/compatibility';
import { FLUIDS } from '../reference/fluids';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

/** What was worked out of the lines; nothing when only numbers were asked for. */
const from = <T>({ evaluation }: RuleContext, of: (lines: LineAnswers) => readonly T[]): readonly T[] =>
  evaluation.lines ? of(evaluation.lines) : [];
const lineAt = ({ system }: RuleContext, id: string): (string | number)[] => [
  'lines',
  system.lines.findIndex((line) => line.id === id),
];
const componentAt = ({ system }: RuleContext, id: string): (string | number)[] => [
  'components',
  system.components.findIndex((part) => part.id === id),
];
/** Of a consumer, or of a component. */
const ownerAt = (context: RuleContext, id: string): (string | number)[] => {
  const k = context.system.consumers.findIndex((consumer) => consumer.id === id);
  return k >= 0 ? ['consumers', k] : componentAt(context, id);
};
const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** Less than this runs out of any joint [m³]: a wet rag. */
const RAG_M3 = 20e-6;
/** A siphon of less is a puddle [m³]. */
const PUDDLE_M3 = 1e-3;
/** Warmer than this in an hour and the pump soon draws vapour. */
const WARM_K_PER_HOUR = 10;
const SECONDS_AN_HOUR = 3600;
/** A sight tube off by less is read as right [m]. */
const READ_M = 0.005;
/** A relay saves the switch above this [A]. */
const SWITCH_A = 10;
const NEED_REL = 0.05;

/** Ways of transfer that are meant to go on by themselves. */
const GOES_BY_ITSELF = { pump: false, selector: false, gravity: true, vacuum: true } as const;

const WHY_ENDS = {
  'source-dry': (tank: string) => `: ${tank} is down to its pickup`,
  'target-full': (tank: string) => `: ${tank} is full`,
  'at-rest': () => ': then the levels have come to rest',
  'nothing-moves': () => ': nothing flows',
  moved: () => '',
  failed: () => '',
} as const;

/** Whether a line's way is no more than a guess: its rise assumed, and nothing said to the sides. */
const isGuessed = ({ system }: RuleContext, id: string): boolean => {
  const line = system.lines.find((each) => each.id === id);
  return (
    line?.rise_m.origin === 'assumed' &&
    [line.forward_m, line.toPort_m].every(({ origin, value }) => origin === 'assumed' || value === 0)
  );
};

/** Common practice: a stretched hose is never the answer under pump pressure, and this is little [Pa]. */
const STRETCHED_PA = 35e3;

export const CIRCUIT_RULES: readonly Rule[] = [
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
  {
    id: 'line.return-elsewhere',
    title: 'Return goes to another tank',
    stage: 'lines',
    severity: 'stop',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.returns).flatMap((back): Hit[] =>
        when(back.elsewhere, () => ({
          what: say(
            `${back.name} draws from one tank and returns {flow} to ${back.tankName}, which is full in {time}.`,
            { flow: { value: back.flow_m3PerS, role: 'burn' }, time: { value: back.full_s ?? 0, role: 'duration' } },
          ),
          path: ownerAt(context, back.from),
        })),
      ),
    why: 'It overflows through its vent while the other runs dry.',
    mend: 'Return to the tank that feeds, or switch feed and return together with one selector.',
    source: 'what is drawn less what is burned',
    status: 'derived',
  },
  {
    id: 'line.return-aerates',
    title: 'Return falls into the tank',
    stage: 'lines',
    severity: 'note',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.returns).flatMap((back): Hit[] =>
        when(back.aerates && context.system.practice.returnOutlet === 'low', () => ({
          what: say(
            `The return of ${back.name} drops {flow} into ${back.tankName} from above; all of it goes round in {time}.`,
            { flow: { value: back.flow_m3PerS, role: 'burn' }, time: { value: back.round_s, role: 'duration' } },
          ),
          path: ['practice', 'returnOutlet'],
        })),
      ),
    why: 'It whips air into the fuel, which an injection pump then draws, and charges the fuel with static.',
    mend: 'Lead it down by a tube to near the floor, away from the pickup.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'line.return-warms',
    title: 'Return warms the tank',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.returns).flatMap((back): Hit[] =>
        when(back.warming_KPerS * SECONDS_AN_HOUR > WARM_K_PER_HOUR, () => ({
          what: say(
            `The pump’s work alone warms what is in ${back.tankName} now by ${Math.round(back.warming_KPerS * SECONDS_AN_HOUR)} K an hour, by what ${back.name} sends back.`,
          ),
          path: ownerAt(context, back.from),
        })),
      ),
    why: 'A small tank gets hot, its petrol boils at the pump, and the pump starves; heat from the engine comes on top.',
    mend: 'A pump no larger than needed, one that slows down at idle, a cooler in the return, or more fuel in the tank.',
    source: 'power into the pump over the heat that the fuel takes up; 10 K an hour is common practice',
    status: 'common practice',
  },
  {
    id: 'line.flows-back',
    title: 'Flow goes back through a pump',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.backflows).map((back) => ({
        what: say(
          `{flow} goes back through ${back.name} while it ${back.running ? 'runs: a stronger pump overcomes it' : 'stands still'}.`,
          { flow: { value: back.flow_m3PerS, role: 'burn' } },
        ),
        path: [...componentAt(context, back.pump), 'checkBuiltIn'],
      })),
    why: 'Two pumps joined at a block: what one lifts, the other lets back to the tank.',
    mend: 'A check valve behind each pump, or pumps with one built in.',
    source: 'network solution',
    status: 'derived',
  },
  {
    id: 'line.sight-misreads',
    title: 'A sight tube reads falsely while fuel moves',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.sights).flatMap((sight): Hit[] =>
        when(Math.abs(sight.error_m) > READ_M, () => ({
          what: say(
            `${sight.name} stands {error} too ${sight.error_m > 0 ? 'high' : 'low'} as the lines run now: {volume} of error.`,
            {
              error: { value: Math.abs(sight.error_m), role: 'tape' },
              volume: { value: Math.abs(sight.error_m3), role: 'tankVolume' },
            },
          ),
        })),
      ),
    why: 'A transfer line teed into the sight tube’s lower line pushes its column up or pulls it down while it flows.',
    mend: 'Give the transfer a port of its own, or read the tube only when nothing flows.',
    source: 'pressure at the tee in the network solution',
    status: 'derived',
  },
  {
    id: 'line.starves-when-low',
    title: 'Gravity is not enough when the tank is low',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits', 'last-of-tank'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.lowest).flatMap((low): Hit[] => {
        const k = context.system.consumers.findIndex(({ id }) => id === low.consumer);
        const need = context.system.consumers[k]!.neededFlow_m3PerS.value;
        return when(low.delivered_m3PerS !== undefined && low.delivered_m3PerS < need, () => ({
          what: say(`With the last of the tank ${low.name} gets {flow} of {need}.`, {
            flow: { value: Math.max(0, low.delivered_m3PerS!), role: 'burn' },
            need: { value: need, role: 'burn' },
          }),
          path: ['consumers', k, 'neededFlow_m3PerS'],
        }));
      }),
    why: 'The head falls with the level: it runs on a full tank and dies on a low one.',
    mend: 'Hang the tank higher, widen the line, or leave more unused.',
    source: 'network solution at the level where the pickup begins to draw air',
    status: 'derived',
  },
  {
    id: 'line.pressure-over-rating',
    title: 'More pressure than the line is made for',
    stage: 'lines',
    severity: 'stop',
    needs: ['flows'],
    test: (context) =>
      context.evaluation.flows.flatMap((flow) =>
        flow.ok
          ? context.system.lines.flatMap((line): Hit[] => {
              const stock = line.stock ? stockOf(line) : undefined;
              const ends = flow.value.nodes.filter(
                ({ id }) => id === `${line.from.item}:${line.from.end}` || id === `${line.to.item}:${line.to.end}`,
              );
              const most = Math.max(-Infinity, ...ends.map(({ gauge_Pa }) => gauge_Pa));
              return when(stock !== undefined && most > stock.pressure_Pa, () => ({
                what: say(`${line.name} stands at {pressure}; ${stock!.name} is good for {rating}.`, {
                  pressure: { value: most, role: 'pressure' },
                  rating: { value: stock!.pressure_Pa, role: 'pressure' },
                }),
                path: [...lineAt(context, line.id), 'stock'],
              }));
            })
          : [],
      ),
    why: 'Hose over its rating swells, weeps and bursts, and what it sprays is a fire.',
    mend: 'Hose or tube rated for the pressure, with ends made for it; barbs and clamps are for low pressure.',
    source: 'working pressures in the table of lines',
    status: 'from memory',
  },
  {
    id: 'line.fuel-attacks',
    title: 'Fuel attacks the line',
    stage: 'lines',
    severity: 'stop',
    test: (context) =>
      context.system.lines.flatMap((line): Hit[] => {
        const stock = line.stock ? stockOf(line) : undefined;
        const fluid = fluidAt(context.system, line.from.item);
        if (!stock || !fluid) return [];
        return when(compatibilityOf(stock.material).ratings[CONTACT_OF_FLUID[fluid]] === 'bad', () => ({
          what: say(`${line.name} is of ${compatibilityOf(stock.material).name}, which ${FLUIDS[fluid].name} attacks.`),
          path: [...lineAt(context, line.id), 'stock'],
        }));
      }),
    why: 'It swells, softens or cracks, and pieces of it plug the filter before it leaks.',
    mend: 'Choose a line that the table of contacts calls good for this fluid.',
    source: 'table of what fuel does to what it touches',
    status: 'from memory',
  },
  {
    id: 'line.too-short',
    title: 'Line shorter than its way',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.isShort, () => ({
          what: say(`${route.name} is {length} long and its way takes {way}.`, {
            length: { value: route.length_m, role: 'run' },
            way: { value: Math.max(route.shortest_m, route.developed_m), role: 'run' },
          }),
          path: [...lineAt(context, route.line), 'length_m'],
        })),
      ),
    why: 'It cannot be fitted, or is pulled tight and works loose.',
    mend: 'Measure it again, along the way that it takes, bends included.',
    source: 'distance through its points, corners rounded to the bend',
    status: 'derived',
  },
  {
    id: 'line.ends-apart',
    title: 'Line does not reach its end',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ apart }) => apart).map(({ line, name, gap_m }) => ({
        what: say(`As written, ${name} ends {gap} from what it is joined to.`, { gap: { value: gap_m, role: 'tape' } }),
        path: [...lineAt(context, line), 'rise_m'],
        // A guess of ours that does not meet is nobody's fault.
        ...(isGuessed(context, line) ? { severity: 'note' as const } : {}),
      })),
    why: 'Heights decide pressure, siphons and vapour: one of the run’s figures is wrong.',
    mend: 'Take it from the places at the line’s fields, where none of it was measured; else measure forward, to port and up again between the two ends; one of them may hang on another tank.',
    source: 'places of parts from the tanks on, along the lines',
    status: 'derived',
  },
  {
    id: 'line.transfer-goes-on',
    title: 'Transfer goes on with the pump off',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.transfers).flatMap((transfer): Hit[] =>
        when(transfer.atRest_m3PerS > 0 && GOES_BY_ITSELF[context.system.practice.transferBy] === false, () => ({
          what: say(`${transfer.name} still runs at {flow} with the pump off.`, {
            flow: { value: transfer.atRest_m3PerS, role: 'burn' },
          }),
          path: [...lineAt(context, transfer.line), 'rise_m'],
        })),
      ),
    why: 'Gravity or a siphon fills the lower tank until the levels meet or its vent weeps.',
    mend: 'A valve in the line, shut by hand or with the pump; or let the line out above the lower tank’s surface with a vacuum breaker at its top.',
    source: 'network solution with all pumps at rest',
    status: 'derived',
  },
  {
    id: 'line.transfer-short',
    title: 'A transfer ends before all is moved',
    stage: 'lines',
    severity: 'warn',
    needs: ['circuits'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.transfers).flatMap((transfer): Hit[] =>
        when(
          context.system.wishes.moves_m3 !== undefined && transfer.ends !== 'moved' && transfer.ends !== 'failed',
          () => ({
            what: say(
              `Of {asked} to be moved ${transfer.name} moves {moved}${WHY_ENDS[transfer.ends](transfer.endsAt ?? 'a tank')}.`,
              {
                asked: { value: transfer.asked_m3, role: 'tankVolume' },
                moved: { value: transfer.volume_m3, role: 'tankVolume' },
              },
            ),
            path: ['wishes', 'moves_m3'],
          }),
        ),
      ),
    why: 'What is not there cannot be moved, and what does not fit comes out of a vent.',
    mend: 'Fill the source further, leave more room, or plan for smaller batches.',
    source: 'network solution as the levels change',
    status: 'derived',
  },
  {
    id: 'line.transfer-unlike-plan',
    title: 'Transfer is not made as it was chosen',
    stage: 'lines',
    severity: 'note',
    test: ({ system }) => {
      const runs = runsOf(system).filter(({ purpose }) => purpose === 'transfer');
      const has = (kind: 'pump' | 'selector'): boolean =>
        runs.some(({ steps }) =>
          steps.some(({ id }) => system.components.some((part) => part.id === id && part.kind === kind)),
        );
      const wrong = {
        pump: has('pump') ? undefined : 'no pump stands in it',
        gravity: has('pump') ? 'a pump stands in it' : undefined,
        vacuum: has('pump') ? 'a pump stands in it' : undefined,
        selector: system.components.some(({ kind }) => kind === 'selector')
          ? undefined
          : 'no selector valve stands anywhere',
      }[system.practice.transferBy];
      return when(runs.length > 0 && wrong !== undefined, () => ({
        what: say(
          `Transfer was chosen by ${{ pump: 'pump', gravity: 'gravity', vacuum: 'the vacuum of a sealed main', selector: 'a selector valve' }[system.practice.transferBy]}, and ${wrong}.`,
        ),
        path: ['practice', 'transferBy'],
      }));
    },
    why: 'Plan and school say two things: one of them is not what will be built.',
    mend: 'Put in what is missing, or choose the other school.',
    source: 'the builder’s own choice',
    status: 'common practice',
  },
  {
    id: 'line.coupler-spills',
    title: 'A coupler spills when it is parted',
    stage: 'lines',
    severity: 'note',
    test: (context) =>
      context.system.components.flatMap((part): Hit[] =>
        part.kind !== 'coupler'
          ? []
          : when(part.spill_m3.value > RAG_M3, () => ({
              what: say(`${part.name} lets out {spill} each time it is parted.`, {
                spill: { value: part.spill_m3.value, role: 'smallVolume' },
              }),
              path: [...componentAt(context, part.id), 'spill_m3'],
            })),
      ),
    why: 'It drips where it is parted: on the exhaust, in the bilge, on hands.',
    mend: 'A dry-break coupler, a tray under it, and a rag at hand; never near a flame or something hot.',
    source: 'the coupler’s own data; 20 mL is common practice',
    status: 'common practice',
  },
  {
    id: 'line.bend-too-tight',
    title: 'Bend tighter than the line allows',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.tooTight, () => ({
          what: say(`${route.name} is bent to {bend}; ${route.stock.name} wants {least}.`, {
            bend: { value: route.bend_m!, role: 'tape' },
            least: { value: route.leastBend_m, role: 'tape' },
          }),
          path: [...lineAt(context, route.line), 'bend_m'],
        })),
      ),
    why: 'Hose kinks and shuts, tube flattens and cracks.',
    mend: 'A wider bend, or an elbow or swivel at the end instead.',
    source: 'bends in the table of lines',
    status: 'from memory',
  },
  {
    id: 'line.held-too-far',
    title: 'Line held too far apart',
    stage: 'lines',
    severity: 'note',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.heldTooFar, () => ({
          what: say(`${route.name} is held every {held}; every {most} is wanted.`, {
            held: { value: route.held_m!, role: 'run' },
            most: { value: route.mostApart_m, role: 'run' },
          }),
          path: [...lineAt(context, route.line), 'held_m'],
        })),
      ),
    why: 'It swings, chafes and works its joints loose.',
    mend: 'More brackets with rubber between, none of them cable ties.',
    source: 'spacing of holders in the table of lines',
    status: 'common practice',
  },
  {
    id: 'line.no-grommet',
    title: 'No room for a grommet',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route) =>
        route.passes
          .filter(({ state }) => state !== 'fits')
          .map((pass) => ({
            what:
              pass.state === 'line-too-wide' || pass.wants_m === undefined
                ? say(`${route.name} does not go through the hole of {hole} in ${pass.name}.`, {
                    hole: { value: pass.hole_m, role: 'bore' },
                  })
                : say(
                    `${route.name} goes bare through ${pass.name}: its grommet wants a hole of {wants}, not {hole}.`,
                    { wants: { value: pass.wants_m, role: 'bore' }, hole: { value: pass.hole_m, role: 'bore' } },
                  ),
            path: [...lineAt(context, route.line), 'passes'],
          })),
      ),
    why: 'The edge of the sheet saws through it.',
    mend: 'Open the hole to the grommet’s size, or use a bulkhead fitting.',
    source: 'table of grommets',
    status: 'common practice',
  },
  {
    id: 'line.rigid-but-moves',
    title: 'Hard line between moving ends',
    stage: 'lines',
    severity: 'stop',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.rigidButFlexes, () => ({
          what: say(`${route.name} is hard and its ends move against each other.`),
          path: [...lineAt(context, route.line), 'flexes'],
        })),
      ),
    why: 'An engine on its mounts breaks a hard line at its flare in days.',
    mend: 'A piece of hose between, with slack for the movement.',
    source: 'common practice',
    status: 'common practice',
  },
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
