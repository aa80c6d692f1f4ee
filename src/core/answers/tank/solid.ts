import type { ModelCode } from '../../model';
import type { TankLevel } from '../../model/networkParts';
import type { StateCode } from '../../state';
import { meshBounds, pictureBelow, pictureOf, type Bounds, type PictureMesh, type Vec3 } from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { onPlate } from '../../tank';
import { tankLevel, type Stood } from './standing';

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
export function tankSolid(system: Stood, tankIndex: number): Outcome<TankSolid, ModelCode | StateCode> {
  const level = tankLevel(system, tankIndex);
  return level.ok ? success(solidOf(level.value)) : level;
}

/** The same of a tank at its level. */
export function solidOf({ tank, up, offset_m }: TankLevel): TankSolid {
  return {
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
  };
}
