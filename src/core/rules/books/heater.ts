import { say, type RuleContext } from '../rule';
import { reachedTanks } from '../../plan/circuits';
import { never, TEST, type BookRule } from './clause';

/** Tanks that a heater draws from; all where the plan has no heater yet. */
const heaterTanks = ({ system }: RuleContext): number[] => {
  const heaters = system.consumers.filter(({ kind }) => kind === 'heater');
  const reached = heaters.flatMap(({ id }) => reachedTanks(system, id).map(({ tank }) => tank));
  return reached.length > 0 ? [...new Set(reached)] : system.tanks.map((_, t) => t);
};

/** Combustion heaters in vehicles: UN Regulation 122, its part on heaters that burn liquid fuel. */
export const HEATER: readonly Omit<BookRule, 'book' | 'id'>[] = [
  {
    clause: 'UN R122, fuel supply, filler',
    title: 'The heater’s filler is outside the cabin',
    stage: 'ports',
    severity: 'stop',
    why: 'Fuel spilled while filling, and its vapour, stay in a cabin.',
    mend: 'Fill from outside.',
    lacks: never('where a filler is reached from is not in the plan'),
  },
  {
    clause: 'UN R122, fuel supply, cap',
    title: 'Its cap keeps fuel in',
    stage: 'vents',
    severity: 'warn',
    why: 'A hole in a cap that fuel reaches on a slope lets it out.',
    mend: 'A vent that stays dry on every slope asked for, or a cap without a hole and a vent line.',
    test: (context) =>
      heaterTanks(context).flatMap((t) => {
        const tank = context.system.tanks[t]!;
        return (context.evaluation.tanks[t]?.floodedVents ?? []).map(({ id, lost_m3 }) => ({
          what: say(`{lost} of ${tank.name} would run out by ${tank.ports.find((port) => port.id === id)!.name}.`, {
            lost: { value: lost_m3, role: 'tankVolume' },
          }),
          path: ['tanks', t, 'ports', tank.ports.findIndex((port) => port.id === id), 'x_m'],
        }));
      }),
  },
  {
    clause: 'UN R122, fuel supply, label',
    title: 'The fuel is named at a separate filler',
    stage: 'ports',
    severity: 'note',
    why: 'A heater filled with the wrong fuel burns down what it stands in.',
    mend: 'A label of the fuel at the filler.',
    lacks: never('labels are not in the plan'),
  },
  {
    clause: 'UN R122, fuel supply, notice',
    title: 'A notice at the filler: off before filling',
    stage: 'ports',
    severity: 'note',
    why: 'A burning heater lights what is spilled.',
    mend: 'A notice that the heater is shut down before filling.',
    lacks: never('notices are not in the plan'),
  },
  {
    clause: 'UN R122, exhaust',
    title: 'No exhaust gets back in',
    stage: 'fit',
    severity: 'stop',
    why: 'Carbon monoxide kills sleepers.',
    mend: 'The exhaust ends outside, away from vents, doors and windows, its pipe tight and shielded.',
    lacks: never('the heater’s exhaust is not in the plan'),
  },
  {
    clause: 'UN R122, combustion air',
    title: 'Air for burning does not come from the cabin',
    stage: 'fit',
    severity: 'stop',
    why: 'It would pull exhaust in.',
    mend: 'Draw it from outside.',
    lacks: never('the heater’s air is not in the plan'),
  },
  {
    clause: 'UN R122, heating air',
    title: 'Air for heating is clean',
    stage: 'fit',
    severity: 'warn',
    why: 'Air from an engine bay carries fumes.',
    mend: 'Draw it from a clean place, guarded.',
    lacks: never('the heater’s air is not in the plan'),
  },
  {
    clause: 'UN R122, location',
    title: 'Heater and its parts stand guarded, and far from what burns',
    stage: 'fit',
    severity: 'warn',
    why: 'Its case and exhaust are hot.',
    mend: 'Guards, distance, and shields.',
    lacks: never('where the heater stands is not in the plan'),
  },
  {
    clause: 'UN R122, tests of the heater',
    title: 'The heater is of an approved type',
    stage: 'lines',
    severity: 'warn',
    why: 'Emissions, wind and flame-out are tried on the heater itself.',
    mend: 'An approved heater, put in as its maker says, by somebody qualified.',
    lacks: never(TEST),
  },
  {
    clause: 'UN R122, shut down',
    title: 'It stops by itself when its flame goes out',
    stage: 'lines',
    severity: 'stop',
    why: 'A pump that goes on floods a hot chamber.',
    mend: 'The pump wired through the heater’s own controls, never to a switch of its own.',
    lacks: never('the heater’s controls are not in the plan'),
  },
];
