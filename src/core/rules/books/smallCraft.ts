import { type TankDocument } from '../../plan/schema';
import { say, type Hit } from '../rule';
import {
  type BookRule,
  TEST,
  never,
  isPetrol,
  hasPetrol,
  eachTank,
  eachPort,
  openings,
  unmarkedHoses,
  hoseNotSaid,
  siphonsNotKnown,
  siphons,
} from './clause';

/** Least walls by metal [m]. From memory, ISO 21487. */
const CRAFT_WALLS_M: Readonly<Partial<Record<TankDocument['material']['alloy'], number>>> = {
  'al-5052': 0.002,
  'al-3003': 0.002,
  'al-6061': 0.002,
  'stainless-304': 0.001,
  'stainless-316': 0.001,
  'mild-steel': 0.002,
};
const CRAFT_VENT_M = 0.011;
const CRAFT_FILL_M = 0.0285;

export const SMALL_CRAFT: readonly Omit<BookRule, 'book' | 'id'>[] = [
  {
    clause: 'ISO 10088, vent lines',
    title: 'Vent at least 11 mm wide',
    stage: 'vents',
    severity: 'warn',
    why: 'A narrow vent throws the fuel back out of the neck.',
    mend: 'A wider vent.',
    test: eachPort((port) =>
      port.role === 'vent' && port.bore_m.value < CRAFT_VENT_M
        ? { what: say(`${port.name} is {bore} wide.`, { bore: { value: port.bore_m.value, role: 'bore' } }) }
        : undefined,
    ),
  },
  {
    clause: 'ISO 10088, filling',
    title: 'Filler at least 28.5 mm wide',
    stage: 'ports',
    severity: 'warn',
    why: 'A quay nozzle fills faster than a thin neck takes.',
    mend: 'A wider neck and hose.',
    test: eachPort((port) =>
      port.role === 'filler' && port.bore_m.value < CRAFT_FILL_M
        ? { what: say(`${port.name} is {bore} wide.`, { bore: { value: port.bore_m.value, role: 'bore' } }) }
        : undefined,
    ),
  },
  {
    clause: 'ISO 10088, petrol tanks',
    title: 'Petrol: no opening under the top of the tank',
    stage: 'ports',
    severity: 'stop',
    why: 'What opens lower empties the tank into the boat when it fails.',
    mend: 'Ports in the lid only.',
    test: openings(({ system }, tank) => isPetrol(system, tank)),
  },
  {
    clause: 'ISO 10088, diesel tanks',
    title: 'Diesel: a bottom outlet has a shut-off at the tank',
    stage: 'lines',
    severity: 'stop',
    why: 'A hose that fails under the level cannot be stopped otherwise.',
    mend: 'A valve screwed to the tank.',
    test: eachTank((tank, path, { system }) =>
      tank.pickups.flatMap((pickup, p): Hit[] => {
        if (pickup.kind !== 'bottom-outlet') return [];
        const line = system.lines.find(({ from }) => from.item === pickup.id);
        const next = system.components.find(({ id }) => id === line?.to.item);
        return line && next?.kind === 'valve' && (line.kind === 'direct' || line.length_m.value < 0.15)
          ? []
          : [{ what: say(`No shut-off stands at ${pickup.name}.`), path: [...path, 'pickups', p, 'kind'] }];
      }),
    ),
  },
  {
    clause: 'ISO 10088, anti-siphon',
    title: 'Petrol: nothing siphons out of a broken feed',
    stage: 'lines',
    severity: 'stop',
    why: 'A line under the level empties the tank into the bilge.',
    mend: 'Lines over the tank’s top, or an anti-siphon valve at the tank.',
    test: (context) => (hasPetrol(context) ? siphons(context) : []),
    lacks: (context) => (hasPetrol(context) ? siphonsNotKnown(context) : undefined),
  },
  {
    clause: 'ISO 10088, hoses (ISO 7840, ISO 8469)',
    title: 'Fuel hose that is marked for it',
    stage: 'lines',
    severity: 'warn',
    why: 'In an engine space hose must stand fire for minutes.',
    mend: 'Hose to ISO 7840 in the engine space.',
    test: unmarkedHoses,
    lacks: hoseNotSaid,
  },
  {
    clause: 'ISO 10088, bonding',
    title: 'Metal of the filling system bonded',
    stage: 'ports',
    severity: 'warn',
    why: 'A spark from filling lights the vapour of filling.',
    mend: 'A wire from filler to tank to ground.',
    lacks: never('bonding wires are not in the plan'),
  },
  {
    clause: 'ISO 10088, overflow',
    title: 'Spills at filler and vent run outboard',
    stage: 'vents',
    severity: 'warn',
    why: 'They must not run into the boat or its air intakes.',
    mend: 'Deck plate and vent that drain outboard, away from openings.',
    lacks: never('where spills run is not in the plan'),
  },
  {
    clause: 'ISO 21487, materials',
    title: 'Walls of their least thickness',
    stage: 'tank',
    severity: 'warn',
    why: 'Thin walls corrode through, and crack at their baffles.',
    mend: 'A thicker sheet.',
    test: eachTank((tank, path) => {
      const least = CRAFT_WALLS_M[tank.material.alloy];
      const has = tank.material.thickness_m.value;
      return least !== undefined && has < least - 1e-6
        ? [
            {
              what: say(`${tank.name} is {has} thick; {least} is asked.`, {
                has: { value: has, role: 'thickness' },
                least: { value: least, role: 'thickness' },
              }),
              path: [...path, 'material', 'thickness_m'],
            },
          ]
        : [];
    }),
    lacks: ({ system }) => {
      const other = system.tanks.find(({ material }) => CRAFT_WALLS_M[material.alloy] === undefined);
      return other && `no least wall is known here for the material of ${other.name}`;
    },
  },
  {
    clause: 'ISO 21487, aluminium',
    title: 'Aluminium with next to no copper',
    stage: 'tank',
    severity: 'warn',
    why: 'Copper in it makes it pit in salt water.',
    mend: '5052 or 5083 rather than 6061.',
    test: eachTank((tank, path) =>
      tank.material.alloy === 'al-6061'
        ? [{ what: say(`${tank.name} is of 6061.`), path: [...path, 'material', 'alloy'] }]
        : [],
    ),
  },
  {
    clause: 'ISO 21487, pressure test',
    title: 'Holds its test pressure',
    stage: 'tank',
    severity: 'stop',
    why: 'A weld that weeps is found dry, not full.',
    mend: 'Have it tested and marked.',
    lacks: never(`of pressure: ${TEST}`),
  },
  {
    clause: 'ISO 21487, fire test',
    title: 'Petrol and plastic tanks: stand fire for two and a half minutes',
    stage: 'tank',
    severity: 'stop',
    why: 'Time to leave the boat.',
    mend: 'Have it tested, or use a tank that was.',
    lacks: ({ system }) =>
      system.tanks.some((tank) => isPetrol(system, tank) || tank.material.alloy === 'hdpe')
        ? `of fire: ${TEST}`
        : undefined,
  },
  {
    clause: 'ISO 11105',
    title: 'Petrol: the space is ventilated',
    stage: 'fit',
    severity: 'stop',
    why: 'Vapour stays low until something moves it.',
    mend: 'Openings or ducts low and high, and a blower with an engine.',
    lacks: (context) => (hasPetrol(context) ? 'ventilation of the space is not in the plan' : undefined),
  },
];
