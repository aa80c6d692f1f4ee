import { senderSizes } from '../senders';
import { feedPath } from '../plan/circuits';
import type { Known, Origin } from '../schema/known';
import type { Plan, ShapeDocument, SystemDocument } from '../plan/schema';
import { valueAt, type Path } from '../plan/edit';
import { shapeKind } from '../shapes';
import { radians, say, type Message, type Role } from '../units';
import { withPositions } from '../state';
import { suppliesOf, usableIn_m3, type Evaluation } from './evaluate';
import { isTransfer } from './numbers';
import { flowRole, wordsAt } from '../plan/fields';
import type { NumberKey } from './numbers';

export type WorkingTerm = {
  readonly label: string;
  readonly value: number;
  readonly role: Role;
  readonly origin?: Origin;
  /** Where in the document it was put in, so that it can be changed there. */
  readonly path?: Path;
};

export type WorkingStep = {
  readonly formula: string;
  readonly terms: readonly WorkingTerm[];
  readonly result: WorkingTerm;
  readonly source: string;
};

/** How a number came about: steps in order, each with the values put in. */
export type Working = { readonly steps: readonly WorkingStep[]; readonly notes: readonly Message[] };

const put = (label: string, known: Known, role: Role, path: Path): WorkingTerm => ({
  label,
  value: known.value,
  role,
  origin: known.origin,
  path,
});
const got = (label: string, value: number, role: Role): WorkingTerm => ({ label, value, role });

/** The working behind one of the numbers; empty where the number has no value. */
export function workingOf(key: NumberKey, system: Plan, evaluation: Evaluation): Working {
  return WORKINGS[key](withPositions(system, evaluation.state.positions), evaluation);
}

const NONE: Working = { steps: [], notes: [] };

const WORKINGS: Readonly<Record<NumberKey, (system: Plan, evaluation: Evaluation) => Working>> = {
  holds: holdsWorking,
  comes: comesWorking,
  usable: usableWorking,
  head: headWorking,
  delivers: deliversWorking,
  goes: goesWorking,
  backPressure: pressureWorking,
  gauge: gaugeWorking,
};

function holdsWorking(system: Plan, evaluation: Evaluation): Working {
  const { tanks } = evaluation;
  const supplies = suppliesOf(system, evaluation);
  const steps = tanks.map((result, t): WorkingStep => {
    const tank = system.tanks[t]!;
    const at = (...rest: Path): Path => ['tanks', t, ...rest];
    return {
      formula:
        tank.parts.length + tank.slices.length > 0
          ? 'holds = (first shape + what is added − what is taken − foam and baffles) × fill limit'
          : tank.foam_ratio || tank.plates.length > 0
            ? 'holds = (volume inside the walls − foam and baffles) × fill limit'
            : 'holds = volume inside the walls × fill limit',
      terms: [
        ...shapeTerms(system, at('shape')),
        ...[...tank.parts, ...tank.slices].map(({ id, name }) => got(name, result.changes[id] ?? 0, 'tankVolume')),
        ...(tank.foam_ratio ? [put('taken by foam', tank.foam_ratio, 'share', at('foam_ratio'))] : []),
        got('room for liquid', result.gross_m3, 'tankVolume'),
        put('fill limit', tank.fillLimit_ratio, 'share', at('fillLimit_ratio')),
      ],
      result: got(`${tank.name} holds`, result.holds_m3, 'tankVolume'),
      source: 'Volume of the closed inside surface, by the divergence theorem (docs/derivations/clipped-volume.md).',
    };
  });
  const total: WorkingStep[] =
    supplies.length > 1
      ? [
          {
            formula: 'holds in all = sum over the tanks that the circuits draw on',
            terms: supplies.map(({ tank }) => got(tank.name, tank.holds_m3, 'tankVolume')),
            result: got(
              'holds',
              supplies.reduce((sum, { tank }) => sum + tank.holds_m3, 0),
              'tankVolume',
            ),
            source: 'Definition; as valves and pumps can be set, not only as they stand.',
          },
        ]
      : [];
  return { steps: [...steps, ...total], notes: [say('The rest of the tank is head room: fuel grows as it warms.')] };
}

/** The sizes that a tank's shape is made from, as the form names them. */
const shapeTerms = (system: Plan, path: Path): WorkingTerm[] => {
  const shape = valueAt(system, path) as ShapeDocument;
  return shapeKind(shape).sizes.flatMap(({ key }) => {
    const known = shape[key as keyof ShapeDocument] as unknown as Known;
    const words = wordsAt(system as SystemDocument, [...path, key]);
    if (!words) return [];
    const { label, role } = words;
    return [put(label, role === 'slope' ? { ...known, value: radians(known.value) } : known, role, [...path, key])];
  });
};

function usableWorking(system: Plan, evaluation: Evaluation): Working {
  const supplies = suppliesOf(system, evaluation).flatMap(({ tank, pickup }) => (pickup ? [{ tank, pickup }] : []));
  if (supplies.length === 0 || !evaluation.usable.ok) return NONE;
  const each = supplies.flatMap(({ tank, pickup }): WorkingStep[] => {
    const t = evaluation.tanks.indexOf(tank);
    const p = system.tanks[t]!.pickups.findIndex(({ id }) => id === pickup.id);
    const planned = system.tanks[t]!.pickups[p]!;
    const at = (key: string): Path => ['tanks', t, 'pickups', p, key];
    const { worst } = pickup;
    const of = supplies.length > 1 ? `${tank.name}: ` : '';
    return [
      {
        formula: `${of}left behind = volume below the surface at which the pickup draws air`,
        terms: [
          put('inlet off the floor', planned.heightOffFloor_m, 'tape', at('heightOffFloor_m')),
          put('liquid needed over the inlet', planned.submergence_m, 'tape', at('submergence_m')),
          got('worst pitch asked for', worst.pitch_rad, 'slope'),
          got('worst roll asked for', worst.roll_rad, 'slope'),
        ],
        result: got('left behind at the worst attitude', worst.unusable_m3, 'tankVolume'),
        source: 'Tank cut by the liquid surface at each attitude of the envelope; the worst is kept.',
      },
      {
        formula: `${of}usable = holds − left behind`,
        terms: [got('holds', tank.holds_m3, 'tankVolume'), got('left behind', worst.unusable_m3, 'tankVolume')],
        result: got('usable', usableIn_m3({ tank, pickup }), 'tankVolume'),
        source: 'Definition.',
      },
    ];
  });
  const total: WorkingStep[] =
    supplies.length > 1
      ? [
          {
            formula: 'usable in all = sum over the tanks that the circuits draw on',
            terms: supplies.map((supply) => got(supply.tank.name, usableIn_m3(supply), 'tankVolume')),
            result: got('usable', evaluation.usable.value, 'tankVolume'),
            source: 'Definition; as valves and pumps can be set, not only as they stand.',
          },
        ]
      : [];
  return {
    steps: [...each, ...total],
    notes: supplies.map(({ tank, pickup }) =>
      say(`Standing level the pickup of ${tank.name} would leave {left} behind.`, {
        left: { value: pickup.unusableLevel_m3, role: 'tankVolume' },
      }),
    ),
  };
}

function headWorking(system: Plan, { flows: [flow] }: Evaluation): Working {
  const [consumer] = system.consumers;
  if (!flow?.ok || !flow.value.head || !consumer) return NONE;
  const { now_m, last_m, needed_m } = flow.value.head;
  const needed = put('needed pressure', consumer.neededPressure_Pa, 'pressure', ['consumers', 0, 'neededPressure_Pa']);
  return {
    steps: [
      {
        formula: 'head = height of the surface − height of the consumer',
        terms: [],
        result: got('head', now_m, 'run'),
        source: 'Definition; along what the liquid feels as down.',
      },
      {
        formula: 'at the last drop = height at which the pickup draws air − height of the consumer',
        terms: [],
        result: got('at the last drop', last_m, 'run'),
        source: 'Definition; what flows then is told at Lines, Does it get there?',
      },
      {
        formula: 'head needed = needed pressure ÷ (density × gravity)',
        terms: [needed, got('density', flow.value.fluid.density_kgPerM3, 'density')],
        result: got('needed, before what lines and filters cost', needed_m, 'run'),
        source: 'Hydrostatics.',
      },
    ],
    notes: [say('Heights are those on the slope that is set under Conditions.')],
  };
}

function deliversWorking(system: Plan, evaluation: Evaluation): Working {
  const flow = evaluation.flows[0];
  const consumer = system.consumers[0];
  if (!flow?.ok || !consumer) return NONE;
  const { value } = flow;
  const role = flowRole(value.needed_m3PerS);
  const path = new Set(feedPath(system, consumer.id));
  return {
    steps: [
      {
        formula: 'delivers = flow at which pump rise = height + friction + fittings + filter + needed pressure',
        terms: [
          got('fuel temperature', evaluation.state.fuelTemperature_K, 'temperature'),
          got('density', evaluation.fluid.density_kgPerM3, 'density'),
          got('viscosity', evaluation.fluid.kinematicViscosity_m2PerS, 'viscosity'),
          ...system.lines.flatMap((line, l) =>
            path.has(line.id) ? [put(`${line.name}, bore`, line.bore_m, 'bore', ['lines', l, 'bore_m'])] : [],
          ),
          put('needed pressure', consumer.neededPressure_Pa, 'pressure', ['consumers', 0, 'neededPressure_Pa']),
        ],
        result: got('delivers', value.delivered_m3PerS, role),
        source:
          'Darcy-Weisbach; 64/Re below Re 2000, Colebrook above 4000; fittings by ' +
          (system.practice.losses === 'three-k' ? 'Darby’s three-K' : 'Hooper’s two-K') +
          '; filters by Darcy’s law; docs/derivations/network.md.',
      },
      {
        formula: 'margin = delivers ÷ needed',
        terms: [
          got('delivers', value.delivered_m3PerS, role),
          put('needed', consumer.neededFlow_m3PerS, role, ['consumers', 0, 'neededFlow_m3PerS']),
        ],
        result: got('margin', value.margin_ratio, 'count'),
        source: 'Definition.',
      },
      ...value.links
        .filter((link) => link.reynolds !== undefined)
        .map((link): WorkingStep => ({
          formula: `${link.name}: ${link.regime} flow`,
          terms: [
            got('velocity', link.velocity_mPerS ?? 0, 'lineSpeed'),
            got('Reynolds number', link.reynolds ?? 0, 'count'),
          ],
          result: got('pressure lost at the needed flow', link.loss_Pa, 'pressure'),
          source: 'Part of the network solution.',
        })),
    ],
    notes: [
      say(`Solved in ${value.iterations} steps; laws and pressures agree to within {left}.`, {
        left: { value: value.energyResidual_Pa, role: 'pressure' },
      }),
    ],
  };
}

function fillWorking(system: Plan, evaluation: Evaluation): Working {
  const flow = evaluation.flows[0];
  const fill = system.wishes.moves_m3;
  if (!flow?.ok || !fill || !(flow.value.delivered_m3PerS > 0)) return NONE;
  const role = flowRole(flow.value.needed_m3PerS);
  const fills = evaluation.usable.ok ? evaluation.usable.value / fill.value : undefined;
  return {
    steps: [
      {
        formula: 'time of a fill = volume ÷ flow at the nozzle',
        terms: [
          put('a fill', fill, 'tankVolume', ['wishes', 'moves_m3']),
          got('at the nozzle', flow.value.delivered_m3PerS, role),
        ],
        result: got('a fill takes', fill.value / flow.value.delivered_m3PerS, 'duration'),
        source: 'At this level and temperature; as the level falls it takes a little longer.',
      },
      ...(fills === undefined || !evaluation.usable.ok
        ? []
        : [
            {
              formula: 'fills a load = usable ÷ a fill',
              terms: [got('usable', evaluation.usable.value, 'tankVolume')],
              result: got('fills', fills, 'count'),
              source: 'Definition.',
            },
          ]),
    ],
    notes: [],
  };
}

function goesWorking(system: Plan, evaluation: Evaluation): Working {
  if (isTransfer(system)) return fillWorking(system, evaluation);
  const consumer = system.consumers[0];
  if (!evaluation.range.ok || !consumer) return NONE;
  const range = evaluation.range.value;
  const steps: WorkingStep[] = [
    {
      formula: 'burn = idle + (full − idle) × duty',
      terms: [
        put('burn at idle', consumer.burnIdle_m3PerS, 'burn', ['consumers', 0, 'burnIdle_m3PerS']),
        put('burn at full load', consumer.burnFull_m3PerS, 'burn', ['consumers', 0, 'burnFull_m3PerS']),
        got('duty', evaluation.state.duty_ratio, 'share'),
      ],
      result: got('burn', range.burn_m3PerS, 'burn'),
      source: 'Straight line between the two; common practice.',
    },
    {
      formula: 'time = usable × (1 − reserve) ÷ burn',
      terms: [
        got('usable', range.usable_m3, 'tankVolume'),
        put('reserve', system.wishes.reserve_ratio, 'share', ['wishes', 'reserve_ratio']),
      ],
      result: got('runs for', range.endurance_s, 'duration'),
      source: 'Definition.',
    },
  ];
  const { speed_mPerS } = system.vehicle;
  if (range.range_m !== undefined && speed_mPerS) {
    const sea = system.vehicle.kind === 'boat';
    steps.push({
      formula: 'distance = time × speed',
      terms: [put('speed at this duty', speed_mPerS, sea ? 'seaSpeed' : 'roadSpeed', ['vehicle', 'speed_mPerS'])],
      result: got('goes', range.range_m, sea ? 'seaTrip' : 'trip'),
      source: 'Definition.',
    });
  }
  return { steps, notes: [] };
}

function comesWorking(system: Plan, { expelled, tanks }: Evaluation): Working {
  const each = expelled[0];
  const c = system.components.findIndex(({ id }) => id === each?.source);
  const part = system.components[c];
  if (!each?.comes.ok || !part) return NONE;
  const at = (key: string): Path => ['components', c, key];
  const tank = tanks.find(({ id }) => id === each.tank?.id);
  const room: WorkingStep[] =
    tank && each.room_m3 !== undefined
      ? [
          {
            formula: 'room = holds − what stands in it',
            terms: [
              got('holds', tank.holds_m3, 'tankVolume'),
              got('stands in it', tank.holds_m3 - each.room_m3, 'tankVolume'),
            ],
            result: got(`room in ${tank.name}`, each.room_m3, 'tankVolume'),
            source: 'Definition, as it stands under Conditions.',
          },
        ]
      : [];
  if (part.kind === 'crankcase')
    return {
      steps: [
        {
          formula: 'may come at once = all the oil of the engine',
          terms: [put('oil in the engine', part.oil_m3, 'tankVolume', at('oil_m3'))],
          result: got('may come', each.comes.value, 'tankVolume'),
          source: 'Common practice: where a ring or a hose fails all of it may come. A smaller tank is emptied often.',
        },
        ...room,
      ],
      notes: [],
    };
  if (part.kind !== 'cooling-system') return NONE;
  return {
    steps: [
      {
        formula: 'swells by = coolant × (density cold ÷ density hot − 1)',
        terms: [
          put('coolant in the whole system', part.coolant_m3, 'tankVolume', at('coolant_m3')),
          put('coldest', part.cold_K, 'temperature', at('cold_K')),
          put('hottest', part.hot_K, 'temperature', at('hot_K')),
        ],
        result: got('may come', each.comes.value, 'tankVolume'),
        source: 'Densities from the table of fluids; the metal round it swells by a small share of that, left out.',
      },
      ...room,
    ],
    notes: [],
  };
}

function pressureWorking(system: Plan, { expelled }: Evaluation): Working {
  const each = expelled.find(({ pressure }) => pressure);
  const c = system.components.findIndex(({ id }) => id === each?.source);
  const part = system.components[c];
  if (!each?.pressure?.ok || part?.kind !== 'crankcase') return NONE;
  const at = (key: string): Path => ['components', c, key];
  return {
    steps: [
      {
        formula: 'back-pressure = what hoses, tank, filters and breather cost its gas on the way out',
        terms: [
          put('blow-by at full load', part.blowBy_m3PerS, 'transfer', at('blowBy_m3PerS')),
          put('most that it may have', part.mostPressure_Pa, 'pressure', at('mostPressure_Pa')),
        ],
        result: got('back-pressure', each.pressure.value, 'pressure'),
        source: 'Darcy-Weisbach with air, once at the temperature set and once at 100 °C: the greater of the two.',
      },
    ],
    notes: [],
  };
}

function gaugeWorking(system: Plan, { gauges }: Evaluation): Working {
  const gauge = gauges[0];
  if (!gauge?.ok) return NONE;
  const t = system.tanks.findIndex((tank) => tank.id === gauge.value.tank);
  const s = system.tanks[t]!.senders.findIndex((sender) => sender.id === gauge.value.sender);
  const sender = system.tanks[t]!.senders[s]!;
  const at = (key: string): Path => ['tanks', t, 'senders', s, key];
  const { curve } = gauge.value;
  const { worst } = curve;
  return {
    steps: [
      {
        formula: 'volume → surface → sender → reading → needle, compared with volume ÷ holds',
        terms: [
          ...senderSizes(sender).map(({ key, label, known }) => put(label, known, 'tape', at(key))),
          got('free travel from', curve.free.low_share, 'share'),
          got('free travel to', curve.free.high_share, 'share'),
          got('worst at', worst.at.volume_m3, 'tankVolume'),
          got('needle there', worst.at.needle_ratio, 'share'),
          got('truth there', worst.at.true_ratio, 'share'),
        ],
        result: got('worst error', worst.error_ratio, 'share'),
        source: 'Plane trigonometry of the sender in the tank; vehicle standing level.',
      },
    ],
    notes: [
      say('Below {low} and in the last {high} the sender does not move.', {
        low: { value: curve.unseenLow_m3, role: 'tankVolume' },
        high: { value: curve.unseenHigh_m3, role: 'tankVolume' },
      }),
    ],
  };
}
