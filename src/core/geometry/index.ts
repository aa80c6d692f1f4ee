/**
 * Where liquid lies in a vessel: closed meshes cut by the liquid's surface.
 *
 * Read `clip.ts` first: everything about volume comes from cutting a closed
 * mesh by the plane normal to effective gravity. `attitude.ts` makes that
 * plane's direction from slope and acceleration, `level.ts` finds its height
 * for a volume. To add a shape, write a function that returns a ClosedMesh
 * (see `box.ts`, `loft.ts`, `vessel.ts`); nothing else here changes.
 */
export { add, cross, distance, dot, lerp, norm, scale, subtract, unitVector, type Vec3 } from './vec';
export {
  meshArea, meshBounds, meshVolume, parseMesh, triangle, triangleCount, vertex, type Bounds, type ClosedMesh, type MeshCode,
} from './mesh';
export { boxMesh } from './box';
export { loftMesh, loftVolume_m3, prismMesh, type ExtrudeAxis, type LoftCode } from './loft';
export { fillProfile, parseProfile, signedArea_m2, type Profile, type ProfileCode } from './polygon';
export { CURVE_REL, facetsFor, revolvedMesh, type MeridianPoint } from './revolved';
export { coneMesh, endDepth_m, endVolume_m3, END_SHAPES, TORISPHERICAL, vesselMesh, vesselVolume_m3, type EndShape, type Vessel, type VesselCode } from './vessel';
export { clipBelow, offsetRange, volumeBelow, type ClippedBody, type Plane } from './clip';
export { levelForVolume, type Level, type LevelCode } from './level';
export {
  effectiveGravity, LEVEL, tankAxes, toTankFrame, worldUpInVehicle, type Attitude, type EffectiveGravity, type Mounting,
} from './attitude';
export { depthInside, nearestOnTriangle, rayCrossings, rayHit } from './distance';
export { outlineBelow, sectionAcross, surfaceInSection, type Axis, type Point2 } from './section';
