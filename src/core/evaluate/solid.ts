import { compileTank, gravityOf } from '../document/compileTank';
import type { SystemDocument } from '../document/schema';
import {
  meshBounds,
  pictureBelow,
  pictureOf,
  toTankFrame,
  type Bounds,
  type PictureMesh,
  type Vec3,
} from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { onPlate } from '../tank';
import { levelOf } from './tankResult';

/** A tank to look at in three dimensions, at the set conditions; tank frame [m]. */
export type TankSolid = {
  readonly bounds: Bounds;
  readonly shell: PictureMesh;
  readonly liquid: PictureMesh | undefined;
  /** Baffles by their outlines, each across one axis. */
  readonly plates: readonly { readonly axis: 0 | 1 | 2; readonly outline: readonly Vec3[] }[];
  readonly ports: readonly { readonly name: string; readonly role: string; readonly at: Vec3 }[];
  readonly pickups: readonly { readonly name: string; readonly from: Vec3; readonly to: Vec3 }[];
};

/** All that the picture of a tank is drawn from. */
export function tankSolid(
  system: SystemDocument,
  tankIndex: number,
): Outcome<TankSolid, 'no-tank' | 'bad-shape' | 'weightless'> {
  const document = system.tanks[tankIndex];
  if (!document) return failure('no-tank', 'tanks', 'There is no such tank.');
  const model = compileTank(system, document);
  if (!model.ok) return model;
  const gravity = gravityOf(system);
  if (!gravity.ok) return gravity;
  const tank = model.value;
  const up = toTankFrame(gravity.value.up, tank.mounting);
  const { offset_m } = levelOf(tank, up);
  return success({
    bounds: meshBounds(tank.body.shell),
    shell: pictureOf(tank.mesh),
    liquid: pictureBelow(tank.mesh, { normal: up, offset_m }),
    plates: tank.body.plates.flatMap(({ plate }) =>
      plate.outline.map((loop) => ({ axis: plate.axis, outline: loop.map((point) => onPlate(plate, point)) })),
    ),
    ports: tank.ports.map(({ document: port, point_m }) => ({ name: port.name, role: port.role, at: point_m })),
    pickups: tank.pickups.map(({ document: pickup, port_m, inlet }) => ({
      name: pickup.name,
      from: port_m,
      to: inlet.point_m,
    })),
  });
}
