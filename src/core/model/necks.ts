import {
  boxMesh,
  meshVolume,
  OUTWARD,
  parseMesh,
  posedMesh,
  shiftBy,
  withFillable,
  type ClosedMesh,
} from '../geometry';
import { joinedSurface } from '../fit';
import { derived } from '../memo';
import { boreArea_m2 } from '../network';
import { unwrap } from '../outcome';
import type { PortModel, TankModel } from './compileTank';

/** The space of a tank with that of its fillers' necks, which stand straight out of their faces. */
export type Room = { readonly mesh: ClosedMesh; readonly gross_m3: number };

/**
 * All that liquid and gas of a tank have room in. A neck is as long and as wide as it is; its section is taken as a
 * square of the same area, so that what stands in an upright one is exact. Foam fills the tank and no neck.
 */
export const roomOf: (tank: TankModel) => Room = derived((tank: TankModel): Room => {
  const necks = tank.ports.filter(({ document: { role, length_m } }) => role === 'filler' && length_m.value > 0);
  if (necks.length === 0) return { mesh: tank.mesh, gross_m3: tank.gross_m3 };
  const { positions, triangles } = joinedSurface([
    tank.mesh,
    ...necks.map((neck) => neckMesh(neck, tank.mesh.fillable)),
  ]);
  const mesh = withFillable(unwrap(parseMesh(positions, triangles)), tank.mesh.fillable);
  return { mesh, gross_m3: meshVolume(mesh) };
});

function neckMesh({ document, point_m }: PortModel, fillable: number): ClosedMesh {
  const side_m = Math.sqrt(boreArea_m2(document.bore_m.value) / fillable);
  const length_m = document.length_m.value;
  const outward = OUTWARD[document.face];
  const size = outward.map((each) => (each === 0 ? side_m : length_m));
  const corner = outward.map((each, axis) => point_m[axis]! + (each > 0 ? 0 : each < 0 ? -length_m : -side_m / 2));
  const [length, width, height] = size as [number, number, number];
  return posedMesh(boxMesh(length, width, height), shiftBy(corner as [number, number, number]));
}
