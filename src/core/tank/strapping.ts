import { offsetRange, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';

export type StrappingRow = { readonly depth_m: number; readonly volume_m3: number };

/**
 * Volume against depth of liquid, measured along effective gravity from the
 * lowest point: the strapping table.
 *
 * @param up    unit vector against effective gravity, tank frame
 * @param steps number of equal steps, >= 1
 */
export function strappingTable(mesh: ClosedMesh, up: Vec3, steps: number): StrappingRow[] {
  const [low, high] = offsetRange(mesh, up);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const depth_m = ((high - low) * i) / steps;
    return { depth_m, volume_m3: volumeBelow(mesh, { normal: up, offset_m: low + depth_m }) };
  });
}
