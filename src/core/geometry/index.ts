/**
 * Where liquid lies in a vessel: closed meshes cut by the liquid's surface.
 *
 * Read `clip.ts` first: everything about volume comes from cutting a closed
 * mesh by the plane normal to effective gravity. `attitude.ts` makes that
 * plane's direction from slope and acceleration, `level.ts` finds its height
 * for a volume. To add a shape, write a function that returns a ClosedMesh
 * (see `box.ts`); nothing else here changes.
 */
export { add, cross, distance, dot, lerp, norm, scale, subtract, unitVector, type Vec3 } from './vec';
export {
  meshArea, meshBounds, meshVolume, parseMesh, triangle, triangleCount, vertex, type Bounds, type ClosedMesh, type MeshCode,
} from './mesh';
export { boxMesh } from './box';
export { clipBelow, offsetRange, volumeBelow, type ClippedBody, type Plane } from './clip';
export { levelForVolume, type Level, type LevelCode } from './level';
export {
  effectiveGravity, LEVEL, tankAxes, toTankFrame, worldUpInVehicle, type Attitude, type EffectiveGravity, type Mounting,
} from './attitude';
export { depthInside, nearestOnTriangle, rayCrossings } from './distance';
export { outlineBelow, sectionAcross, surfaceInSection, type Axis, type Point2 } from './section';
