import type { TankLevel } from '../document/compileNetwork';
import { floatCentre_m, freeSwing, readingAt } from '../gauge';
import { meshBounds, outlineBelow, sectionAcross, surfaceInSection, type Axis, type Bounds, type Point2 } from '../geometry';

/** A cut through the tank, in metres, tank frame. */
export type SectionDrawing = {
  readonly outline: readonly (readonly Point2[])[];
  readonly liquid: readonly (readonly Point2[])[];
};

export type SenderDrawing = {
  readonly id: string;
  readonly pivot: readonly [number, number, number];
  readonly float: readonly [number, number, number];
  /** Centres of the float along its free swing, low to high. */
  readonly sweep: readonly (readonly [number, number, number])[];
  readonly radius_m: number;
};

/** What the side and end views draw: both cut through the first pickup, or the middle. */
export type TankDrawing = {
  readonly bounds: Bounds;
  readonly side: SectionDrawing;
  readonly end: SectionDrawing;
  readonly ports: readonly { readonly id: string; readonly role: string; readonly face: string; readonly name: string; readonly at: readonly [number, number, number] }[];
  readonly pickups: readonly { readonly id: string; readonly name: string; readonly port: readonly [number, number, number]; readonly inlet: readonly [number, number, number] }[];
  readonly senders: readonly SenderDrawing[];
};

const SWEEP_STEPS = 24;
const ALONG_SIDE: Axis = 1;
const ALONG_END: Axis = 0;

export function tankDrawing(level: TankLevel): TankDrawing {
  const { tank } = level;
  const bounds = meshBounds(tank.mesh);
  const middle = bounds.min.map((value, axis) => (value + bounds.max[axis]!) / 2);
  const through = tank.pickups[0]?.inlet.point_m ?? middle;
  return {
    bounds,
    side: section(level, ALONG_SIDE, through[1]!),
    end: section(level, ALONG_END, through[0]!),
    ports: tank.ports.map(({ document, point_m }) => ({ id: document.id, role: document.role, face: document.face, name: document.name, at: point_m })),
    pickups: tank.pickups.map(({ document, port_m, inlet }) => ({ id: document.id, name: document.name, port: port_m, inlet: inlet.point_m })),
    senders: tank.senders.flatMap((sender) => senderDrawing(level, sender)),
  };
}

function section({ tank, up, offset_m }: TankLevel, axis: Axis, at_m: number): SectionDrawing {
  const outline = sectionAcross(tank.mesh, axis, at_m);
  const { normal, offset } = surfaceInSection({ normal: up, offset_m }, axis, at_m);
  return { outline, liquid: outline.map((loop) => outlineBelow(loop, normal, offset)).filter((loop) => loop.length > 2) };
}

function senderDrawing({ tank, up, offset_m }: TankLevel, sender: TankLevel['tank']['senders'][number]): SenderDrawing[] {
  const { arm, gauge, document } = sender;
  const swing = freeSwing(tank.mesh, arm) ?? { low_rad: arm.lowStop_rad, high_rad: arm.highStop_rad, lowBlocked: true, highBlocked: true };
  const { angle_rad } = readingAt(arm, gauge, swing, up, offset_m);
  return [{
    id: document.id,
    pivot: arm.pivot_m,
    float: floatCentre_m(arm, angle_rad),
    sweep: Array.from({ length: SWEEP_STEPS + 1 }, (_, i) => floatCentre_m(arm, swing.low_rad + ((swing.high_rad - swing.low_rad) * i) / SWEEP_STEPS)),
    radius_m: arm.floatRadius_m,
  }];
}
