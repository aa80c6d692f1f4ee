import { FLUIDS } from '../reference/fluids';
import { fluidAt } from '../plan/circuits';
import type { ComponentDocument, Plan } from '../plan/schema';
import { fillingsOf } from '../plan/filled';
import { isHarmless } from './lacks';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

type OfKind<K extends ComponentDocument['kind']> = Extract<ComponentDocument, { kind: K }>;

const partsOf = <K extends ComponentDocument['kind']>(system: Plan, kind: K) =>
  system.components.flatMap((part, index) =>
    part.kind === kind ? [{ part: part as OfKind<K>, at: (key: string) => ['components', index, key] }] : [],
  );

/** Each cooling system with what comes out of it. */
const coolingOf = ({ system, evaluation }: RuleContext) =>
  partsOf(system, 'cooling-system').flatMap(({ part, at }) => {
    const given = evaluation.expelled.find(({ source }) => source === part.id);
    return given ? [{ part, at, ...given }] : [];
  });

/** Less than this share of a tank below its drain is a film. Common practice. */
const DRAINS_RATIO = 0.03;
/** A wheel reaches so far before and behind its axle [m]. Common practice. */
const WHEEL_M = 0.35;

/** What engines throw out, where open ends are, and what a nozzle fills. */
export const EXPELLED_RULES: readonly Rule[] = [
  {
    id: 'expelled.nowhere',
    title: 'What the engine throws out has no tank',
    stage: 'lines',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.expelled.flatMap(({ source, name, tank }) =>
        when(tank === undefined, () => ({
          what: say(`${name} leads to no tank: what comes out of it ends on the ground, or on something hot.`),
          path: pathOf(system, source),
        })),
      ),
    why: 'Oil and coolant on a tyre, an exhaust or the road hurt people and are against the law in most places.',
    mend: 'Lead it to a catch or recovery tank by a new run, at Lines.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'expelled.too-small',
    title: 'Less room than may come',
    stage: 'tank',
    severity: 'warn',
    needs: ['expelled'],
    test: ({ system, evaluation }) =>
      evaluation.expelled.flatMap(({ source, name, kind, tank, comes, room_m3 }): Hit[] =>
        tank && comes.ok && room_m3 !== undefined && room_m3 < comes.value
          ? [
              {
                what: say(`{comes} may come from ${name} at once, and ${tank.name} has room for {room}.`, {
                  comes: { value: comes.value, role: 'tankVolume' },
                  room: { value: room_m3, role: 'tankVolume' },
                }),
                path: pathOf(system, source),
                // A small one that is emptied often is one of the two schools.
                severity: kind === 'crankcase' && system.practice.catchTank !== 'full' ? 'note' : 'warn',
              },
            ]
          : [],
      ),
    why: 'What has no room goes out by the breather. Of oil, one school takes a tank for all of it; the other a small one, emptied often.',
    mend: 'A larger tank, less standing in it when it is cold, or, of oil, a look into it after every run.',
    source: 'volume against volume; the two schools are common practice',
    status: 'common practice',
  },
  {
    id: 'expelled.back-pressure',
    title: 'The crankcase cannot breathe',
    stage: 'lines',
    severity: 'warn',
    needs: ['expelled'],
    test: ({ system, evaluation }) =>
      partsOf(system, 'crankcase').flatMap(({ part, at }): Hit[] => {
        const pressure = evaluation.expelled.find(({ source }) => source === part.id)?.pressure;
        if (!pressure) return [];
        if (!pressure.ok)
          return pressure.error.code === 'no-way-out'
            ? [{ what: say(pressure.error.detail), path: at('blowBy_m3PerS'), severity: 'stop' }]
            : [];
        return when(pressure.value > part.mostPressure_Pa.value, () => ({
          what: say(`With {blows} of blow-by ${part.name} stands at {pressure}; {most} is the most that it may have.`, {
            blows: { value: part.blowBy_m3PerS.value, role: 'transfer' },
            pressure: { value: pressure.value, role: 'pressure' },
            most: { value: part.mostPressure_Pa.value, role: 'pressure' },
          }),
          path: at('blowBy_m3PerS'),
        }));
      }),
    why: 'Pressure in the crankcase pushes oil past seals and rings, and out by the dipstick.',
    mend: 'Wider hoses and fewer bends, a larger breather, a clean or larger filter on it.',
    source: 'flow of gas as air, Darcy-Weisbach; what a crankcase may have is its maker’s to say',
    status: 'derived',
  },
  {
    id: 'expelled.wrong-tank',
    title: 'Leads to a tank of something else',
    stage: 'lines',
    severity: 'warn',
    needs: ['expelled'],
    test: ({ system, evaluation }) =>
      evaluation.expelled.flatMap(({ source, comes }): Hit[] =>
        !comes.ok && comes.error.code === 'other-fluid'
          ? [{ what: say(comes.error.detail), path: pathOf(system, source) }]
          : [],
      ),
    why: 'Coolant drawn back out of a tank of oil or fuel is oil or fuel in the engine’s cooling.',
    mend: 'Lead it to a bottle of coolant, or say what is in the tank.',
    source: 'fluid against fluid',
    status: 'derived',
  },
  {
    id: 'expelled.no-drain',
    title: 'Oil stays in the catch tank',
    stage: 'ports',
    severity: 'note',
    needs: ['expelled'],
    test: ({ system, evaluation }) =>
      evaluation.expelled.flatMap(({ tank, drainLeaves_m3 }): Hit[] => {
        const t = system.tanks.findIndex(({ id }) => id === tank?.id);
        const gross_m3 = evaluation.tanks[t]?.gross_m3;
        if (t < 0 || drainLeaves_m3 === undefined || gross_m3 === undefined) return [];
        const drain = system.tanks[t]!.ports.findIndex(({ role }) => role === 'drain');
        if (drain < 0) return [{ what: say(`${tank!.name} has no drain.`), path: ['tanks', t, 'ports'] }];
        return when(drainLeaves_m3 > DRAINS_RATIO * gross_m3, () => ({
          what: say(`{left} of {all} stays in ${tank!.name} below its drain.`, {
            left: { value: drainLeaves_m3, role: 'tankVolume' },
            all: { value: gross_m3, role: 'tankVolume' },
          }),
          path: ['tanks', t, 'ports', drain],
        }));
      }),
    why: 'Water gathers under the oil and freezes or rots it, and what is left in it takes the room of what may come.',
    mend: 'A drain at its lowest place; let its floor, or the divider that is its floor, fall to there.',
    source: 'common practice; what is left by volume',
    status: 'common practice',
  },
  {
    id: 'expelled.over-wheels',
    title: 'Over a wheel',
    stage: 'fit',
    severity: 'note',
    needs: ['expelled', 'expelled-axles'],
    test: ({ system, evaluation }) =>
      system.practice.expelledPlace === 'ballast'
        ? []
        : evaluation.expelled.flatMap(({ tank, along_m }): Hit[] => {
            const t = system.tanks.findIndex(({ id }) => id === tank?.id);
            const axle = (system.stance?.axles ?? []).find(
              ({ x_m }) => along_m && along_m[0] < x_m.value + WHEEL_M && along_m[1] > x_m.value - WHEEL_M,
            );
            return t >= 0 && axle
              ? [
                  {
                    what: say(`${tank!.name} is at the wheels of ${axle.name}.`),
                    path: ['tanks', t, 'mounting', 'x_m'],
                  },
                ]
              : [];
          }),
    why: 'What leaks out of it or runs over falls on a tyre, and the vehicle slides.',
    mend: 'Place it clear of the wheels; or take it as ballast on purpose, boxed in, with its breather led away.',
    source: 'common practice; a wheel is taken as 0.35 m before and behind its axle',
    status: 'common practice',
  },
  {
    id: 'coolant.draws-air',
    title: 'The coolant bottle lets air in',
    stage: 'tank',
    severity: 'warn',
    needs: ['expelled'],
    test: (context) =>
      coolingOf(context).flatMap(({ part, at, tank, isCovered, coolant }): Hit[] => {
        if (!tank || isCovered === undefined) return [];
        if (!isCovered)
          return [
            {
              what: say(`As it stands the mouth in ${tank.name} that ${part.name} draws back by is not covered.`),
              path: at('coolant_m3'),
            },
          ];
        return coolant && coolant.coldLeft_m3 < coolant.marks.cold.volume_m3
          ? [
              {
                what: say(
                  `Cooled to {cold}, {left} is left in ${tank.name}; {least} covers its mouth at the slopes asked for.`,
                  {
                    cold: { value: part.cold_K.value, role: 'temperature' },
                    left: { value: coolant.coldLeft_m3, role: 'tankVolume' },
                    least: { value: coolant.marks.cold.volume_m3, role: 'tankVolume' },
                  },
                ),
                path: at('cold_K'),
              },
            ]
          : [];
      }),
    why: 'As it cools the system draws back what it gave. From an empty bottle or by a mouth in the air it draws air, and overheats.',
    mend: 'Lead the hose in at the bottom, and fill it cold to its cold mark.',
    source: 'common practice; covered by a bore of the mouth',
    status: 'common practice',
  },
  {
    id: 'coolant.no-room',
    title: 'The bottle runs over when hot',
    stage: 'tank',
    severity: 'warn',
    needs: ['expelled'],
    test: (context) =>
      coolingOf(context).flatMap(({ part, at, tank, coolant }): Hit[] => {
        const marks = coolant?.marks;
        return marks && marks.hot.volume_m3 > marks.holds_m3
          ? [
              {
                what: say(
                  `Filled cold to what covers its mouth, ${tank!.name} has {hot} in it at {temperature}, and holds {holds}.`,
                  {
                    hot: { value: marks.hot.volume_m3, role: 'tankVolume' },
                    temperature: { value: part.hot_K.value, role: 'temperature' },
                    holds: { value: marks.holds_m3, role: 'tankVolume' },
                  },
                ),
                path: at('coolant_m3'),
              },
            ]
          : [];
      }),
    why: 'What runs over when hot is missing when it is cold: the bottle is sucked empty, and the engine gets air.',
    mend: 'A larger or taller bottle, or its mouth lower, so that less has to stand in it cold.',
    source: 'volume against volume; covered by a bore of the mouth (common practice)',
    status: 'common practice',
  },
  {
    id: 'coolant.boils',
    title: 'Coolant boils under its cap',
    stage: 'lines',
    severity: 'warn',
    needs: ['expelled'],
    test: (context) =>
      coolingOf(context).flatMap(({ part, at, boils }): Hit[] => {
        return boils?.ok && boils.value > part.cap_Pa.value
          ? [
              {
                what: say(`At {hot} it boils below {boils} over the air outside, and the cap opens at {cap}.`, {
                  hot: { value: part.hot_K.value, role: 'temperature' },
                  boils: { value: boils.value, role: 'pressure' },
                  cap: { value: part.cap_Pa.value, role: 'pressure' },
                }),
                path: at('cap_Pa'),
              },
            ]
          : [];
      }),
    why: 'Boiling coolant throws out far more than it swells by, and scalds. Never open a hot cap.',
    mend: 'A cap of the pressure that the engine’s maker has, and cooling that keeps it colder.',
    source: 'vapour pressure of water (IAPWS), which boils sooner than a mixture: the safe side',
    status: 'derived',
  },
  {
    id: 'open-end.inside',
    title: 'Open end in a closed space',
    stage: 'vents',
    severity: 'stop',
    needs: ['open-ends'],
    test: ({ system }) =>
      partsOf(system, 'outlet').flatMap(({ part, at }) => {
        const fluid = fluidAt(system, part.id);
        const { place } = part;
        return when(place === 'bilge' || place === 'occupied', () => ({
          what: say(
            `${part.name}${fluid ? ` of ${FLUIDS[fluid].name}` : ''} ends ${place === 'bilge' ? 'in a bilge or a closed bay' : 'where people sit or sleep'}.`,
          ),
          path: at('place'),
          // Water in a bilge is a nuisance.
          severity: isHarmless(fluid) ? ('note' as const) : ('stop' as const),
        }));
      }),
    why: 'Vapour that gathers in a closed space burns or explodes, and poisons who breathes it.',
    mend: 'Lead it outside, high and sheltered, away from heat, doors and air intakes.',
    source: 'common practice; boat and road law say the same',
    status: 'common practice',
  },
  {
    id: 'open-end.no-screen',
    title: 'Vent without a screen',
    stage: 'vents',
    severity: 'note',
    needs: ['screens'],
    test: ({ system }) =>
      partsOf(system, 'outlet').flatMap(({ part, at }) =>
        when(
          part.screened === false &&
            part.place !== 'can' &&
            system.lines.some(({ purpose, from, to }) => purpose === 'vent' && [from.item, to.item].includes(part.id)),
          () => ({ what: say(`${part.name} of a vent has no screen.`), path: at('screened') }),
        ),
      ),
    why: 'Insects build in open vents, and a blocked vent stops the engine; on petrol a screen stops a flame.',
    mend: 'A fine metal screen, as wide as the hose or wider, that can be cleaned.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'nozzle.does-not-enter',
    title: 'The spout does not go in',
    stage: 'lines',
    severity: 'stop',
    needs: ['spouts'],
    test: ({ system }) =>
      filled(system).flatMap(({ consumer, receiver, index }) =>
        when(consumer.nozzle !== undefined && consumer.nozzle.spout_m.value >= receiver.opening_m.value, () => ({
          what: say(`The spout of ${consumer.name} is {spout}, the opening of ${receiver.name} {opening}.`, {
            spout: { value: consumer.nozzle!.spout_m.value, role: 'bore' },
            opening: { value: receiver.opening_m.value, role: 'bore' },
          }),
          path: ['components', index, 'opening_m'],
        })),
      ),
    why: 'A spout that stands over the opening spills, and an automatic one never shuts.',
    mend: 'A smaller spout, or a funnel that is made for it, with the shut-off by hand.',
    source: 'size against size',
    status: 'derived',
  },
  {
    id: 'nozzle.backs-up',
    title: 'Faster than the neck takes it',
    stage: 'lines',
    severity: 'warn',
    needs: ['flows', 'backs-up'],
    test: ({ system, evaluation }) =>
      filled(system).flatMap(({ k, consumer, receiver, index }): Hit[] => {
        const flow = evaluation.flows[k];
        const most = receiver.backsUp_m3PerS?.value;
        return flow?.ok && most !== undefined && flow.value.delivered_m3PerS > most
          ? [
              {
                what: say(`${consumer.name} gives {flow}, and ${receiver.name} backs up from {most} on.`, {
                  flow: { value: flow.value.delivered_m3PerS, role: 'transfer' },
                  most: { value: most, role: 'transfer' },
                }),
                path: ['components', index, 'backsUp_m3PerS'],
              },
            ]
          : [];
      }),
    why: 'Fuel that backs up spits from the neck; an automatic nozzle clicks off over and over, a manual one does not.',
    mend: 'A slower notch or pump, or a wider neck with its own breather.',
    source: 'flow against flow',
    status: 'derived',
  },
  {
    id: 'nozzle.fill-too-large',
    title: 'A fill is more than it takes',
    stage: 'lines',
    severity: 'warn',
    needs: ['filled'],
    test: ({ system }) =>
      filled(system).flatMap(({ consumer, receiver, index }) => {
        const fill = system.wishes.moves_m3;
        return when(fill !== undefined && fill.value > receiver.takes_m3.value, () => ({
          what: say(`A fill is {fill}, and ${receiver.name} takes {takes}.`, {
            fill: { value: fill!.value, role: 'tankVolume' },
            takes: { value: receiver.takes_m3.value, role: 'tankVolume' },
          }),
          path: ['components', index, 'takes_m3'],
          // One that shuts by itself stops there.
          severity: consumer.nozzle?.stops === 'automatic' ? ('note' as const) : ('warn' as const),
        }));
      }),
    why: 'Who relies on a meter or a clock fills until it runs over.',
    mend: 'Say what a fill really is, or stop at what it takes.',
    source: 'volume against volume',
    status: 'derived',
  },
  {
    id: 'nozzle.by-hand',
    title: 'Nothing shuts the nozzle but a hand',
    stage: 'lines',
    severity: 'note',
    needs: ['flows', 'spouts'],
    test: ({ system, evaluation }) =>
      filled(system).flatMap(({ k, consumer, receiver }): Hit[] => {
        const flow = evaluation.flows[k];
        return consumer.nozzle?.stops === 'manual' && flow?.ok && flow.value.delivered_m3PerS > 0
          ? [
              {
                what: say(`${receiver.name} is full in {time}, and ${consumer.name} goes on until somebody shuts it.`, {
                  time: { value: receiver.takes_m3.value / flow.value.delivered_m3PerS, role: 'duration' },
                }),
                path: ['consumers', k, 'nozzle'],
              },
            ]
          : [];
      }),
    why: 'A can runs over in seconds; with petrol that is a fire.',
    mend: 'Stay at it, hand on the lever, or fit a nozzle that shuts by itself.',
    source: 'volume ÷ flow',
    status: 'derived',
  },
];

/** Where the amount of what comes out of a part is entered. */
const pathOf = (system: Plan, source: string) => {
  const index = system.components.findIndex(({ id }) => id === source);
  return ['components', index, system.components[index]?.kind === 'crankcase' ? 'oil_m3' : 'coolant_m3'];
};

/** Nozzles with what they are held into. */
const filled = (system: Plan) =>
  fillingsOf(system).flatMap(({ k, consumer, receiver }) =>
    receiver ? [{ k, consumer, receiver, index: system.components.indexOf(receiver) }] : [],
  );
