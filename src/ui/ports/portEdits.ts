import {
  ACROSS_FACE,
  chosen,
  freshId,
  withAdded,
  withValue,
  type PortDocument,
  type SystemDocument,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { onDocument, type FaceSheet } from '@/core/answers';
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

/** Moves a port to another face, to the middle of it where its old place has no meaning. */
export function withFace(system: SystemDocument, t: number, p: number, face: PortDocument['face']): SystemDocument {
  const { shape, ports } = system.tanks[t]!;
  const port = ports[p]!;
  const [length, width, height] = shapeSpan(shape);
  const middle = { x_m: length / 2, y_m: width / 2, z_m: height / 2 };
  const placed = Object.fromEntries(
    (['x_m', 'y_m', 'z_m'] as const).flatMap((axis) =>
      ACROSS_FACE[face] === axis ? [] : [[axis, port[axis] ?? chosen(Number(middle[axis].toFixed(3)))]],
    ),
  );
  const { x_m: _x, y_m: _y, z_m: _z, ...rest } = port;
  return withValue(system, ['tanks', t, 'ports', p], { ...rest, face, ...placed });
}

/** Puts a port's centre at a point of a sheet, as a place that was chosen. */
export function withPlace(system: SystemDocument, t: number, p: number, sheet: FaceSheet, at: Point2): SystemDocument {
  const port = system.tanks[t]!.ports[p]!;
  const place = onDocument({ frame: sheet.frame, face: port.face }, at);
  const moved = Object.fromEntries(Object.entries(place).map(([key, value]) => [key, chosen(toGrid(value as number))]));
  return withValue(system, ['tanks', t, 'ports', p], { ...port, ...moved });
}

/** Moves a port along a sheet by so much from where it is. */
export function withNudge(
  system: SystemDocument,
  t: number,
  p: number,
  { frame }: FaceSheet,
  [du, dv]: Point2,
): SystemDocument {
  const port = system.tanks[t]!.ports[p]!;
  const moved = Object.fromEntries(
    (['x_m', 'y_m', 'z_m'] as const).flatMap((key, axis) =>
      port[key] ? [[key, chosen(toGrid(port[key].value + frame.u[axis]! * du + frame.v[axis]! * dv))]] : [],
    ),
  );
  return withValue(system, ['tanks', t, 'ports', p], { ...port, ...moved });
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
