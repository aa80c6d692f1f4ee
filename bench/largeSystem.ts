import { readFileSync } from 'node:fs';
import {
  parseSystem,
  parseSystemText,
  type ComponentDocument,
  type LineDocument,
  type SystemDocument,
} from '@/core/plan';

/** Tanks of the large system, and lines of each. */
const TANKS = 12;
const VALVES = 5;
/** From one tank to the next [m]. */
const APART_M = 2;

export const crabBoat = (): SystemDocument => read('demo/crab-boat.json');

function read(file: string): SystemDocument {
  const parsed = parseSystemText(readFileSync(file, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
}

/**
 * The crab boat's main tank, its circuit and its engine twelve times over, with five more valves in each feed: 12
 * tanks, 96 parts, 120 lines, in no bay.
 */
export function largeSystem(): SystemDocument {
  const boat = crabBoat();
  const tank = boat.tanks[0]!;
  const engine = boat.consumers[0]!;
  const part = (id: string): ComponentDocument => boat.components.find((one) => one.id === id)!;
  const feed = boat.lines.find(({ id }) => id === 'line-1')!;
  const back = boat.lines.find(({ id }) => id === 'return-line')!;
  const each = Array.from({ length: TANKS }, (_, t) => {
    const named = <T extends { readonly id: string; readonly name: string }>(one: T, id = one.id): T => ({
      ...one,
      id: `${id}-${t}`,
      name: `${one.name} ${t + 1}`,
    });
    const chain = [
      named(part('tank-cock')),
      ...Array.from({ length: VALVES }, (_, v) => named(part('tank-cock'), `valve-${v}`)),
      named(part('filter')),
      named(part('pump')),
    ];
    const items = [`pickup-${t}`, ...chain.map(({ id }) => id), `${engine.id}-${t}`];
    const lines = items
      .slice(1)
      .map((to, i): LineDocument => ({
        ...feed,
        id: `feed-${t}-${i}`,
        name: `Feed ${t + 1}.${i + 1}`,
        from: { item: items[i]!, end: 'out', adapters: [] },
        to: { item: to, end: 'in', adapters: [] },
      }));
    return {
      tank: {
        ...named(tank),
        mounting: {
          ...tank.mounting,
          x_m: { ...tank.mounting.x_m, value: (t % 6) * APART_M },
          y_m: { ...tank.mounting.y_m, value: Math.floor(t / 6) * 3 * APART_M },
        },
        ports: tank.ports.map((port) => named(port)),
        plates: tank.plates.map((plate) => named(plate)),
        parts: [],
        slices: [],
        sightTubes: [],
        dipsticks: [],
        calibrations: [],
        built: [],
        pickups: tank.pickups.map((pickup) => ({ ...named(pickup), port: `${pickup.port}-${t}` })),
        senders: tank.senders.map((sender) => ({ ...named(sender), port: `${sender.port}-${t}` })),
      },
      chain,
      engine: { ...named(engine), ends: [] },
      lines: [
        ...lines,
        {
          ...back,
          id: `back-${t}`,
          name: `Return ${t + 1}`,
          from: { item: `${engine.id}-${t}`, end: 'out', adapters: [] },
          to: { item: `return-${t}`, end: 'in', adapters: [] },
        } satisfies LineDocument,
      ],
    };
  });
  const system: SystemDocument = {
    ...boat,
    name: 'Twelve tanks',
    tanks: each.map((one) => one.tank),
    components: each.flatMap(({ chain }) => chain.map((one) => ({ ...one, ends: [] }))),
    consumers: each.map((one) => one.engine),
    lines: each.flatMap(({ lines }) => lines),
    prices: [],
    mounts: [],
    conditions: {
      ...boat.conditions,
      fills: each.map(({ tank: { id } }) => ({ tank: id, fill_ratio: boat.conditions.fills[0]?.fill_ratio ?? 0.6 })),
    },
    fit: {
      ...boat.fit,
      removals: [],
      spots: boat.fit.spots.map((spot) => ({ ...spot, ...(spot.tank === undefined ? {} : { tank: 'main-0' }) })),
    },
  };
  const parsed = parseSystem(system);
  if (!parsed.ok) throw new Error(`the large system: ${parsed.error.detail}`);
  return parsed.value;
}
