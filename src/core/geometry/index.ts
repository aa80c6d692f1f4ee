/**
 * Where liquid lies in a vessel: closed meshes cut by the liquid's surface.
 *
 * Read `clip.ts` first: everything about volume comes from cutting a closed
 * mesh by the plane normal to effective gravity. `attitude.ts` makes that
 * plane's direction from slope and acceleration, `level.ts` finds its height
 * for a volume. `kernel.ts` adds and takes away bodies. Between bodies,
 * `separation.ts` is the distance and `travel.ts` the way to first contact. To add a shape, write a
 * function that returns a ClosedMesh (see `box.ts`, `loft.ts`, `vessel.ts`);
 * nothing else here changes.
 */
export { add, cross, distance, dot, lerp, norm, scale, subtract, unitVector, type Vec3 } from './vec';
export {
  cornerOfEach,
  meshArea,
  meshBounds,
  meshVolume,
  parseMesh,
  meshSize_m,
  surfacePieces,
  triangle,
  triangleCount,
  vertex,
  withFillable,
  type Bounds,
  type ClosedMesh,
  type MeshCode,
} from './mesh';
export { meshCentroid, shellMoments, solidMoments, type SecondMoments } from './moments';
export { boxMesh } from './box';
export { DisjointSets } from './disjointSets';
export { edgeSums, nearestSeam, type EdgeSums, type Seam } from './edges';
export { largestTwist_sin, loftMesh, loftVolume_m3, prismMesh, type ExtrudeAxis, type LoftCode } from './loft';
export { fillProfile, parseProfile, signedArea_m2, type Profile, type ProfileCode } from './polygon';
export { revolvedMesh, type MeridianPoint } from './revolved';
export {
  coneMesh,
  endDepth_m,
  endVolume_m3,
  END_SHAPES,
  vesselMesh,
  vesselVolume_m3,
  type EndShape,
  type Vessel,
  type VesselCode,
} from './vessel';
export {
  between,
  combine,
  commonRegion,
  kernelVolume_m3,
  loadKernel,
  silhouette,
  movedMesh,
  pictureBelow,
  pictureOf,
  withoutBand,
  type CombineCode,
  type Operation,
  type PictureMesh,
} from './kernel';
export { cutAcross, isInOutline } from './slab';
export { flatFaces, onFace, type FaceFrame, type FlatFace } from './faces';
export { insetMesh, type InsetCode } from './inset';
export { crossingTriangles } from './crossing';
export { misturned, windingAt, type Misturned } from './winding';
export {
  clipBelow,
  clippedTriangle,
  offsetRange,
  volumeBelow,
  volumesAlong,
  type ClippedBody,
  type Plane,
} from './clip';
export { levelForVolume, type Level, type LevelCode } from './level';
export {
  effectiveGravity,
  LEVEL,
  tankAxes,
  toTankFrame,
  worldUpInVehicle,
  type Attitude,
  type EffectiveGravity,
  type Mounting,
} from './attitude';
export { depthInside, nearestOnTriangle, rayCrossings, rayHit } from './distance';
export { crossingsAt, outlineBelow, sectionAcross, surfaceInSection, type Axis, type Point2 } from './section';
export { roomDepth } from './roomDepth';
export { insideOutline, toStretch } from './outline';
export { rodMesh } from './rod';
export { roundedWay } from './rounded';
export {
  AT_HOME,
  composed,
  frameAlong,
  placed,
  placedBack,
  posedMesh,
  poseOf,
  seenFrom,
  shiftBy,
  turnAbout,
  turned,
  turnedBack,
  type Pose,
} from './pose';
export { OUTWARD } from './outward';
export { boxTree, treeOf, type BoxTree, type Surface } from './boxTree';
export { separation, type Separation } from './separation';
export { contacts, type Contact } from './contacts';
export { travel, type Travel } from './travel';
export { firstGone, leastOver, type Bounded, type IsWithin, type Least } from './bisect';
export { convexHull } from './hull';
