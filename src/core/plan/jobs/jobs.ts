import { VESSELS, type VesselRow } from '../../reference/vessels';
import { draftSystem } from '../draft';
import type { SystemDocument } from '../schema';
import { withAppliance } from './appliance';
import { benchBottle } from './bottle';
import { emptySystem } from './emptySystem';
import { EXPELLED, expelledTank } from './expelled';
import {
  choice,
  consumerOf,
  fluidOf,
  neededSize,
  oneAnswer,
  size,
  sizeOf,
  vehicleOf,
  type Job,
  type JobAnswers,
} from './job';
import { withInTankPump, withSump } from './retrofit';
import { withReturn } from './returnLine';
import { JOINED_BY, STANDS, withSecondTank } from './secondTank';
import { withSurgePot } from './surgePot';
import { transferTank } from './transferTank';
import { waterTank } from './waterTank';

const VEHICLE = {
  boat: 'a boat',
  road: 'a road vehicle',
  snow: 'a snow or off-road vehicle',
  competition: 'a competition vehicle',
  trailer: 'a trailer',
  bench: 'the bench',
};
const ENGINE = {
  'diesel-engine': 'a diesel engine',
  'petrol-injection': 'a petrol engine with injection',
  'petrol-carburettor': 'a petrol engine with carburettor',
};
const POWER_W = [200, 2e6] as const;
const VOLUME_M3 = [2e-4, 5] as const;
const SIZE_M = [0.02, 20] as const;
const RUN_M = [0.1, 100] as const;

const vehicle = choice('vehicle', 'What is it in?', VEHICLE);
const engine = choice('consumer', 'What does it feed?', ENGINE);
const power = size('power_W', 'How strong is the engine?', 'power', POWER_W);
const holds = size('holds_m3', 'How much should it hold?', 'tankVolume', VOLUME_M3, {
  hint: 'At the fill limit, not to the brim.',
});
const run = size('run_m', 'How long is the line?', 'run', RUN_M, {
  isOptional: true,
  hint: 'Empty where not known yet.',
});

const main = (name: string, answers: JobAnswers, holds_m3: number): SystemDocument =>
  withReturn(
    draftSystem({
      name,
      vehicle: vehicleOf(answers),
      consumer: consumerOf(answers),
      power_W: neededSize(answers, 'power_W'),
      holds_m3,
      length_m: sizeOf(answers, 'length_m'),
      width_m: sizeOf(answers, 'width_m'),
      height_m: sizeOf(answers, 'height_m'),
      run_m: sizeOf(answers, 'run_m'),
    }),
  );

/** What is there already is not cut again. */
const existing = (system: SystemDocument): SystemDocument => ({
  ...system,
  tanks: system.tanks.map((tank) => ({ ...tank, ports: tank.ports.map((port) => ({ ...port, existing: true })) })),
});

/** A heater of its own in what drives on land is under the rules for such heaters. */
const underItsBook = (system: SystemDocument, kind: 'heater' | 'generator'): SystemDocument =>
  kind === 'heater' && system.vehicle.kind !== 'boat' && system.vehicle.kind !== 'bench'
    ? { ...system, rulebook: 'vehicle-heater' }
    : system;

const USUAL_HOSE_M = 4;

/** Bought vessels that fuel is carried in: those that a standpipe goes into. */
const TRANSFER_VESSELS = VESSELS.filter(({ openings_m }) => openings_m.length >= 2);

/** How much a transfer tank holds: as asked, or what its vessel takes. */
function heldIn(answers: JobAnswers): { readonly holds_m3: number; readonly vessel?: VesselRow } {
  const vessel = TRANSFER_VESSELS.find(({ key }) => key === answers.vessel);
  return vessel ? { vessel, holds_m3: vessel.nominal_m3 } : { holds_m3: neededSize(answers, 'holds_m3') };
}

/** Every kind of job that builders come with; the start page is made from this table. */
export const JOBS: readonly Job[] = [
  {
    key: 'main',
    title: 'Main tank',
    about: 'A new or replacement tank for an engine, with feed, return, fill and vent.',
    questions: [
      vehicle,
      engine,
      power,
      holds,
      size('length_m', 'Inside length, where known', 'tape', SIZE_M, { isOptional: true }),
      size('width_m', 'Inside width, where known', 'tape', SIZE_M, { isOptional: true }),
      size('height_m', 'Inside height, where known', 'tape', SIZE_M, { isOptional: true }),
      run,
    ],
    usual: { vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 },
    draft: (name, answers) => main(name, answers, neededSize(answers, 'holds_m3')),
  },
  {
    key: 'auxiliary',
    title: 'Auxiliary tank',
    about: 'A second tank that refills the main one or takes turns with it.',
    questions: [
      vehicle,
      engine,
      power,
      size('main_m3', 'How much does the main tank hold?', 'tankVolume', VOLUME_M3),
      size('holds_m3', 'How much should the auxiliary hold?', 'tankVolume', VOLUME_M3),
      choice('by', 'How does the fuel get across?', {
        pump: 'by a transfer pump',
        gravity: 'by gravity, from above',
        vacuum: 'by the vacuum of a main whose breathers are shut',
        selector: 'a selector valve: the engine draws from either',
      }),
      choice('stands', 'Where does it stand?', {
        behind: 'behind the main tank',
        beside: 'beside it',
        above: 'above it',
      }),
    ],
    usual: {
      vehicle: 'road',
      consumer: 'diesel-engine',
      power_W: 110e3,
      main_m3: 0.08,
      holds_m3: 0.1,
      by: 'pump',
      stands: 'behind',
    },
    draft: (name, answers) =>
      withSecondTank(existing(main(name, answers, neededSize(answers, 'main_m3'))), 0, {
        holds_m3: neededSize(answers, 'holds_m3'),
        by: oneAnswer(answers, 'by', JOINED_BY),
        stands: oneAnswer(answers, 'stands', STANDS),
        vent: 'vent-line',
      }),
  },
  {
    key: 'transfer',
    title: 'Transfer tank or drum',
    about: 'Fuel carried to machines: pump, filter, meter, hose and nozzle.',
    questions: [
      choice('vehicle', 'What carries it?', {
        trailer: 'a trailer',
        road: 'a vehicle’s bed',
        boat: 'a boat',
        bench: 'a pallet or skid',
      }),
      choice('fluid', 'What does it carry?', {
        diesel: 'diesel',
        petrol: 'petrol',
        'heating-oil': 'heating oil',
        urea: 'urea solution',
        water: 'water',
      }),
      choice('vessel', 'What is it in?', {
        made: 'a tank that is made for it',
        ...Object.fromEntries(TRANSFER_VESSELS.map(({ key, name }) => [key, name])),
      }),
      size('holds_m3', 'How much should it hold?', 'tankVolume', VOLUME_M3, {
        hint: 'At the fill limit, not to the brim.',
        when: ({ vessel }) => vessel === undefined || vessel === 'made',
      }),
      size('moves_m3', 'How much is a fill?', 'tankVolume', [1e-3, 5]),
      size('rated_m3PerS', 'What does the pump’s plate say?', 'transfer', [1e-5, 5e-3]),
      size('hose_m', 'How long is the hose?', 'run', [0.5, 60], { isOptional: true, hint: 'Empty for a usual one.' }),
      choice('meter', 'Is there a meter?', { yes: 'yes', no: 'no' }),
    ],
    usual: {
      vehicle: 'trailer',
      fluid: 'diesel',
      vessel: 'made',
      holds_m3: 0.4,
      moves_m3: 0.1,
      rated_m3PerS: 50e-3 / 60,
      hose_m: 4,
      meter: 'yes',
    },
    draft: (name, answers) =>
      transferTank({
        name,
        vehicle: vehicleOf(answers),
        fluid: fluidOf(answers),
        ...heldIn(answers),
        moves_m3: neededSize(answers, 'moves_m3'),
        rated_m3PerS: neededSize(answers, 'rated_m3PerS'),
        hose_m: sizeOf(answers, 'hose_m') ?? USUAL_HOSE_M,
        meter: oneAnswer(answers, 'meter', ['yes', 'no']),
      }),
  },
  {
    key: 'appliance',
    title: 'Heater or generator',
    about: 'A second consumer, on a tank of its own or on the main tank.',
    questions: [
      choice('vehicle', 'What is it in?', VEHICLE),
      choice('kind', 'What does it feed?', { heater: 'a heater', generator: 'a generator' }),
      size('appliance_W', 'How strong is it?', 'power', [500, 1e5]),
      choice('from', 'What does it draw from?', {
        own: 'a tank of its own',
        tank: 'the main tank, by a pickup of its own',
      }),
      size('holds_m3', 'How much should its tank hold?', 'tankVolume', [2e-4, 1], {
        when: ({ from }) => from !== 'tank',
      }),
      size('main_m3', 'How much does the main tank hold?', 'tankVolume', VOLUME_M3, {
        when: ({ from }) => from === 'tank',
      }),
      size('power_W', 'How strong is the engine on it?', 'power', POWER_W, { when: ({ from }) => from === 'tank' }),
      run,
    ],
    usual: {
      vehicle: 'road',
      kind: 'heater',
      appliance_W: 4e3,
      from: 'own',
      holds_m3: 0.01,
      main_m3: 0.07,
      power_W: 100e3,
    },
    draft: (name, answers) => {
      const kind = oneAnswer(answers, 'kind', ['heater', 'generator']);
      const asked = { kind, power_W: neededSize(answers, 'appliance_W'), run_m: sizeOf(answers, 'run_m') } as const;
      if (answers.from !== 'tank')
        return withAppliance(underItsBook(emptySystem(name, vehicleOf(answers), 'diesel'), kind), {
          ...asked,
          from: 'own',
          holds_m3: neededSize(answers, 'holds_m3'),
        });
      const engined = { ...answers, consumer: 'diesel-engine', run_m: undefined };
      return withAppliance(existing(main(name, engined, neededSize(answers, 'main_m3'))), {
        ...asked,
        from: 'tank',
        tank: 0,
      });
    },
  },
  {
    key: 'surge',
    title: 'Surge pot, sump or in-tank pump',
    about: 'Keeps an injection pump fed from a tank that is there, when fuel is low or thrown about.',
    questions: [
      vehicle,
      power,
      size('main_m3', 'How much does the tank hold?', 'tankVolume', VOLUME_M3),
      choice('fed', 'How is it kept fed?', {
        pot: 'a surge pot beside the tank',
        sump: 'a sump welded under the tank',
        pump: 'a pump module hung in the tank',
      }),
      size('pot_m3', 'How much should pot or sump hold?', 'tankVolume', [2e-4, 0.05], {
        when: ({ fed }) => fed !== 'pump',
      }),
    ],
    usual: { vehicle: 'competition', power_W: 200e3, main_m3: 0.05, fed: 'pot', pot_m3: 2e-3 },
    draft: (name, answers) => {
      const base = existing(main(name, { ...answers, consumer: 'petrol-injection' }, neededSize(answers, 'main_m3')));
      const fed = oneAnswer(answers, 'fed', ['pot', 'sump', 'pump']);
      const made =
        fed === 'pump'
          ? withInTankPump(base)
          : (fed === 'pot' ? withSurgePot : withSump)(base, neededSize(answers, 'pot_m3'));
      return made ?? base;
    },
  },
  {
    key: 'expelled',
    title: 'Catch, coolant or overflow tank',
    about: 'Room for what an engine throws out; nothing is fed from it.',
    questions: [
      vehicle,
      choice('what', 'What comes into it?', {
        catch: 'oil from the crankcase',
        coolant: 'coolant',
        overflow: 'fuel from a vent',
      }),
      size('source_m3', 'How much is there of it in all?', 'tankVolume', [1e-4, 5], {
        hint: 'Oil in the engine, coolant in the whole system, or fuel in the tank.',
      }),
      choice(
        'school',
        'How large?',
        { full: 'as much as the engine has: it may all come at once', small: 'small, and emptied often' },
        { when: ({ what }) => what === 'catch' },
      ),
      size('power_W', 'How strong is the engine?', 'power', POWER_W, {
        when: ({ what }) => what === 'catch',
        hint: 'The gas past its rings follows from that.',
      }),
    ],
    usual: { vehicle: 'competition', what: 'catch', source_m3: 4e-3, school: 'full', power_W: 100e3 },
    draft: (name, answers) =>
      expelledTank({
        name,
        vehicle: vehicleOf(answers),
        what: oneAnswer(answers, 'what', EXPELLED),
        source_m3: neededSize(answers, 'source_m3'),
        school: oneAnswer(answers, 'school', ['full', 'small']),
        power_W: sizeOf(answers, 'power_W'),
      }),
  },
  {
    key: 'bottle',
    title: 'Bench bottle',
    about: 'A litre or so hung above a carburettor, on gravity.',
    questions: [
      size('holds_m3', 'How much should it hold?', 'tankVolume', [1e-4, 0.02]),
      size('above_m', 'How far does its foot hang over the carburettor?', 'tape', [0.05, 5]),
      power,
    ],
    usual: { holds_m3: 1e-3, above_m: 0.4, power_W: 30e3 },
    draft: (name, answers) =>
      benchBottle({
        name,
        holds_m3: neededSize(answers, 'holds_m3'),
        above_m: neededSize(answers, 'above_m'),
        power_W: neededSize(answers, 'power_W'),
      }),
  },
  {
    key: 'water',
    title: 'Water or urea tank',
    about: 'Tank, pump and line for what does not burn.',
    questions: [vehicle, choice('fluid', 'What is in it?', { water: 'water', urea: 'urea solution' }), holds, run],
    usual: { vehicle: 'boat', fluid: 'water', holds_m3: 0.1 },
    draft: (name, answers) =>
      waterTank({
        name,
        vehicle: vehicleOf(answers),
        fluid: oneAnswer(answers, 'fluid', ['water', 'urea']),
        holds_m3: neededSize(answers, 'holds_m3'),
        run_m: sizeOf(answers, 'run_m'),
      }),
  },
];
