import type { InferType } from 'yup';
import { bytesText, closed, kindIs, text } from '../schema/tools';
import { textMesh } from './meshText';
import type { ShapeKindOf } from './shape';

/** A closed mesh, as little-endian single-precision coordinates and vertex numbers in base64; see docs/format. */
const MESH_CHARACTERS = 600_000;
const schema = closed({
  kind: kindIs('mesh'),
  file: text(120).defined('is missing'),
  vertices_m: bytesText(MESH_CHARACTERS).required('is missing'),
  triangles: bytesText(MESH_CHARACTERS).required('is missing'),
});
type Mesh = InferType<typeof schema>;

export const mesh: ShapeKindOf<Mesh> & { readonly schema: typeof schema } = {
  schema,
  word: 'from an STL file',
  mesh: textMesh,
  sizes: [],
};
