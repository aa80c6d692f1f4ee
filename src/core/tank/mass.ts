import { meshArea, type ClosedMesh } from '../geometry';

/**
 * Mass of a sheet vessel [kg]: inside area times wall times density. Leaves
 * out the weld, the bungs and the sheet's thickness at the corners, a few per
 * cent together.
 */
export const shellMass_kg = (mesh: ClosedMesh, thickness_m: number, density_kgPerM3: number): number =>
  meshArea(mesh) * thickness_m * density_kgPerM3;
