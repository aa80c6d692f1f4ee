import { meshBounds, parseMesh, type ClosedMesh, type Vec3 } from '../geometry';
import { success, unwrap, type Outcome } from '../outcome';
import { memoized } from '../memo';
import { sizesOf } from '../plan/sizes';
import { shapeKind, type ShapeCode, type ShapeDocument } from '../shapes';

export type { ShapeCode } from '../shapes';

const meshOf = memoized(
  'shape',
  (shape: ShapeDocument): Outcome<ClosedMesh, ShapeCode> => {
    const raw = shapeKind(shape).mesh(shape);
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
