import { crossingTriangles, meshBounds, misturned, parseMesh, triangleCount, type ClosedMesh } from '../geometry';
import { failure, success, type Outcome } from '../outcome';

export const STL_UNITS = ['mm', 'in', 'm'] as const;
export type StlUnit = (typeof STL_UNITS)[number];
const UNIT_M: Readonly<Record<StlUnit, number>> = { mm: 1e-3, in: 0.0254, m: 1 };

export type StlCode =
  'not-stl' | 'too-many' | 'open' | 'inside-out' | 'crosses-itself' | 'counted-twice' | 'absurd-size' | 'flat';

/** A scan of more triangles says no more about litres, and would make every edit wait. */
export const MOST_TRIANGLES = 20_000;
/** The size of what is taken for a tank, longest side [m]. */
export const STL_SIZE_M = { least: 0.03, most: 20 };
/** Corners closer than this share of the size are one: an STL repeats each corner in single precision. */
const WELD_REL = 1e-6;

/**
 * A sound mesh from the bytes of an STL file, binary or text.
 * @param unit what one unit of the file is: an STL does not say
 */
export function readStl(bytes: Uint8Array, unit: StlUnit): Outcome<ClosedMesh, StlCode> {
  const mesh = closedStl(bytes, unit);
  return mesh.ok ? sound(mesh.value) : mesh;
}

/** The same, closed and no more: whether it is sound is still to be looked at. */
export function closedStl(bytes: Uint8Array, unit: StlUnit): Outcome<ClosedMesh, StlCode> {
  const corners = isBinary(bytes) ? binaryCorners(bytes) : textCorners(bytes);
  if (!corners.ok) return corners;
  const count = tooMany(corners.value.length / 9);
  if (count) return count;
  if (!corners.value.every(Number.isFinite))
    return failure('not-stl', 'file', 'A coordinate in the file is not a number.');
  const { positions, triangles } = welded(corners.value.map((value) => value * UNIT_M[unit]));
  const mesh = parseMesh(positions, triangles);
  return mesh.ok ? mesh : refusal(mesh.error.code, mesh.error.detail);
}

const tooMany = (triangles: number) =>
  triangles > MOST_TRIANGLES
    ? failure<StlCode>(
        'too-many',
        'triangles',
        `The mesh has ${triangles} triangles; up to ${MOST_TRIANGLES} are taken. Save it coarser.`,
      )
    : undefined;

/**
 * Refuses a closed mesh of too many triangles or no sensible size, one that runs through itself, and one whose faces do
 * not part inside from outside.
 */
export function sound(mesh: ClosedMesh): Outcome<ClosedMesh, StlCode> {
  const count = tooMany(triangleCount(mesh));
  if (count) return count;
  const { min, max } = meshBounds(mesh);
  const longest = Math.max(...max.map((value, axis) => value - min[axis]!));
  if (longest < STL_SIZE_M.least || longest > STL_SIZE_M.most) {
    return failure(
      'absurd-size',
      'size',
      `In this unit the body is ${Number(longest.toPrecision(3))} m long; a tank is ${STL_SIZE_M.least} to ${STL_SIZE_M.most} m. Was it drawn in another unit?`,
    );
  }
  const crossing = crossingTriangles(mesh);
  if (crossing)
    return failure(
      'crosses-itself',
      `triangles ${crossing[0] + 1} and ${crossing[1] + 1}`,
      `The mesh runs through itself: triangles ${crossing[0] + 1} and ${crossing[1] + 1} cross. Join its bodies into one where it was drawn.`,
    );
  const wrong = misturned(mesh);
  if (!wrong) return success(mesh);
  const at = `triangle ${wrong.triangle + 1}`;
  return wrong.before < 0 || wrong.behind < 1
    ? failure(
        'inside-out',
        at,
        `A body of the mesh looks inward: ${at} has its outside where its inside should be. Turn that body's faces round where it was drawn.`,
      )
    : failure(
        'counted-twice',
        at,
        `The mesh has some of its space twice: ${at} lies in another of its bodies, or upon one. Join its bodies into one where it was drawn, and leave out what stands twice.`,
      );
}

function refusal(code: string, detail: string): { ok: false; error: { code: StlCode; at: string; detail: string } } {
  if (code === 'open-edge') return failure('open', 'edges', `${detail} A tank's mesh must be closed everywhere.`);
  if (code === 'inside-out') return failure('inside-out', 'triangles', detail);
  return failure('flat', 'triangles', detail);
}

const HEADER_BYTES = 84;
const TRIANGLE_BYTES = 50;

/** The count in the header agrees with the length; text never does. */
const isBinary = (bytes: Uint8Array): boolean =>
  bytes.length >= HEADER_BYTES &&
  HEADER_BYTES + TRIANGLE_BYTES * new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true) === bytes.length;

function binaryCorners(bytes: Uint8Array): Outcome<number[], StlCode> {
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const count = view.getUint32(80, true);
  return success(
    Array.from({ length: count * 9 }, (_, i) =>
      view.getFloat32(HEADER_BYTES + Math.floor(i / 9) * TRIANGLE_BYTES + 12 + 4 * (i % 9), true),
    ),
  );
}

function textCorners(bytes: Uint8Array): Outcome<number[], StlCode> {
  const text = new TextDecoder().decode(bytes);
  const corners = [...text.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/gi)].flatMap(([, x, y, z]) => [
    Number(x),
    Number(y),
    Number(z),
  ]);
  if (!/^\s*solid\b[^]*\bendsolid\b/i.test(text) || corners.length === 0 || corners.length % 9 !== 0)
    return failure(
      'not-stl',
      'file',
      'This is not an STL file, or it ends too early: neither the binary nor the text layout fits.',
    );
  return success(corners);
}

/** Corners that fall together become one vertex; triangles that thereby lose a side are dropped. */
function welded(corners: readonly number[]): { positions: Float64Array; triangles: Uint32Array } {
  const size = corners.reduce((largest, value) => Math.max(largest, Math.abs(value)), 0);
  const step = WELD_REL * size || 1;
  const numbers = new Map<string, number>();
  const positions: number[] = [];
  const number = (x: number, y: number, z: number): number => {
    const cells = [x, y, z].map((value) => Math.round(value / step));
    // A corner near a cell's border may have been filed next door.
    for (let near = 0; near < 27; near++) {
      const known = numbers.get(
        `${cells[0]! + (near % 3) - 1} ${cells[1]! + (Math.floor(near / 3) % 3) - 1} ${cells[2]! + Math.floor(near / 9) - 1}`,
      );
      if (
        known !== undefined &&
        Math.hypot(positions[3 * known]! - x, positions[3 * known + 1]! - y, positions[3 * known + 2]! - z) <= step
      )
        return known;
    }
    numbers.set(cells.join(' '), positions.length / 3);
    positions.push(x, y, z);
    return positions.length / 3 - 1;
  };
  const triangles: number[] = [];
  for (let i = 0; i < corners.length; i += 9) {
    const [a, b, c] = [0, 3, 6].map((k) => number(corners[i + k]!, corners[i + k + 1]!, corners[i + k + 2]!)) as [
      number,
      number,
      number,
    ];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
