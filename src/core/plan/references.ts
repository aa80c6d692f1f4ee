import { memoized } from '../memo';
import { recordFaults } from './records';
import { sound } from '../formats';
import { textMesh } from '../shapes';
import type { Fault } from './fault';
import { circuitFaults } from './circuitFaults';
import { joinableItems } from './circuits';
import { fitFaults } from './fitFaults';
import type { SystemDocument } from './schema';

export type { Fault };

/** Which coordinate a port on each face does not have: the one across it. */
export const ACROSS_FACE = {
  lid: 'z_m',
  floor: 'z_m',
  fore: 'x_m',
  aft: 'x_m',
  port: 'y_m',
  starboard: 'y_m',
} as const;

/**
 * Names that lead nowhere, ids used twice, ports without their place, baffles that end before they begin, spaces that
 * do not hang together, and meshes that enclose nothing.
 */
export function referenceFaults(system: SystemDocument): Fault[] {
  return [
    ...duplicateIds(system),
    ...danglingIds(system),
    ...unplacedPorts(system),
    ...spigotFaults(system),
    ...endlessPlates(system),
    ...gaugeFaults(system),
    ...circuitFaults(system),
    ...fitFaults(system),
    ...recordFaults(system),
    ...brokenMeshes(system),
  ];
}

function allIds(system: SystemDocument): { id: string; path: string }[] {
  const of = (list: readonly { id: string }[], path: string) =>
    list.map((item, i) => ({ id: item.id, path: `${path}[${i}].id` }));
  return [
    ...of(system.fluids, 'fluids'),
    ...of(system.tanks, 'tanks'),
    ...system.tanks.flatMap((tank, t) => [
      ...of(tank.parts, `tanks[${t}].parts`),
      ...of(tank.slices, `tanks[${t}].slices`),
      ...of(tank.plates, `tanks[${t}].plates`),
      ...of(tank.ports, `tanks[${t}].ports`),
      ...of(tank.pickups, `tanks[${t}].pickups`),
      ...of(tank.senders, `tanks[${t}].senders`),
      ...of(tank.sightTubes, `tanks[${t}].sightTubes`),
      ...of(tank.dipsticks, `tanks[${t}].dipsticks`),
      ...of(tank.calibrations, `tanks[${t}].calibrations`),
    ]),
    ...of(system.components, 'components'),
    ...of(system.lines, 'lines'),
    ...of(system.consumers, 'consumers'),
    ...of(system.mounts, 'mounts'),
    ...of(system.stance?.axles ?? [], 'stance.axles'),
    ...of(system.fit.obstacles, 'fit.obstacles'),
    ...of(system.fit.spots, 'fit.spots'),
    ...(system.fit.bay.kind === 'measured'
      ? [
          ...of(system.fit.bay.sides, 'fit.bay.sides'),
          ...of(system.fit.bay.stations, 'fit.bay.stations'),
          ...of(system.fit.bay.measures, 'fit.bay.measures'),
        ]
      : []),
  ];
}

function duplicateIds(system: SystemDocument): Fault[] {
  const seen = new Map<string, string>();
  return allIds(system).flatMap(({ id, path }) => {
    const first = seen.get(id);
    if (first === undefined) {
      seen.set(id, path);
      return [];
    }
    return [{ path, message: `"${id}" is already the id at ${first}; every id must be used once` }];
  });
}

function danglingIds(system: SystemDocument): Fault[] {
  const ids = (list: readonly { id: string }[]) => new Set(list.map((item) => item.id));
  const [fluids, tanks] = [ids(system.fluids), ids(system.tanks)];
  const joints = new Set(joinableItems(system));
  const missing = (known: ReadonlySet<string>, id: string, path: string, what: string): Fault[] =>
    known.has(id)
      ? []
      : [
          {
            path,
            message: `names the ${what} "${id}", which does not exist${known.size > 0 ? `; there is ${[...known].slice(0, 12).join(', ')}` : ''}`,
          },
        ];
  return [
    ...system.tanks.flatMap((tank, t) => {
      const ports = ids(tank.ports);
      return [
        ...missing(fluids, tank.fluid, `tanks[${t}].fluid`, 'fluid'),
        ...(tank.sharesWallWith === undefined
          ? []
          : missing(
              new Set(system.tanks.slice(0, t).map(({ id }) => id)),
              tank.sharesWallWith,
              `tanks[${t}].sharesWallWith`,
              'tank before it',
            )),
        ...tank.ports.flatMap(({ on }, p) => (on ? missing(ports, on, `tanks[${t}].ports[${p}].on`, 'port') : [])),
        ...tank.pickups.flatMap((pickup, p) => missing(ports, pickup.port, `tanks[${t}].pickups[${p}].port`, 'port')),
        ...tank.senders.flatMap((sender, s) => missing(ports, sender.port, `tanks[${t}].senders[${s}].port`, 'port')),
        ...tank.dipsticks.flatMap((stick, s) => missing(ports, stick.port, `tanks[${t}].dipsticks[${s}].port`, 'port')),
        ...tank.calibrations.flatMap((calibration, c) =>
          missing(
            new Set([...ids(tank.senders), ...ids(tank.sightTubes), ...ids(tank.dipsticks)]),
            calibration.of,
            `tanks[${t}].calibrations[${c}].of`,
            'sender, sight tube or dipstick',
          ),
        ),
      ];
    }),
    ...system.lines.flatMap((line, l) => [
      ...missing(joints, line.from.item, `lines[${l}].from.item`, 'part'),
      ...missing(joints, line.to.item, `lines[${l}].to.item`, 'part'),
    ]),
    ...system.mounts.flatMap((mount, m) => missing(tanks, mount.tank, `mounts[${m}].tank`, 'tank')),
    ...system.conditions.fills.flatMap((fill, f) => missing(tanks, fill.tank, `conditions.fills[${f}].tank`, 'tank')),
  ];
}

function unplacedPorts(system: SystemDocument): Fault[] {
  return system.tanks.flatMap((tank, t) =>
    tank.ports.flatMap((port, p) =>
      (['x_m', 'y_m', 'z_m'] as const).flatMap((axis) => {
        const across = ACROSS_FACE[port.face] === axis;
        const path = `tanks[${t}].ports[${p}].${axis}`;
        if (across && port[axis] !== undefined)
          return [{ path, message: `follows from the ${port.face} face and must be left out` }];
        return !across && port[axis] === undefined
          ? [{ path, message: `is missing; a port on the ${port.face} face needs it` }]
          : [];
      }),
    ),
  );
}

/** A spigot stands on a port of its own face that is none itself. */
function spigotFaults(system: SystemDocument): Fault[] {
  return system.tanks.flatMap((tank, t) =>
    tank.ports.flatMap((port, p): Fault[] => {
      const carrier = tank.ports.find(({ id }) => id === port.on);
      if (!carrier) return [];
      const path = `tanks[${t}].ports[${p}].on`;
      if (carrier.on !== undefined) return [{ path, message: `"${carrier.id}" is a spigot itself, and carries none` }];
      return carrier.face === port.face
        ? []
        : [{ path, message: `"${carrier.id}" is on the ${carrier.face} face; a spigot is on the face of its plate` }];
    }),
  );
}

function endlessPlates(system: SystemDocument): Fault[] {
  return system.tanks.flatMap((tank, t) =>
    tank.plates.flatMap(({ from_m, to_m }, p) =>
      from_m && to_m && from_m.value >= to_m.value
        ? [{ path: `tanks[${t}].plates[${p}].to_m.value`, message: `must lie beyond from_m, which is ${from_m.value}` }]
        : [],
    ),
  );
}

/**
 * Senders and gauges that do not speak the same kind of signal, sight tubes upside down, and what was taught out of
 * order.
 */
function gaugeFaults(system: SystemDocument): Fault[] {
  return system.tanks.flatMap((tank, t) => [
    ...tank.senders.flatMap(({ output, gauge }, s): Fault[] => {
      const path = `tanks[${t}].senders[${s}]`;
      const wants =
        gauge.kind === 'cross-coil' ? 'resistance' : gauge.kind === 'linear' ? gauge.scale.kind : gauge.points.kind;
      const apart =
        wants === output.kind
          ? []
          : [{ path: `${path}.gauge`, message: `wants a ${wants}, and the sender gives a ${output.kind}` }];
      return [...apart, ...(gauge.kind === 'calibrated' ? untaught(gauge.points, `${path}.gauge.points.at`) : [])];
    }),
    ...tank.sightTubes.flatMap(({ lower_m, upper_m }, s): Fault[] =>
      lower_m.value < upper_m.value
        ? []
        : [
            {
              path: `tanks[${t}].sightTubes[${s}].upper_m.value`,
              message: `must lie above lower_m, which is ${lower_m.value}`,
            },
          ],
    ),
  ]);
}

type Points = Extract<SystemDocument['tanks'][number]['senders'][number]['gauge'], { kind: 'calibrated' }>['points'];

/** What a gauge is taught runs one way: another reading for every point, and more shown for more. */
function untaught(points: Points, path: string): Fault[] {
  const taught =
    points.kind === 'resistance'
      ? points.at.map(({ reading_ohm, shown_ratio }) => [reading_ohm, shown_ratio] as const)
      : points.at.map(({ reading_V, shown_ratio }) => [reading_V, shown_ratio] as const);
  if (taught.length === 1) return [{ path, message: 'must have no points, or two or more' }];
  const way = Math.sign((taught.at(-1)?.[0] ?? 0) - (taught[0]?.[0] ?? 0));
  return taught
    .slice(1)
    .flatMap(([reading, shown], i) =>
      (reading - taught[i]![0]) * way > 0 && shown > taught[i]![1]
        ? []
        : [
            {
              path: `${path}[${i + 1}]`,
              message: 'must go on the same way as the points before it, in what is read and in what is shown',
            },
          ],
    );
}

function brokenMeshes(system: SystemDocument): Fault[] {
  const shapes = system.tanks
    .flatMap((tank, t) => [
      { shape: tank.shape, path: `tanks[${t}].shape` },
      ...tank.parts.map((part, p) => ({ shape: part.shape, path: `tanks[${t}].parts[${p}].shape` })),
    ])
    .concat(
      system.fit.bay.kind === 'drawn' ? [{ shape: system.fit.bay.shape, path: 'fit.bay.shape' }] : [],
      system.fit.obstacles.flatMap(({ bodies }, i) =>
        bodies.map(({ shape }, b) => ({ shape, path: `fit.obstacles[${i}].bodies[${b}].shape` })),
      ),
    );
  return shapes.flatMap(({ shape, path }) => {
    if (shape.kind !== 'mesh') return [];
    const { fault } = meshFault(shape.vertices_m, shape.triangles);
    return fault ? [{ path: `${path}${fault.path}`, message: fault.message }] : [];
  });
}

/** What is wrong with one mesh, its path from the shape. A large one takes a while, and comes with every save. */
const meshFault = memoized(
  'mesh fault',
  (vertices_m: string, triangles: string): { readonly fault: Fault | undefined } => {
    const read = textMesh({ vertices_m, triangles });
    if (!read.ok) return { fault: { path: `.${read.error.at}`, message: read.error.detail } };
    const sane = sound(read.value);
    return { fault: sane.ok ? undefined : { path: '', message: sane.error.detail } };
  },
  16,
);
