import { cross, norm, scale, subtract, triangle, triangleCount, type ClosedMesh } from '../geometry';

const HEADER_BYTES = 80;
const TRIANGLE_BYTES = 50;
const MM_PER_M = 1000;

/**
 * A closed mesh as binary STL in millimetres, the unit that most programs
 * take an STL to be in.
 * @source the binary layout: 80-byte header, count, then normal, three corners and two bytes a triangle, little-endian
 */
export function stlBytes(mesh: ClosedMesh, title: string): Uint8Array<ArrayBuffer> {
  const count = triangleCount(mesh);
  const bytes = new Uint8Array(HEADER_BYTES + 4 + count * TRIANGLE_BYTES);
  const view = new DataView(bytes.buffer);
  // A header that begins with "solid" would be taken for a text STL.
  bytes.set(new TextEncoder().encode(`mm; ${title}`).subarray(0, HEADER_BYTES));
  view.setUint32(HEADER_BYTES, count, true);
  for (let i = 0; i < count; i++) {
    const [a, b, c] = triangle(mesh, i);
    const normal = cross(subtract(b, a), subtract(c, a));
    const length = norm(normal) || 1;
    const numbers = [...scale(normal, 1 / length), ...[a, b, c].flatMap((corner) => scale(corner, MM_PER_M))];
    numbers.forEach((value, k) => view.setFloat32(HEADER_BYTES + 4 + i * TRIANGLE_BYTES + 4 * k, value, true));
  }
  return bytes;
}
