import { toPath, valueAt } from './edit';
import type { Fault } from './fault';
import type { MeasuredBayDocument, MotionDocument, SpotDocument, SystemDocument } from './schema';

/** What of the space names something that is not there, or cannot be as it is written. */
export function fitFaults(system: SystemDocument): Fault[] {
  const { bay, obstacles, removals, spots } = system.fit;
  const parts = new Set([
    ...system.tanks.flatMap((tank) => [
      tank.id,
      ...tank.senders.map(({ id }) => id),
      ...tank.pickups.map(({ id }) => id),
    ]),
    ...obstacles.map(({ id }) => id),
    ...system.lines.map(({ id }) => id),
  ]);
  return [
    ...(bay.kind === 'measured' ? bayFaults(bay) : []),
    ...obstacles.flatMap((obstacle, i) =>
      obstacle.motions.flatMap((motion, m) => motionFaults(motion, `fit.obstacles[${i}].motions[${m}]`)),
    ),
    ...obstacles.flatMap(({ bodies }, i) =>
      bodies[0]?.operation === 'cut'
        ? [
            {
              path: `fit.obstacles[${i}].bodies[0].operation`,
              message: 'cuts out of nothing; the first body is what the others are joined to or cut out of',
            },
          ]
        : [],
    ),
    ...removals.flatMap(({ part }, w) =>
      parts.has(part)
        ? []
        : [
            {
              path: `fit.removals[${w}].part`,
              message: `names the part "${part}", which does not exist; there is ${[...parts].slice(0, 12).join(', ')}`,
            },
          ],
    ),
    ...spots.flatMap((spot, i) =>
      spotFaults(
        spot,
        `fit.spots[${i}]`,
        system.tanks.map(({ id }) => id),
      ),
    ),
    ...system.tanks.flatMap((tank, t) =>
      tank.built.flatMap(({ of }, b) => {
        const planned = valueAt(tank, toPath(of)) as { value?: unknown } | undefined;
        return typeof planned?.value === 'number'
          ? []
          : [
              {
                path: `tanks[${t}].built[${b}].of`,
                message: `names "${of}", which is no planned size of this tank; "shape.length_m" is the form`,
              },
            ];
      }),
    ),
  ];
}

function spotFaults(
  { kind, tank, facing, acrossFlats_m }: SpotDocument,
  path: string,
  tanks: readonly string[],
): Fault[] {
  return [
    ...(tank === undefined || tanks.includes(tank)
      ? []
      : [
          {
            path: `${path}.tank`,
            message: `names the tank "${tank}", which does not exist; there is ${tanks.join(', ')}`,
          },
        ]),
    ...(facing.forward === 0 && facing.toPort === 0 && facing.up === 0
      ? [{ path: `${path}.facing`, message: 'must point somewhere; all three parts are 0' }]
      : []),
    ...(kind === 'bolt' && !acrossFlats_m
      ? [{ path: `${path}.acrossFlats_m`, message: 'is missing; a bolt has a size across its flats' }]
      : []),
  ];
}

function bayFaults({ sides, stations, measures, curves }: MeasuredBayDocument): Fault[] {
  const names = new Set(stations.map(({ id }) => id));
  const sideIds = new Set(sides.map(({ id }) => id));
  const station = (id: string, path: string): Fault[] =>
    names.has(id)
      ? []
      : [{ path, message: `names the station "${id}", which does not exist; there is ${[...names].join(', ')}` }];
  return [
    ...stations.flatMap(({ corners }, s) =>
      corners.length === sides.length
        ? []
        : [
            {
              path: `fit.bay.stations[${s}].corners`,
              message: `must have as many corners as the bay has sides: ${sides.length}; it has ${corners.length}`,
            },
          ],
    ),
    ...measures.flatMap(({ from, to }, m) => [
      ...(['from', 'to'] as const).flatMap((end) => {
        const { station: at, corner } = end === 'from' ? from : to;
        const path = `fit.bay.measures[${m}].${end}`;
        return [
          ...station(at, `${path}.station`),
          ...(corner < sides.length
            ? []
            : [{ path: `${path}.corner`, message: `must be below ${sides.length}, the number of corners` }]),
        ];
      }),
      ...(from.station === to.station && from.corner === to.corner
        ? [{ path: `fit.bay.measures[${m}].to`, message: 'must be another corner than the one it is measured from' }]
        : []),
    ]),
    ...curves.flatMap((curve, c) => [
      ...station(curve.station, `fit.bay.curves[${c}].station`),
      ...(sideIds.has(curve.side)
        ? []
        : [
            {
              path: `fit.bay.curves[${c}].side`,
              message: `names the side "${curve.side}", which does not exist; there is ${[...sideIds].join(', ')}`,
            },
          ]),
      ...(curves.findIndex((other) => other.station === curve.station && other.side === curve.side) === c
        ? []
        : [
            {
              path: `fit.bay.curves[${c}]`,
              message: 'is a second curve of the same side at the same station; put its points into the first',
            },
          ]),
    ]),
  ];
}

function motionFaults(motion: MotionDocument, path: string): Fault[] {
  const { key, way, from, to } =
    motion.kind === 'slide'
      ? { key: 'way', way: motion.way, from: motion.from_m.value, to: motion.to_m.value }
      : { key: 'axis', way: motion.axis, from: motion.from_deg.value, to: motion.to_deg.value };
  return [
    ...(way.forward === 0 && way.toPort === 0 && way.up === 0
      ? [{ path: `${path}.${key}`, message: 'must point somewhere; all three parts are 0' }]
      : []),
    ...(from <= 0 && to >= 0 && from < to
      ? []
      : [
          {
            path,
            message: 'must run from 0 or less to 0 or more, since 0 is where the obstacle rests, and not stand still',
          },
        ]),
  ];
}
