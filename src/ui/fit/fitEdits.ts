import { MEASURING } from '@/core/reference/standing';
import {
  assumed,
  chosen,
  freshId,
  fromPart,
  withAdded,
  withValue,
  type MeasuredBayDocument,
  type ShapeDocument,
  type SpotDocument,
  type SystemDocument,
  type ObstacleDocument,
  sideText,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { plainName } from '@/core/formats';

const GUESS_M = MEASURING.find((row) => row.way === 'guess')!.spread_m;
const guess = (value: number) => assumed(Number(value.toFixed(4)), GUESS_M);
const none = chosen(0);

/** Room left round the tanks when a bay is begun [m]. */
const ROUND_M = 0.05;
const METRE: readonly [number, number, number] = [0.6, 0.5, 0.4];

/** A bay of two outlines, guessed round where the first tank stands, to be measured. */
export function withMeasuredBay(system: SystemDocument): SystemDocument {
  const { mounting, shape } = system.tanks[0]!;
  const size = shape.kind === 'box' ? [shape.length_m.value, shape.width_m.value, shape.height_m.value] : METRE;
  const [l, w, h] = size.map((value) => value + 2 * ROUND_M) as [number, number, number];
  const corners = () =>
    [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ].map(([across, up], i) =>
      i === 0 ? { across_m: none, up_m: none } : { across_m: guess(across!), up_m: guess(up!) },
    );
  const sides = (text: string): string => sideText(system.vehicle.kind, text);
  const wall = (id: string, name: string, kind: 'wall' | 'open' = 'wall') => ({ id: freshId(system, id), name, kind });
  const bay: MeasuredBayDocument = {
    kind: 'measured',
    axis: 'x',
    x_m: guess(mounting.x_m.value - ROUND_M),
    y_m: guess(mounting.y_m.value - ROUND_M),
    z_m: guess(mounting.z_m.value - ROUND_M),
    sides: [
      wall('bay-floor', 'Floor'),
      wall('bay-port', sides('Port side')),
      wall('bay-top', 'Top', 'open'),
      wall('bay-starboard', sides('Starboard side')),
    ],
    nearEnd: { name: sides('Aft end'), kind: 'wall' },
    farEnd: { name: sides('Fore end'), kind: 'wall' },
    stations: [
      { id: freshId(system, 'aft-station'), name: sides('At the aft end'), at_m: none, corners: corners() },
      { id: freshId(system, 'fore-station'), name: sides('At the fore end'), at_m: guess(l), corners: corners() },
    ],
    measures: [],
    curves: [],
  };
  return withUsualMeasures(withValue(system, ['fit', 'bay'], bay));
}

/**
 * Side lengths, both diagonals of every outline, and the lengths between outlines, as far as they are not there:
 * guessed from the sketch.
 */
export function withUsualMeasures(system: SystemDocument): SystemDocument {
  const { bay } = system.fit;
  if (bay.kind !== 'measured') return system;
  const n = bay.sides.length;
  const pairs = bay.stations.flatMap((station, s) => [
    ...Array.from({ length: n }, (_, k) => ({
      from: { station: station.id, corner: k },
      to: { station: station.id, corner: (k + 1) % n },
    })),
    ...(n === 4
      ? [
          [0, 2],
          [1, 3],
        ].map(([a, b]) => ({ from: { station: station.id, corner: a! }, to: { station: station.id, corner: b! } }))
      : []),
    ...(s > 0
      ? [{ from: { station: bay.stations[s - 1]!.id, corner: 0 }, to: { station: station.id, corner: 0 } }]
      : []),
  ]);
  const same = (a: { station: string; corner: number }, b: { station: string; corner: number }): boolean =>
    a.station === b.station && a.corner === b.corner;
  return pairs.reduce((next, { from, to }) => {
    const now = next.fit.bay as MeasuredBayDocument;
    if (
      now.measures.some(
        (other) => (same(other.from, from) && same(other.to, to)) || (same(other.from, to) && same(other.to, from)),
      )
    )
      return next;
    return withAdded(next, ['fit', 'bay', 'measures'], {
      id: freshId(next, 'length'),
      from,
      to,
      how: 'straight',
      length_m: guess(sketchLength(now, from, to)),
    });
  }, system);
}

function sketchLength(
  bay: MeasuredBayDocument,
  from: { station: string; corner: number },
  to: { station: string; corner: number },
): number {
  const place = ({ station, corner }: { station: string; corner: number }): readonly [number, number, number] => {
    const found = bay.stations.find(({ id }) => id === station)!;
    return [found.at_m.value, found.corners[corner]!.across_m.value, found.corners[corner]!.up_m.value];
  };
  const [a, b] = [place(from), place(to)];
  return Math.max(0.001, Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]));
}

/** One more outline beyond the last. */
export function withStation(system: SystemDocument): SystemDocument {
  const { bay } = system.fit;
  if (bay.kind !== 'measured') return system;
  const last = bay.stations.at(-1)!;
  return withAdded(system, ['fit', 'bay', 'stations'], {
    id: freshId(system, 'station'),
    name: `Outline ${bay.stations.length + 1}`,
    at_m: guess(last.at_m.value + 0.2),
    corners: last.corners.map(({ across_m, up_m }) => ({ across_m: guess(across_m.value), up_m: guess(up_m.value) })),
  });
}

/** Takes an outline out with all that is measured to it; two must stay. */
export function withoutStation(system: SystemDocument, id: string): SystemDocument {
  const { bay } = system.fit;
  if (bay.kind !== 'measured' || bay.stations.length < 3) return system;
  return withValue(system, ['fit', 'bay'], {
    ...bay,
    stations: bay.stations.filter((station) => station.id !== id),
    measures: bay.measures.filter(({ from, to }) => from.station !== id && to.station !== id),
    curves: bay.curves.filter(({ station }) => station !== id),
  });
}

/** One more corner after the last of a side, in the middle of it at every outline. */
export function withCorner(system: SystemDocument, side: number): SystemDocument {
  const { bay } = system.fit;
  if (bay.kind !== 'measured' || bay.sides.length >= 16) return system;
  const moved = <T extends { readonly station: string; readonly corner: number }>(place: T): T =>
    place.corner > side ? { ...place, corner: place.corner + 1 } : place;
  const inserted = <T>(list: readonly T[], item: T): T[] => [...list.slice(0, side + 1), item, ...list.slice(side + 1)];
  return withValue(system, ['fit', 'bay'], {
    ...bay,
    sides: inserted(bay.sides, {
      ...bay.sides[side]!,
      id: freshId(system, `${bay.sides[side]!.id}-b`.slice(0, 40)),
      name: plainName(`${bay.sides[side]!.name}, second part`, 80),
    }),
    stations: bay.stations.map((station) => {
      const [a, b] = [station.corners[side]!, station.corners[(side + 1) % station.corners.length]!];
      return {
        ...station,
        corners: inserted(station.corners, {
          across_m: guess((a.across_m.value + b.across_m.value) / 2),
          up_m: guess((a.up_m.value + b.up_m.value) / 2),
        }),
      };
    }),
    measures: bay.measures.map((measure) => ({ ...measure, from: moved(measure.from), to: moved(measure.to) })),
  });
}

const body = (length: number, width: number, height: number) => ({
  shape: { kind: 'box' as const, length_m: guess(length), width_m: guess(width), height_m: guess(height) },
  x_m: none,
  y_m: none,
  z_m: none,
  yaw_deg: none,
  pitch_deg: none,
  roll_deg: none,
});

/** A box of a hand's size beside the first tank, to be measured. */
export function withObstacle(system: SystemDocument): SystemDocument {
  const { mounting } = system.tanks[0]!;
  const used = system.fit.obstacles.length;
  const obstacle: ObstacleDocument = {
    id: freshId(system, 'obstacle'),
    name: `Obstacle ${used + 1}`,
    role: 'obstacle',
    x_m: guess(mounting.x_m.value),
    y_m: guess(mounting.y_m.value - 0.2),
    z_m: guess(mounting.z_m.value),
    yaw_deg: none,
    pitch_deg: none,
    roll_deg: none,
    bodies: [body(0.1, 0.1, 0.1)],
    motions: [],
    removable: false,
  };
  return withAdded(system, ['fit', 'obstacles'], obstacle);
}

/** A closed mesh as the bay, where the file has it; every side a wall until it is said to be open. */
export const withDrawnBay = (
  system: SystemDocument,
  shape: ShapeDocument,
  [x, y, z]: readonly [number, number, number],
): SystemDocument =>
  withValue(system, ['fit', 'bay'], {
    kind: 'drawn',
    shape,
    x_m: fromFile(x),
    y_m: fromFile(y),
    z_m: fromFile(z),
    walls: { fore: 'wall', aft: 'wall', port: 'wall', starboard: 'wall', top: 'open', floor: 'wall' },
  });
const fromFile = (value: number) => fromPart(Number(value.toFixed(4)), GUESS_M);

/** A closed mesh as an obstacle, where the file has it. */
export function withMeshObstacle(
  system: SystemDocument,
  shape: ShapeDocument,
  [x, y, z]: readonly [number, number, number],
): SystemDocument {
  const obstacle: ObstacleDocument = {
    id: freshId(system, 'obstacle'),
    name: `Obstacle ${system.fit.obstacles.length + 1}`,
    role: 'obstacle',
    x_m: fromFile(x),
    y_m: fromFile(y),
    z_m: fromFile(z),
    yaw_deg: none,
    pitch_deg: none,
    roll_deg: none,
    bodies: [{ shape, x_m: none, y_m: none, z_m: none, yaw_deg: none, pitch_deg: none, roll_deg: none }],
    motions: [],
    removable: false,
  };
  return withAdded(system, ['fit', 'obstacles'], obstacle);
}

/** One more body of an obstacle, on top of its first. */
export function withBody(system: SystemDocument, index: number): SystemDocument {
  const [first] = system.fit.obstacles[index]!.bodies;
  const [, , height] = shapeSpan(first!.shape);
  return withAdded(system, ['fit', 'obstacles', index, 'bodies'], { ...body(0.1, 0.1, 0.1), z_m: guess(height) });
}

/** An opening through the first body from above, as wide as half of it, to be measured. */
export function withOpening(system: SystemDocument, index: number): SystemDocument {
  const [first] = system.fit.obstacles[index]!.bodies;
  const [length, width, height] = shapeSpan(first!.shape);
  return withAdded(system, ['fit', 'obstacles', index, 'bodies'], {
    ...body(length / 2, width / 2, height + 2 * THROUGH_M),
    operation: 'cut',
    x_m: guess(length / 4),
    y_m: guess(width / 4),
    z_m: chosen(-THROUGH_M),
  });
}
/** An opening goes so far beyond what it goes through, at either end [m]. */
const THROUGH_M = 0.01;

/** Takes a point off a curved side, and the curve with its last point. */
export function withoutCurvePoint(system: SystemDocument, curve: number, point: number): SystemDocument {
  const { bay } = system.fit;
  if (bay.kind !== 'measured') return system;
  const left = bay.curves[curve]!.points.filter((_, p) => p !== point);
  return withValue(
    system,
    ['fit', 'bay', 'curves'],
    bay.curves.flatMap((one, c) => (c !== curve ? [one] : left.length === 0 ? [] : [{ ...one, points: left }])),
  );
}

/** A travel up and down, or a swing about the axis to port, to be measured. */
export function withMotion(system: SystemDocument, index: number, kind: 'slide' | 'hinge'): SystemDocument {
  const { x_m, y_m, z_m } = system.fit.obstacles[index]!;
  return withAdded(
    system,
    ['fit', 'obstacles', index, 'motions'],
    kind === 'slide'
      ? {
          kind,
          way: { forward: 0, toPort: 0, up: 1 },
          fromName: 'full droop',
          toName: 'full bump',
          from_m: guess(-0.05),
          to_m: guess(0.05),
        }
      : {
          kind,
          x_m,
          y_m,
          z_m,
          axis: { forward: 0, toPort: 1, up: 0 },
          fromName: 'one end',
          toName: 'other end',
          from_deg: assumed(-10, 3),
          to_deg: assumed(10, 3),
        },
  );
}

export function withoutMotion(system: SystemDocument, index: number, motion: number): SystemDocument {
  return withValue(
    system,
    ['fit', 'obstacles', index, 'motions'],
    system.fit.obstacles[index]!.motions.filter((_, m) => m !== motion),
  );
}

/** An obstacle goes with the ways that were kept for it. */
export function withoutObstacle(system: SystemDocument, index: number): SystemDocument {
  const { id } = system.fit.obstacles[index]!;
  return {
    ...system,
    fit: {
      ...system.fit,
      obstacles: system.fit.obstacles.filter((_, i) => i !== index),
      removals: system.fit.removals.filter(({ part }) => part !== id),
    },
  };
}

/** Keeps a way for a part in place of the one kept before. */
export function withWay(
  system: SystemDocument,
  part: string,
  steps: SystemDocument['fit']['removals'][number]['steps'],
): SystemDocument {
  return withValue(
    system,
    ['fit', 'removals'],
    [...system.fit.removals.filter((way) => way.part !== part), { part, steps }],
  );
}

const SPOT_NAMES: Readonly<Record<SpotDocument['kind'], string>> = {
  bolt: 'Bolt',
  weld: 'Weld',
  gauge: 'Gauge',
  filler: 'Filler mouth',
  grip: 'Handle',
};
/** A bolt of this size, until it is said [m]. */
const USUAL_FLATS_M = 0.013;

/** A place to be reached, in the middle of the first tank's aft end to begin with, where ports seldom are. */
export function withSpot(system: SystemDocument, kind: SpotDocument['kind']): SystemDocument {
  const tank = system.tanks[0]!;
  const [, w, h] = shapeSpan(tank.shape);
  const wall = tank.dimensions === 'inside' ? tank.material.thickness_m.value : 0;
  const count = system.fit.spots.filter((spot) => spot.kind === kind).length;
  return withAdded(system, ['fit', 'spots'], {
    id: freshId(system, kind),
    name: `${SPOT_NAMES[kind]} ${count + 1}`,
    kind,
    tank: tank.id,
    x_m: guess(-wall),
    y_m: guess(w / 2),
    z_m: guess(h / 2),
    facing: { forward: -1, toPort: 0, up: 0 },
    ...(kind === 'bolt' ? { acrossFlats_m: assumed(USUAL_FLATS_M, 0.003) } : {}),
  });
}
