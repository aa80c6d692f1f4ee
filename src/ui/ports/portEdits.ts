import {
  ACROSS_FACE,
  chosen,
  freshId,
  withAdded,
  withValue,
  type PortDocument,
  type SystemDocument,
} from '@/core/plan';
import { bossPort, holeOf_m, shapeSpan } from '@/core/model';
import { onDocument, type FaceSheet, type SheetPort } from '@/core/answers';
import type { Point2 } from '@/core/geometry';
import { PARTS_FOR_ROLE, PORT_PARTS, portPart, type PortPartRow } from '@/core/reference/portParts';

const MM = 1000;
const toGrid = (value: number): number => Math.round(value * MM * 10) / (MM * 10);

/** A plugged spare in the middle of the lid, or beside another port where that is asked for. */
export function withSpare(
  system: SystemDocument,
  t: number,
  at?: { readonly x_m: number; readonly y_m: number },
): SystemDocument {
  const [length, width] = shapeSpan(system.tanks[t]!.shape);
  const port: PortDocument = {
    id: freshId(system, 'spare'),
    name: 'Spare, plugged',
    role: 'spare',
    face: 'lid',
    x_m: chosen(toGrid(at?.x_m ?? length * 0.7)),
    y_m: chosen(toGrid(at?.y_m ?? width / 2)),
    bore_m: chosen(0.009),
    length_m: chosen(0),
    part: 'bung-npt-1-4',
  };
  return withAdded(system, ['tanks', t, 'ports'], port);
}

/** Spigots stand round the middle of their plate, so far out of it as a share of its opening. */
const SPIGOT_OUT = 0.28;
const SPIGOT_STEP_RAD = (2 * Math.PI) / 5;
const SPIGOT_BORE_M = 0.008;

/** A capped spigot on the plate or ring in a port: for a return, a vent, a second feed. */
export function withSpigot(system: SystemDocument, t: number, p: number): SystemDocument {
  const { ports } = system.tanks[t]!;
  const carrier = ports[p]!;
  const already = ports.filter(({ on }) => on === carrier.id).length;
  const opening = holeOf_m(carrier);
  const turn = already * SPIGOT_STEP_RAD;
  const [first, second] = axesOf(carrier.face);
  const port: PortDocument = {
    id: freshId(system, 'spigot'),
    name: `Spigot ${already + 1} of ${carrier.name}`.slice(0, 80).trim(),
    role: 'spare',
    face: carrier.face,
    [first!]: chosen(toGrid(carrier[first!]!.value + SPIGOT_OUT * opening * Math.cos(turn))),
    [second!]: chosen(toGrid(carrier[second!]!.value + SPIGOT_OUT * opening * Math.sin(turn))),
    bore_m: chosen(SPIGOT_BORE_M),
    length_m: chosen(0),
    on: carrier.id,
  };
  return withAdded(system, ['tanks', t, 'ports'], port);
}

/** The ports on whose plates a spigot may stand: rings and plates of its face. */
export const carriersFor = (ports: readonly PortDocument[], { id, face }: PortDocument): PortDocument[] =>
  ports.filter(
    (port) => port.id !== id && port.face === face && port.on === undefined && port.part && portPart(port.part).bolts,
  );

const AXES = ['x_m', 'y_m', 'z_m'] as const;
const axesOf = (face: PortDocument['face']) => AXES.filter((axis) => ACROSS_FACE[face] !== axis);

/**
 * Moves a port to another face, to the middle of it where its old place has no meaning; what stands on its plate goes
 * along, and a spigot leaves its plate behind.
 */
export function withFace(system: SystemDocument, t: number, p: number, face: PortDocument['face']): SystemDocument {
  const { shape, ports } = system.tanks[t]!;
  const port = ports[p]!;
  const [length, width, height] = shapeSpan(shape);
  const middle = { x_m: length / 2, y_m: width / 2, z_m: height / 2 };
  const placed = Object.fromEntries(
    axesOf(face).map((axis) => [axis, port[axis] ?? chosen(Number(middle[axis].toFixed(3)))]),
  ) as Pick<PortDocument, 'x_m' | 'y_m' | 'z_m'>;
  const bare = ({ x_m: _x, y_m: _y, z_m: _z, ...rest }: PortDocument) => rest;
  const { on: _on, ...own } = bare(port);
  const spigot = (each: PortDocument): PortDocument => ({
    ...bare(each),
    face,
    ...Object.fromEntries(
      axesOf(face).map((axis, k) => {
        const from = axesOf(port.face)[k]!;
        return [axis, chosen(toGrid(placed[axis]!.value + each[from]!.value - port[from]!.value))];
      }),
    ),
  });
  return withValue(
    system,
    ['tanks', t, 'ports'],
    ports.map((each, k) => (k === p ? { ...own, face, ...placed } : each.on === port.id ? spigot(each) : each)),
  );
}

/** Puts the centre of a hole at a point of a sheet, as a place that was chosen. */
export function withPlace(system: SystemDocument, t: number, hole: Hole, sheet: FaceSheet, at: Point2): SystemDocument {
  const { face } = system.tanks[t]![hole.boss ? 'sightTubes' : 'ports'][hole.index]!;
  return withMoved(system, t, hole, onDocument({ frame: sheet.frame, face }, at));
}

/** Moves a hole along a sheet by so much from where it is. */
export function withNudge(
  system: SystemDocument,
  t: number,
  hole: Hole,
  { frame }: FaceSheet,
  [du, dv]: Point2,
): SystemDocument {
  const from = placeOfHole(system, t, hole);
  return withMoved(
    system,
    t,
    hole,
    Object.fromEntries(
      AXES.flatMap((key, axis) =>
        from[key] ? [[key, from[key].value + frame.u[axis]! * du + frame.v[axis]! * dv]] : [],
      ),
    ),
  );
}

type Hole = Pick<SheetPort, 'index' | 'boss'>;

const placeOfHole = (system: SystemDocument, t: number, { index, boss }: Hole) =>
  boss ? bossPort(system.tanks[t]!.sightTubes[index]!, boss)! : system.tanks[t]!.ports[index]!;

/** Both bosses of a sight tube stand one over the other: along the wall they move together. */
function withMoved(
  system: SystemDocument,
  t: number,
  { index, boss }: Hole,
  place: ReturnType<typeof onDocument>,
): SystemDocument {
  const at = (value: number) => chosen(toGrid(value));
  if (boss) {
    const along = place.x_m ?? place.y_m;
    return withValue(system, ['tanks', t, 'sightTubes', index], {
      ...system.tanks[t]!.sightTubes[index]!,
      ...(along === undefined ? {} : { along_m: at(along) }),
      ...(place.z_m === undefined ? {} : { [boss]: at(place.z_m) }),
    });
  }
  const moved = Object.fromEntries(Object.entries(place).map(([key, value]) => [key, at(value as number)]));
  return withValue(system, ['tanks', t, 'ports', index], { ...system.tanks[t]!.ports[index]!, ...moved });
}

/** Makes a port of a part: its bore goes along, what was said of hole, screws and what stands on it before does not. */
export function withPart(system: SystemDocument, t: number, p: number, key: string | undefined): SystemDocument {
  const {
    hole_m: _hole,
    bolts: _bolts,
    stands: _stands,
    clock_deg: _clock,
    part: _part,
    ...port
  } = system.tanks[t]!.ports[p]!;
  if (key === undefined) return withValue(system, ['tanks', t, 'ports', p], port);
  const row = portPart(key);
  return withValue(system, ['tanks', t, 'ports', p], {
    ...port,
    part: key as PortDocument['part'],
    bore_m: { value: row.bore, origin: 'part' },
    ...(row.bolts ? { clock_deg: chosen(0) } : {}),
  });
}

/** Parts that a port of a role is usually made of come first. */
export function partsFor(role: PortDocument['role']): readonly PortPartRow[] {
  const wanted = PARTS_FOR_ROLE[role];
  return [...PORT_PARTS].sort((a, b) => rank(wanted, a) - rank(wanted, b));
}
const rank = (wanted: readonly string[], { group }: PortPartRow): number =>
  wanted.includes(group) ? wanted.indexOf(group) : wanted.length;
