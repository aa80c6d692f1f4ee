import { letsAirIn } from '../../plan/caps';
import { feedPath } from '../../plan/circuits';
import { standsOn } from '../../model/portSeat';
import { airState } from '../../fluids';
import { ventLaw } from '../../network';
import { say, type Hit } from '../rule';
import {
  type BookRule,
  TEST,
  never,
  isPetrol,
  eachTank,
  eachPort,
  hasPump,
  drivenBy,
  holdsNotSaid,
  TWENTY_GALLONS_A_MINUTE,
  FILLS_FREELY_PA,
  LOWEST_DRAIN_M,
  MOST_FILL_RATIO,
  isLarge,
} from './clause';

export const TRUCK: readonly Omit<BookRule, 'book' | 'id'>[] = [
  {
    clause: '49 CFR 393.65(b)(1)',
    title: 'No part of the system wider than the vehicle',
    stage: 'fit',
    severity: 'stop',
    why: 'What sticks out is what is struck first.',
    mend: 'Set it inward, or put a guard of the frame’s strength outside it.',
    lacks: never('how wide the vehicle is, is not in the plan'),
  },
  {
    clause: '49 CFR 393.65(b)(2)',
    title: 'No tank forward of the front axle',
    stage: 'fit',
    severity: 'stop',
    why: 'In front of the axle a tank is in the crash.',
    mend: 'Set it behind the front axle.',
    lacks: never('where the front axle is, is not in the plan'),
  },
  {
    clause: '49 CFR 393.65(b)(3)',
    title: 'Fuel spilled while filling falls on no exhaust and no electrics',
    stage: 'fit',
    severity: 'stop',
    why: 'A spill on a hot pipe is a fire at the pump.',
    mend: 'Move the filler, or lead spills away.',
    lacks: ({ system }) =>
      system.fit.obstacles.some(({ role }) => role === 'heat')
        ? 'what lies under the filler is not looked at'
        : 'no hot part is in the plan',
  },
  {
    clause: '49 CFR 393.65(b)(4)',
    title: 'Filler outside passenger and cargo space',
    stage: 'ports',
    severity: 'stop',
    why: 'Vapour of filling must not gather where people ride or freight lies.',
    mend: 'Lead the neck outside.',
    lacks: never('where a neck ends is not in the plan'),
  },
  {
    clause: '49 CFR 393.65(b)(5)',
    title: 'No fuel line from trailer to towing vehicle under way',
    stage: 'lines',
    severity: 'stop',
    why: 'It is torn off with the coupling.',
    mend: 'Carry the fuel of each on itself.',
    test: ({ system }) =>
      system.vehicle.kind === 'trailer' && drivenBy(system).length > 0
        ? [{ what: say('A tank on a trailer feeds an engine that drives: its line would cross the coupling.') }]
        : [],
  },
  {
    clause: '49 CFR 393.65(c)',
    title: 'Every tank secured to the vehicle',
    stage: 'fit',
    severity: 'stop',
    why: 'A full tank that comes loose goes through whatever is ahead of it.',
    mend: 'Plan its straps or brackets.',
    lacks: holdsNotSaid,
  },
  {
    clause: '49 CFR 393.65(d)',
    title: 'No feed by gravity or siphon straight to the engine',
    stage: 'lines',
    severity: 'stop',
    why: 'A broken line then empties the tank.',
    mend: 'Feed by a pump, from above the fuel.',
    test: ({ system }) =>
      drivenBy(system).flatMap(({ id, name }): Hit[] =>
        feedPath(system, id).length > 1 && !hasPump(system, id)
          ? [{ what: say(`${name} is fed without a pump.`), path: ['lines'] }]
          : [],
      ),
  },
  {
    clause: '49 CFR 393.65(e)',
    title: 'A selector that the driver can work from the seat, or that is worked without crawling under',
    stage: 'lines',
    severity: 'warn',
    why: 'Who has to lie on the road to change tanks is run over.',
    mend: 'Set the selector within reach.',
    lacks: ({ system }) =>
      system.components.some(({ kind }) => kind === 'selector')
        ? 'from where a selector is worked is not in the plan'
        : undefined,
  },
  {
    clause: '49 CFR 393.65(f)',
    title: 'Lines that are not enclosed are supported and shielded',
    stage: 'lines',
    severity: 'warn',
    why: 'A hanging line chafes through.',
    mend: 'Hold and sleeve it; say at each line how far apart it is held.',
    lacks: never('what shields a line is not in the plan'),
  },
  {
    clause: '49 CFR 393.65(g)',
    title: 'What stops the flow where a line under pressure breaks',
    stage: 'lines',
    severity: 'warn',
    why: 'A pump at the tank goes on pumping out of a broken line.',
    mend: 'A device that shuts when the feed breaks, or a pump that stops with the engine.',
    lacks: ({ system }) =>
      system.components.some(({ kind }) => kind === 'pump')
        ? 'whether a pump stops when its line breaks is not in the plan'
        : undefined,
  },
  {
    clause: '49 CFR 393.67(c)(5)',
    title: 'Drains reach no more than 3/4 in under the tank',
    stage: 'ports',
    severity: 'stop',
    why: 'What hangs lower is knocked off by a stone or a kerb.',
    mend: 'A flush plug, protected.',
    test: eachPort((port) => {
      const { height_m } = standsOn(port);
      return port.face === 'floor' && height_m > LOWEST_DRAIN_M
        ? { what: say(`${port.name} reaches {deep} under the floor.`, { deep: { value: height_m, role: 'tape' } }) }
        : undefined;
    }),
  },
  {
    clause: '49 CFR 393.67(c)(6)',
    title: 'Fuel other than diesel is drawn from above the full level',
    stage: 'ports',
    severity: 'stop',
    why: 'A fitting under the level empties the tank when it breaks.',
    mend: 'Draw through the lid, by a tube.',
    test: eachTank((tank, path, { system }) =>
      isPetrol(system, tank)
        ? tank.pickups.flatMap((pickup, p): Hit[] => {
            const port = tank.ports.find(({ id }) => id === pickup.port);
            return port && port.face !== 'lid'
              ? [
                  {
                    what: say(`${pickup.name} leaves ${tank.name} under its level.`),
                    path: [...path, 'pickups', p, 'kind'],
                  },
                ]
              : [];
          })
        : [],
    ),
  },
  {
    clause: '49 CFR 393.67(c)(7)(ii)',
    title: 'Over 25 US gal: takes 20 US gal a minute without spilling',
    stage: 'vents',
    severity: 'warn',
    why: 'Truck pumps fill fast; what the vent does not let out comes back up the neck.',
    mend: 'A wider vent, or two.',
    test: eachTank((tank, path, context, t) => {
      if (!isLarge(context, t)) return [];
      const vents = tank.ports.filter(({ role }) => role === 'vent');
      const { fuelTemperature_K, ambientAbs_Pa } = context.evaluation.state;
      const air = airState(fuelTemperature_K, ambientAbs_Pa);
      const pressures = vents.map(
        (vent) =>
          ventLaw(vent.bore_m.value, vent.length_m.value, air)(TWENTY_GALLONS_A_MINUTE / vents.length).pressure_Pa,
      );
      const most = vents.length === 0 ? Infinity : Math.max(...pressures);
      return most <= FILLS_FREELY_PA
        ? []
        : [
            {
              what:
                vents.length === 0
                  ? say(`${tank.name} has no vent to fill through.`)
                  : say(`Filled so fast ${tank.name} builds {pressure}.`, {
                      pressure: { value: most, role: 'pressure' },
                    }),
              path: [...path, 'ports'],
            },
          ];
    }),
  },
  {
    clause: '49 CFR 393.67(c)(7)(iii)',
    title: 'A cap that is fastened and stays on',
    stage: 'ports',
    severity: 'warn',
    why: 'A lost cap pours fuel at every bend.',
    mend: 'A cap with a thread or a lock.',
    lacks: never('the filler’s cap is not in the plan'),
  },
  {
    clause: '49 CFR 393.67(c)(8)',
    title: 'Over 25 US gal: vents safely in a fire',
    stage: 'vents',
    severity: 'stop',
    why: 'A shut tank in a fire bursts.',
    mend: 'A safety vent that was tested on this tank.',
    lacks: (context) => (context.system.tanks.some((_, t) => isLarge(context, t)) ? `of a fire: ${TEST}` : undefined),
  },
  {
    clause: '49 CFR 393.67(c)(9)',
    title: 'Stands half again the pressure of the fire test',
    stage: 'tank',
    severity: 'stop',
    why: 'It must not open before its vent does.',
    mend: 'Have it tested.',
    lacks: never(`of pressure: ${TEST}`),
  },
  {
    clause: '49 CFR 393.67(c)(10)',
    title: 'An air vent that does not spill',
    stage: 'vents',
    severity: 'stop',
    why: 'Tipped over, an open vent pours.',
    mend: 'A vent with a ball or float that shuts.',
    test: eachTank(({ ports, name }, path) =>
      ports.some(letsAirIn) ? [] : [{ what: say(`${name} has no vent.`), path: [...path, 'ports'] }],
    ),
    lacks: never('whether a vent shuts when it is tipped is not in the plan'),
  },
  {
    clause: '49 CFR 393.67(c)(11)',
    title: 'Marked with maker, date and capacity',
    stage: 'tank',
    severity: 'note',
    why: 'Whoever fills or mends it must know what it is.',
    mend: 'A plate.',
    lacks: never('a plate is not part of the plan'),
  },
  {
    clause: '49 CFR 393.67(c)(12)',
    title: 'Cannot be filled past 95 %',
    stage: 'tank',
    severity: 'stop',
    why: 'Fuel that warms needs room.',
    mend: 'A fill limit of 95 % or less, and a neck that ends there.',
    test: eachTank((tank, path) =>
      tank.fillLimit_ratio.value > MOST_FILL_RATIO + 1e-9
        ? [
            {
              what: say(`${tank.name} is filled to {limit}.`, {
                limit: { value: tank.fillLimit_ratio.value, role: 'share' },
              }),
              path: [...path, 'fillLimit_ratio'],
            },
          ]
        : [],
    ),
    lacks: never('whether the neck ends at the fill limit is not in the plan'),
  },
  {
    clause: '49 CFR 393.67(d)',
    title: 'Leaks no more than an ounce a minute, whichever way up',
    stage: 'tank',
    severity: 'stop',
    why: 'Trucks end on their side.',
    mend: 'Have it tested.',
    lacks: never(`of leaks: ${TEST}`),
  },
  {
    clause: '49 CFR 393.67(e)(1)',
    title: 'Side-mounted tanks: dropped full from 30 ft',
    stage: 'tank',
    severity: 'stop',
    why: 'They are hit first.',
    mend: 'Have it tested, or set it between the rails.',
    lacks: never(`of a drop: ${TEST}`),
  },
  {
    clause: '49 CFR 393.67(e)(2)',
    title: 'Side-mounted tanks: dropped on their filler from 10 ft',
    stage: 'tank',
    severity: 'stop',
    why: 'A neck that breaks off empties the tank.',
    mend: 'Have it tested, or set it between the rails.',
    lacks: never(`of a drop: ${TEST}`),
  },
];
