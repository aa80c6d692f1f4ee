import { airState } from '../fluids';
import { ventLossLaw } from '../model/vents';
import { overWater } from '../answers';
import type { Vec3 } from '../geometry';
import { capWays, letsAirIn, letsAirOut } from '../plan/caps';
import { markFault, type FillerMark } from '../plan/marks';
import type { Plan } from '../plan/schema';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { VENT_USUAL } from '../reference/vents';
import { say, when, type Hit, type Rule } from './rule';

/** Vacuum that pulls flats in and steals the pump's lift, unless the builder has said more or less [Pa]. */
const vacuumOf = ({ limits }: Pick<Plan, 'limits'>): number => limits.under_Pa?.value ?? VENT_USUAL.under_Pa;
/** Small tanks are poured full in no less than this [s]. */
const FASTEST_FILL_S = 20;
const SPLASH_BORE_M = 0.02;
/** Less than this share of a filling out of a vent is a splash. */
const SPLASH_SHARE = 0.02;
/** A place that saves less than this share of what is lost is no better one. */
const LEAST_GAIN = 0.1;

export const VENT_RULES: readonly Rule[] = [
  {
    id: 'vent.end-under-water',
    title: 'A vent ends under water',
    stage: 'vents',
    severity: 'stop',
    needs: ['lines', 'hull-said', 'vent-ends'],
    test: ({ system, evaluation }) =>
      (evaluation.lines?.ventEnds ?? []).flatMap(({ name, end, port, at_m }): Hit[] => {
        const over = at_m && overWater(system, at_m);
        if (over?.over !== 'water' || over.leaning_m > 0) return [];
        const under = { under: { value: -over.leaning_m, role: 'tape' as const } };
        const t = system.tanks.findIndex(({ ports }) => ports.some(({ id }) => id === port));
        const c = system.components.findIndex(({ id }) => id === end);
        return [
          {
            what: say(
              over.level_m > 0
                ? `At the slopes asked for ${name} comes {under} under water.`
                : `${name} is under water: at the slopes asked for by {under}.`,
              under,
            ),
            path: c >= 0 ? ['components', c, 'place'] : ['tanks', t, 'ports'],
          },
        ];
      }),
    why: 'Water runs into the tank by it, and with a shut tank the engine draws it in as it draws fuel.',
    mend: 'End it higher, inboard, with a loop over the highest that water comes to.',
    source: 'height of its end over the plane that the hull floats in when weighed, turned about the middle of it',
    status: 'derived',
  },
  {
    id: 'vent.too-small-for-draw',
    title: 'Vent too small for the draw',
    stage: 'vents',
    severity: 'stop',
    needs: ['flows'],
    test: ({ system, evaluation }) =>
      evaluation.flows.flatMap((flow): Hit[] =>
        flow.ok
          ? when(flow.value.ullageGauge_Pa < -vacuumOf(system), () => ({
              what: say('At the needed flow the tank is drawn to {vacuum} below the air outside.', {
                vacuum: { value: -flow.value.ullageGauge_Pa, role: 'pressure' },
              }),
              path: ventPath(system.tanks),
            }))
          : [],
      ),
    why: 'Air must come in as fuel goes out. A starved vent makes a vacuum: flats pull in, and the feed fades and dies.',
    mend: 'Open the vent: a bigger hole or hose, and nothing clogged in it.',
    source: 'flow of air through the vent; 1 kPa where nothing else is said: common practice',
    status: 'common practice',
  },
  {
    id: 'vent.too-small-for-fill',
    title: 'Vent too small to fill through',
    stage: 'vents',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      system.tanks.flatMap((tank, t): Hit[] => {
        const filler = tank.ports.find((port) => port.role === 'filler');
        const vents = tank.ports.filter((port) => port.role === 'vent');
        if (!filler || vents.length === 0 || system.practice.vent === 'vented-cap') return [];
        const air = airState(evaluation.state.fuelTemperature_K, evaluation.state.ambientAbs_Pa);
        const usual = Math.min(VENT_USUAL.fill_m3PerS, evaluation.tanks[t]!.holds_m3 / FASTEST_FILL_S);
        const rate = system.limits.fill_m3PerS?.value ?? usual;
        const most_Pa = system.limits.over_Pa?.value ?? VENT_USUAL.over_Pa;
        const pressures = vents.map((vent) => ventLossLaw(vent, air)(rate / vents.length).pressure_Pa);
        return when(Math.max(...pressures) > most_Pa, () => ({
          what: say(`Filling ${tank.name} at {rate} builds {pressure} inside.`, {
            rate: { value: rate, role: 'transfer' },
            pressure: { value: Math.max(...pressures), role: 'pressure' },
          }),
          path: ['tanks', t, 'ports', tank.ports.indexOf(vents[0]!), 'bore_m'],
        }));
      }),
    why: 'The air must get out past the fuel coming in, or the nozzle clicks off and fuel spits from the neck.',
    mend: 'A vent hose of {bore 0.014} or more, as short as it can be, or fill slowly.',
    source:
      'flow of air through the vent; where nothing else is said at 30 L/min, less into a tank that would be full in 20 s, and 1 kPa: common practice',
    status: 'common practice',
  },
  {
    id: 'vent.flooded',
    title: 'Liquid reaches the vent',
    stage: 'vents',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.floodedVents.map(({ id, lost_m3, pitch_rad, roll_rad }) => {
          const p = system.tanks[t]!.ports.findIndex((port) => port.id === id);
          const dry = tank.dryVent;
          const better =
            dry === undefined || dry.lost_m3 > lost_m3 - LEAST_GAIN * lost_m3
              ? ''
              : dry.lost_m3 <= 0
                ? ' It would stay dry {x} and {y} from the corner of the lid that the tank is measured from.'
                : ' No place on the lid stays dry; {x} and {y} from the corner that the tank is measured from it would lose {least}.';
          return {
            what: say(
              `Filled to the limit, {lost} runs out by ${system.tanks[t]!.ports[p]!.name} at {pitch} pitch and {roll} roll.${better}`,
              {
                lost: { value: lost_m3, role: 'tankVolume' },
                pitch: { value: pitch_rad, role: 'slope' },
                roll: { value: roll_rad, role: 'slope' },
                x: { value: dry?.x_m ?? 0, role: 'tape' },
                y: { value: dry?.y_m ?? 0, role: 'tape' },
                least: { value: dry?.lost_m3 ?? 0, role: 'tankVolume' },
              },
            ),
            path: ['tanks', t, 'ports', p, 'x_m'],
            severity: lost_m3 < SPLASH_SHARE * tank.holds_m3 ? ('note' as const) : ('warn' as const),
          };
        }),
      ),
    why: 'A covered vent lets no air in, and fuel runs out of it: on the ground, into the bilge, on something hot.',
    mend: 'Set the vent where it stays dry, add a second one at the other end, lower the fill limit, or fit a rollover valve.',
    source: 'geometry of the tank over the envelope; less than a fiftieth of the filling is a note: common practice',
    status: 'derived',
  },
  {
    id: 'vent.shuts-itself',
    title: 'The vent shuts at a slope asked for',
    stage: 'vents',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.closedVents.map(({ id, by, pitch_rad, roll_rad }) => {
          const { ports, name } = system.tanks[t]!;
          const p = ports.findIndex((port) => port.id === id);
          const isOnly = ports.filter(letsAirIn).length === 1;
          return {
            what: say(
              `${by === 'lean' ? 'Leaning' : 'Filled to the limit, the float'} shuts ${ports[p]!.name} at {pitch} pitch and {roll} roll: ${isOnly ? `no air comes into ${name} there.` : 'air has to come in by another way there.'}`,
              { pitch: { value: pitch_rad, role: 'slope' }, roll: { value: roll_rad, role: 'slope' } },
            ),
            path: ['tanks', t, 'ports', p, 'shutOff', ...(by === 'lean' ? ['lean_deg'] : ['float'])],
            severity: isOnly ? ('warn' as const) : ('note' as const),
          };
        }),
      ),
    why: 'A valve that keeps fuel in keeps air out too: while it is shut the feed fades.',
    mend: 'A valve that shuts further over, a second vent at the other end, or less in the tank.',
    source: 'geometry of the tank and the lean over the envelope',
    status: 'derived',
  },
  {
    id: 'vent.missing',
    title: 'No vent',
    stage: 'vents',
    severity: 'stop',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        when(!tank.ports.some(letsAirIn), () => ({
          what: say(`${tank.name} has no vent${capNote(tank)}.`),
          path: ['tanks', t, 'ports'],
        })),
      ),
    why: 'A sealed tank starves the engine, bulges when warm and pulls in when it cools.',
    mend: 'Add a vent at the highest point, or a hole in the cap where that is enough.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'vent.holds-pressure',
    title: 'Pressure has no way out',
    stage: 'vents',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      system.tanks.flatMap((tank, t): Hit[] => {
        const p = tank.ports.findIndex((port) => port.role === 'filler' && port.cap?.kind === 'in-only');
        const { ambientAbs_Pa, fuelTemperature_K } = evaluation.state;
        return when(p >= 0 && !tank.ports.some(letsAirOut), () => ({
          what: say(
            `The cap of ${tank.name} lets air in only, and nothing lets it out: 30 K of sun put {air} into it by its air alone, and vapour more.`,
            { air: { value: warmed_Pa(ambientAbs_Pa, fuelTemperature_K), role: 'pressure' } },
          ),
          path: ['tanks', t, 'ports', p, 'cap'],
        }));
      }),
    why: 'The first thing opened gets it in the face; a carburettor’s needle is lifted and floods.',
    mend: 'A cap that lets pressure out too, or a vent line. Open such a cap slowly, away from your face.',
    source: 'ideal gas in a shut ullage that warms by 30 K',
    status: 'derived',
  },
  {
    id: 'vent.cap-fills-slowly',
    title: 'A cap lets no air out while it is off',
    stage: 'vents',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t): Hit[] => {
        const p = tank.ports.findIndex((port) => port.role === 'filler' && capWays(port.cap).in !== undefined);
        return when(p >= 0 && !tank.ports.some(({ role }) => role === 'vent'), () => ({
          what: say(
            `${tank.name} breathes by its cap alone: while it is filled the air comes back up the filler against the fuel.`,
          ),
          path: ['tanks', t, 'ports', p, 'cap'],
        }));
      }),
    why: 'Fuel and air in one neck go gulp by gulp: a nozzle clicks off, a can spits.',
    mend: 'Fill slowly by can or funnel, or give it a vent of its own.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'vent.filler-narrow',
    title: 'Filler too narrow for a nozzle',
    stage: 'vents',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        tank.ports.flatMap((port, p) =>
          when(port.role === 'filler' && port.bore_m.value < SPLASH_BORE_M, () => ({
            what: say(`${port.name} is {bore} wide; a station nozzle is {least} to {most}.`, {
              least: { value: 0.021, role: 'bore' },
              most: { value: 0.025, role: 'bore' },
              bore: { value: port.bore_m.value, role: 'bore' },
            }),
            path: ['tanks', t, 'ports', p, 'bore_m'],
          })),
        ),
      ),
    why: 'It must then be filled by funnel or can, with splashing and static to mind.',
    mend: 'Fit a wider filler, or plan for a funnel that touches the tank.',
    source: 'nozzle spout sizes: common practice',
    status: 'common practice',
  },
  {
    id: 'fill.mixed-up',
    title: 'Two fillers that can be mixed up',
    stage: 'vents',
    severity: 'warn',
    test: ({ system }) => mixedUp(system),
    why: 'Two fillers side by side are one day mixed up: petrol in a diesel system wears its pump out and makes it flash like petrol; diesel in petrol stops the engine; water or urea ruins either.',
    mend: 'Set them apart, on other sides if that can be; unlike in size and cap; each with its fuel on it in words and colour. Wrong fuel in: do not switch on, drain all of it.',
    source: 'fillers of unlike liquids nearer than an arm’s length to each other: common practice',
    status: 'common practice',
  },
];

/** Within an arm's length one nozzle goes into either [m]. Common practice. */
const ARM_M = 0.8;

type Filler = {
  readonly tank: number;
  readonly port: number;
  readonly name: string;
  readonly fluid: FluidKey;
  readonly mark: FillerMark | undefined;
  readonly at: Vec3;
};

function mixedUp(system: Plan): Hit[] {
  const fillers = system.tanks.flatMap(({ ports, mounting, fluid, name }, tank) =>
    ports.flatMap((port, p): Filler[] =>
      port.role === 'filler'
        ? [
            {
              tank,
              port: p,
              name: `${port.name} of ${name}`,
              fluid: system.fluids.find(({ id }) => id === fluid)!.fluid,
              mark: port.mark,
              // Turns of the tank move a filler by less than an arm.
              at: [
                mounting.x_m.value + (port.x_m?.value ?? 0),
                mounting.y_m.value + (port.y_m?.value ?? 0),
                mounting.z_m.value + (port.z_m?.value ?? 0),
              ],
            },
          ]
        : [],
    ),
  );
  return fillers.flatMap((one, i) =>
    fillers.slice(i + 1).flatMap((other): Hit[] => {
      const apart = Math.hypot(one.at[0] - other.at[0], one.at[1] - other.at[1], one.at[2] - other.at[2]);
      const fault = markFault(one.mark, other.mark);
      return when(one.fluid !== other.fluid && apart < ARM_M && fault !== undefined, () => ({
        what: say(
          `${one.name} (${FLUIDS[one.fluid].name}) and ${other.name} (${FLUIDS[other.fluid].name}) are {apart} apart, and ${fault}.`,
          { apart: { value: apart, role: 'tape' } },
        ),
        path: ['tanks', other.tank, 'ports', other.port, 'mark'],
      }));
    }),
  );
}

/** What its cap has to do with it. */
function capNote({ ports }: Plan['tanks'][number]): string {
  const cap = ports.find(({ role }) => role === 'filler')?.cap;
  if (!cap) return '';
  if (cap.kind === 'screw' && cap.shut === true) return ', for the screw of its cap is shut';
  return cap.kind === 'plain' ? ', and a plain cap' : ', and how wide the hole of its cap is has not been said';
}

/** By how much a shut ullage full of air gains when it warms by so much, its fuel aside [Pa]. */
const warmed_Pa = (ambient_Pa: number, from_K: number): number => (ambient_Pa * WARMS_K) / from_K;
/** Common practice: a tank in the sun warms by so much [K]. */
const WARMS_K = 30;

function ventPath(tanks: readonly { ports: readonly { role: string }[] }[]): (string | number)[] {
  const t = tanks.findIndex((tank) => tank.ports.some((port) => port.role === 'vent'));
  if (t < 0) return ['tanks', 0, 'ports'];
  return ['tanks', t, 'ports', tanks[t]!.ports.findIndex((port) => port.role === 'vent'), 'bore_m'];
}
