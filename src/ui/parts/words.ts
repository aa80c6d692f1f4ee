import {
  sideText,
  type CONSUMER_KINDS,
  type FACES,
  type PORT_ROLES,
  type RULEBOOKS,
  type STRAINERS,
  type SWINGS,
  type SystemDocument,
  type TURNS,
  type VehicleKind,
  type VEHICLES,
} from '@/core/plan';

/** Words for the document's keys, where more than one view uses them; sides as in boats, for `useSides`. */
export const VEHICLE_WORDS: Readonly<Record<(typeof VEHICLES)[number], string>> = {
  boat: 'Boat',
  road: 'Road vehicle',
  snow: 'Snow vehicle',
  competition: 'Competition car',
  trailer: 'Trailer or skid',
  bench: 'Bench, standing',
};

export const CONSUMER_WORDS: Readonly<Record<(typeof CONSUMER_KINDS)[number], string>> = {
  'diesel-engine': 'Diesel engine',
  'petrol-injection': 'Petrol engine, injected',
  'petrol-carburettor': 'Petrol engine, carburettor',
  heater: 'Heater',
  generator: 'Diesel generator',
  nozzle: 'Hose and nozzle',
};

export const FACE_WORDS: Readonly<Record<(typeof FACES)[number], string>> = {
  lid: 'lid',
  floor: 'floor',
  fore: 'fore face',
  aft: 'aft face',
  port: 'port face',
  starboard: 'starboard face',
};

export const ROLE_WORDS: Readonly<Record<(typeof PORT_ROLES)[number], string>> = {
  filler: 'Filler',
  vent: 'Vent',
  feed: 'Feed',
  return: 'Return',
  sender: 'Sender',
  drain: 'Drain',
  spare: 'Spare, plugged',
};

export const STRAINER_WORDS: Readonly<Record<(typeof STRAINERS)[number], string>> = {
  none: 'none',
  sock: 'sock',
  mesh: 'mesh',
};
export const SWING_WORDS: Readonly<Record<(typeof SWINGS)[number], string>> = {
  fore: 'forward',
  aft: 'aft',
  port: 'to port',
  starboard: 'to starboard',
};

export const RULEBOOK_WORDS: Readonly<Record<(typeof RULEBOOKS)[number], string>> = {
  none: 'No rulebook',
  'road-truck-tank': 'Road truck tanks',
  'petrol-boat': 'Petrol boats',
  'small-craft': 'Small craft, diesel',
  'vehicle-heater': 'Fuel-burning heater in a vehicle',
};

/** The name of a part, by id. */
export function partName(system: SystemDocument, id: string): string {
  const parts = [
    ...system.tanks,
    ...system.tanks.flatMap((tank) => [...tank.ports, ...tank.pickups, ...tank.senders]),
    ...system.components,
    ...system.lines,
    ...system.consumers,
  ];
  return parts.find((part) => part.id === id)?.name ?? id;
}

export const TURN_WORDS: Readonly<Record<(typeof TURNS)[number], string>> = {
  straight: 'straight out',
  fore: 'forward',
  aft: 'aft',
  port: 'to port',
  starboard: 'to starboard',
  up: 'up',
  down: 'down',
};

/** From where each view of a tank or a space is seen. */
export const viewWords = (kind: VehicleKind) => ({
  side: sideText(kind, 'Side, from starboard'),
  end: 'End, looking forward',
  plan: 'Plan, from above',
});
