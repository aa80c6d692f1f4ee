import { parseMesh, type ClosedMesh } from '../geometry';
import { failure, type Outcome } from '../outcome';

export type MeshText = { readonly vertices_m: string; readonly triangles: string };

export type MeshTextCode = 'not-base64' | 'bad-mesh';

/** A mesh as a document holds it: single-precision coordinates and 32-bit vertex numbers, little-endian, in base64. */
export function meshText(mesh: ClosedMesh): MeshText {
  const coordinates = new DataView(new ArrayBuffer(4 * mesh.positions.length));
  mesh.positions.forEach((value, i) => coordinates.setFloat32(4 * i, value, true));
  const numbers = new DataView(new ArrayBuffer(4 * mesh.triangles.length));
  mesh.triangles.forEach((value, i) => numbers.setUint32(4 * i, value, true));
  return { vertices_m: toBase64(coordinates), triangles: toBase64(numbers) };
}

/** The mesh that a document holds, checked as any mesh from outside. */
export function textMesh({ vertices_m, triangles }: MeshText): Outcome<ClosedMesh, MeshTextCode> {
  const [coordinates, numbers] = [fromBase64(vertices_m), fromBase64(triangles)];
  if (!coordinates || coordinates.byteLength % 12 !== 0)
    return failure('not-base64', 'vertices_m', 'must be base64 of whole corners, 12 bytes each');
  if (!numbers || numbers.byteLength % 12 !== 0)
    return failure('not-base64', 'triangles', 'must be base64 of whole triangles, 12 bytes each');
  const mesh = parseMesh(
    Float64Array.from({ length: coordinates.byteLength / 4 }, (_, i) => coordinates.getFloat32(4 * i, true)),
    Uint32Array.from({ length: numbers.byteLength / 4 }, (_, i) => numbers.getUint32(4 * i, true)),
  );
  return mesh.ok ? mesh : failure('bad-mesh', mesh.error.at, mesh.error.detail);
}

function toBase64(view: DataView): string {
  let text = '';
  for (let i = 0; i < view.byteLength; i++) text += String.fromCharCode(view.getUint8(i));
  return btoa(text);
}

function fromBase64(text: string): DataView | undefined {
  try {
    return new DataView(Uint8Array.from(atob(text), (character) => character.charCodeAt(0)).buffer);
  } catch {
    return undefined;
  }
}
