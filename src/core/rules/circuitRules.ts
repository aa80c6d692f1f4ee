import { fluidAt, runsOf, stockOf } from '../plan/circuits';
import { compatibilityOf, CONTACT_OF_FLUID } from '../reference/compatibility';
import { FLUIDS } from '../reference/fluids';
import { componentAt, from, lineAt, ownerAt } from './lineParts';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

/** Less than this runs out of any joint [m³]: a wet rag. */
const RAG_M3 = 20e-6;
/** Warmer than this in an hour and the pump soon draws vapour. */
const WARM_K_PER_HOUR = 10;
const SECONDS_AN_HOUR = 3600;
/** A sight tube off by less is read as right [m]. */
const READ_M = 0.005;
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

export const CIRCUIT_RULES: readonly Rule[] = [
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
    needs: ['circuits', 'transfers-followed'],
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
    id: 'line.transfer-overfills',
    title: 'A transfer that is left on overfills',
    stage: 'lines',
    severity: 'note',
    needs: ['circuits', 'transfers-followed'],
    test: (context) =>
      from(context, ({ circuits }) => circuits.transfers).flatMap(({ name, line, leftOn, flow_m3PerS }): Hit[] =>
        when(flow_m3PerS > 0 && leftOn.ends === 'target-full', () => ({
          what:
            leftOn.time_s === undefined
              ? say(`${leftOn.endsAt ?? 'What it fills'} is full to its limit already, and ${name} goes on.`)
              : say(
                  `Left on, ${name} has ${leftOn.endsAt ?? 'what it fills'} full to its limit in {time}, and goes on.`,
                  { time: { value: leftOn.time_s, role: 'duration' } },
                ),
          path: lineAt(context, line),
        })),
      ),
    why: 'Who forgets it has fuel out of a vent, on the ground or in the bilge, until somebody smells it.',
    mend: 'A float valve where it comes in, a level switch or a timer on the pump; or no more in the one than the other has room for. Over time plays it.',
    source: 'network solution as the levels change; played beside it in the tests',
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
];
