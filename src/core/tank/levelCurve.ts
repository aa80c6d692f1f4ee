import { dot, meshVolume, offsetRange, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';
import { derived } from '../memo';

/** How high the surface stands at each volume, at one attitude, made ready to be asked often. */
export type LevelCurve = {
  /** Offset of the surface along `up` [m]: the floor's where it is empty, the top's where it is full. */
  readonly surface_m: (volume_m3: number) => number;
  /** How wide the surface is at a volume [m²], so that a little more lifts it by as much over this. */
  readonly area_m2: (volume_m3: number) => number;
  readonly lowest_m: number;
  readonly highest_m: number;
  readonly gross_m3: number;
};

/** Heights nearer to each other are one [of the tank's own height]. */
const SAME = 1e-6;
/** Of a round tank, whose corners are many: pieces of its curve. */
const MOST_PIECES = 64;
const NEWTONS = 60;

/**
 * Between two heights at which a flat-faced body has corners its volume is a polynomial of the third degree of height,
 * so that four volumes give it exactly; of a body with very many corners some of them are taken, and what lies
 * between is off by the fourth power of their distance.
 *
 * @param up unit vector against effective gravity, tank frame
 */
export function levelCurve(mesh: ClosedMesh, up: Vec3): LevelCurve {
  const [lowest_m, highest_m] = offsetRange(mesh, up);
  const heights = cornersOf(mesh, up, lowest_m, highest_m);
  const below = (offset_m: number): number => volumeBelow(mesh, { normal: up, offset_m });
  const gross_m3 = meshVolume(mesh);
  // Worked out where they are asked for: a surface mostly stays near where it was.
  const volumes = new Float64Array(heights.length).fill(NaN);
  volumes[0] = 0;
  volumes[heights.length - 1] = gross_m3;
  const volumeTo = (n: number): number => (Number.isNaN(volumes[n]!) ? (volumes[n] = below(heights[n]!)) : volumes[n]!);
  const pieces: (Piece | undefined)[] = heights.slice(1).map(() => undefined);
  const piece = (n: number): Piece =>
    (pieces[n] ??= pieceOf(below, [heights[n]!, volumeTo(n)], [heights[n + 1]!, volumeTo(n + 1)]));
  /** The piece before whose end something is not yet so. */
  const first = (isPast: (n: number) => boolean): Piece => {
    let [low, high] = [0, pieces.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (isPast(middle + 1)) low = middle + 1;
      else high = middle;
    }
    return piece(low);
  };
  const pieceFor = (volume_m3: number): Piece => first((n) => volumeTo(n) < volume_m3);
  return {
    lowest_m,
    highest_m,
    gross_m3,
    surface_m: (volume_m3) => {
      if (!(volume_m3 > 0)) return lowest_m;
      if (volume_m3 >= gross_m3) return highest_m;
      const at = pieceFor(volume_m3);
      return at.from_m + (at.to_m - at.from_m) * shareFor(at, volume_m3);
    },
    area_m2: (volume_m3) => {
      const at = pieceFor(volume_m3);
      const x = shareFor(at, Math.min(Math.max(volume_m3, 0), gross_m3));
      return ((3 * at.a * x + 2 * at.b) * x + at.c) / (at.to_m - at.from_m);
    },
  };
}

const CURVES_KEPT = 64;
/** Of a mesh, by its attitude: a run asks for the same again and again. */
const curvesOf = derived((_: ClosedMesh) => new Map<string, LevelCurve>());

/** The same, remembered with the mesh. */
export function keptLevelCurve(mesh: ClosedMesh, up: Vec3): LevelCurve {
  const curves = curvesOf(mesh);
  const key = up.join(' ');
  const known = curves.get(key) ?? levelCurve(mesh, up);
  curves.delete(key);
  curves.set(key, known);
  if (curves.size > CURVES_KEPT) curves.delete(curves.keys().next().value!);
  return known;
}

/** Volume from one height to the next: a cubic of the share of the way, from 0 to 1. */
type Piece = {
  readonly from_m: number;
  readonly to_m: number;
  readonly from_m3: number;
  readonly to_m3: number;
  readonly a: number;
  readonly b: number;
  readonly c: number;
};

type Known = readonly [height_m: number, volume_m3: number];

function pieceOf(below: (offset_m: number) => number, [from_m, from_m3]: Known, [to_m, to_m3]: Known): Piece {
  const at = (share: number): number => below(from_m + (to_m - from_m) * share) - from_m3;
  const [y1, y2, y3] = [at(1 / 3), at(2 / 3), to_m3 - from_m3];
  // Through four points evenly apart, by Newton's differences.
  const a = (27 * y1 - 27 * y2 + 9 * y3) / 2;
  const b = (-45 * y1 + 36 * y2 - 9 * y3) / 2;
  const c = (18 * y1 - 9 * y2 + 2 * y3) / 2;
  return { from_m, to_m, from_m3, to_m3, a, b, c };
}

const volumeAt = ({ from_m3, a, b, c }: Piece, x: number): number => from_m3 + ((a * x + b) * x + c) * x;

/** The share of the way at which a volume is reached: Newton's steps, half way where they lead out of what holds it. */
function shareFor(piece: Piece, volume_m3: number): number {
  let [low, high] = [0, 1];
  let x = (volume_m3 - piece.from_m3) / (piece.to_m3 - piece.from_m3);
  for (let n = 0; n < NEWTONS; n++) {
    const over = volumeAt(piece, x) - volume_m3;
    if (over > 0) high = x;
    else low = x;
    const slope = (3 * piece.a * x + 2 * piece.b) * x + piece.c;
    let next = x - over / slope;
    if (!(next >= low && next <= high)) next = (low + high) / 2;
    if (Math.abs(next - x) <= 1e-15) return next;
    x = next;
  }
  return x;
}

/** Heights of corners, lowest and highest first and last, some of them where they are very many. */
function cornersOf(mesh: ClosedMesh, up: Vec3, lowest_m: number, highest_m: number): number[] {
  const { positions } = mesh;
  const all = Float64Array.from({ length: positions.length / 3 }, (_, corner) =>
    dot([positions[3 * corner]!, positions[3 * corner + 1]!, positions[3 * corner + 2]!], up),
  ).sort();
  const apart = (highest_m - lowest_m) * SAME;
  const own: number[] = [lowest_m];
  for (const height of all) if (height - own.at(-1)! > apart && highest_m - height > apart) own.push(height);
  if (own.length <= MOST_PIECES) return [...own, highest_m];
  const even = Array.from(
    { length: MOST_PIECES },
    (_, i) => own[Math.round((i * (own.length - 1)) / (MOST_PIECES - 1))]!,
  );
  return [...even, highest_m];
}
