import {
  boxMesh,
  coneMesh,
  loftMesh,
  meshBounds,
  parseMesh,
  prismMesh,
  vesselMesh,
  type ClosedMesh,
  type LoftCode,
  type Point2,
  type Vec3,
  type VesselCode,
} from '../geometry';
import { success, unwrap, type Outcome } from '../outcome';
import { memoized } from '../memo';
import { sizesOf } from './sizes';
import { textMesh, type MeshTextCode } from './meshText';
import type { ShapeDocument } from './schema';

export type ShapeCode = LoftCode | VesselCode | MeshTextCode;

const meshOf = memoized(
  'shape',
  (shape: ShapeDocument): Outcome<ClosedMesh, ShapeCode> => {
    const raw = rawMesh(shape);
    return raw.ok ? success(atOrigin(raw.value)) : raw;
  },
  64,
);

/** One body as a mesh, its aft, starboard, lower corner at the origin. The same sizes give the same mesh. */
export const shapeMesh = (shape: ShapeDocument): Outcome<ClosedMesh, ShapeCode> => meshOf(sizesOf(shape));

/** Length, width and height of one body; of nothing where its shape makes no sense. */
export function shapeSpan(shape: ShapeDocument): Vec3 {
  const mesh = shapeMesh(shape);
  return mesh.ok ? meshBounds(mesh.value).max : [0, 0, 0];
}

const points = (list: readonly { u_m: number; v_m: number }[]): Point2[] => list.map(({ u_m, v_m }) => [u_m, v_m]);

function rawMesh(shape: ShapeDocument): Outcome<ClosedMesh, ShapeCode> {
  switch (shape.kind) {
    case 'box':
      return success(boxMesh(shape.length_m.value, shape.width_m.value, shape.height_m.value));
    case 'prism':
      return prismMesh(points(shape.profile), shape.axis, shape.length_m.value);
    case 'loft':
      return loftMesh(points(shape.near), points(shape.far), shape.axis, shape.length_m.value);
    case 'cylinder':
      return vesselMesh({
        radius_m: shape.diameter_m.value / 2,
        shell_m: shape.shell_m.value,
        axis: shape.axis,
        nearEnd: shape.nearEnd,
        farEnd: shape.farEnd,
      });
    case 'cone':
      return coneMesh(shape.nearDiameter_m.value / 2, shape.farDiameter_m.value / 2, shape.length_m.value, shape.axis);
    case 'mesh':
      return textMesh(shape);
  }
}

function atOrigin(mesh: ClosedMesh): ClosedMesh {
  const { min } = meshBounds(mesh);
  if (min.every((value) => value === 0)) return mesh;
  return unwrap(
    parseMesh(
      mesh.positions.map((value, i) => value - min[i % 3]!),
      mesh.triangles,
    ),
  );
}
