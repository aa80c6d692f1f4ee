import type { ListedCut, ListedPart } from '../../formats';
import type { MountDocument } from '../../plan/schema';
import { BOLT_CLASS_ROWS, type BOLT_CLASSES, type BOLT_HELD, type BOLT_SIZES } from '../../reference/bolts';
import { MOUNT_STOCKS, PAD_ROWS, type MountStock, type Pad } from '../../reference/mountStock';

/** Flat stock that is cut into pieces of one width and thickness. */
export type StockRow = {
  readonly stock: MountStock;
  readonly width_m: number;
  readonly thickness_m: number;
  /** Longest first; undefined where a strap’s way is not found. */
  readonly pieces: readonly { readonly for: string; readonly length_m: number | undefined }[];
};
export type PadRow = {
  readonly of: Pad;
  readonly thickness_m: number;
  readonly width_m: number;
  readonly pieces: readonly { readonly for: string; readonly length_m: number | undefined }[];
};
export type BoltRow = {
  readonly size: (typeof BOLT_SIZES)[number];
  readonly class: (typeof BOLT_CLASSES)[number];
  readonly held: (typeof BOLT_HELD)[number];
  readonly count: number;
};
export type MountList = {
  readonly stock: readonly StockRow[];
  readonly pads: readonly PadRow[];
  readonly bolts: readonly BoltRow[];
};

/** Past each end’s bolts a foot goes on by as much as they stand from its edge. */
const FOOT_EDGES = 2;

type Piece = { readonly for: string; readonly width_m: number; readonly length_m: number | undefined };

/** What each kind is cut from: along its length, and how wide. */
function pieceOf({ name, made }: MountDocument, strap_m: number | undefined): Piece | undefined {
  if (!made) return undefined;
  const edge_m = 'bolts' in made && made.bolts ? made.bolts.edge_m.value : 0;
  if ('runs' in made)
    return {
      for: name,
      width_m: made.width_m.value,
      length_m: strap_m === undefined ? undefined : strap_m + 2 * FOOT_EDGES * edge_m,
    };
  if ('leg_m' in made)
    return { for: name, width_m: made.width_m.value, length_m: made.leg_m.value + made.arm_m.value + edge_m };
  if ('lip_m' in made) {
    const [long, wide] = [made.length_m.value, made.width_m.value].sort((a, b) => b - a) as [number, number];
    return { for: name, width_m: wide + 2 * made.lip_m.value, length_m: long + 2 * made.lip_m.value };
  }
  if ('off_m' in made) {
    const [long, wide] = [made.length_m.value, made.width_m.value].sort((a, b) => b - a) as [number, number];
    return { for: name, width_m: wide, length_m: long };
  }
  if ('circle_m' in made) {
    const across = made.circle_m.value + FOOT_EDGES * edge_m;
    return { for: name, width_m: across, length_m: across };
  }
  return { for: name, width_m: made.width_m.value, length_m: made.arm_m.value + FOOT_EDGES * edge_m };
}

/** What lies between each and the tank: along all that touches it. */
function padOf({ name, made }: MountDocument, strap_m: number | undefined): Piece | undefined {
  if (!made || !('pad' in made) || made.pad.of === 'none') return undefined;
  if ('runs' in made) return { for: name, width_m: made.width_m.value, length_m: strap_m };
  if ('lip_m' in made) {
    const [long, wide] = [made.length_m.value, made.width_m.value].sort((a, b) => b - a) as [number, number];
    return { for: name, width_m: wide, length_m: long };
  }
  return { for: name, width_m: made.width_m.value, length_m: made.arm_m.value };
}

const byLength = <T extends { readonly length_m: number | undefined }>(pieces: readonly T[]): T[] =>
  [...pieces].sort((a, b) => (b.length_m ?? Infinity) - (a.length_m ?? Infinity));

/**
 * What is bought and cut to hold tanks down: flat stock, pads and bolts, each kind once.
 *
 * @param strapWays_m length of each strap’s way between where its ends are held, by its number among the mounts
 */
export function mountList(mounts: readonly MountDocument[], strapWays_m: Readonly<Record<number, number>>): MountList {
  const stock = new Map<string, StockRow>();
  const pads = new Map<string, PadRow>();
  const bolts = new Map<string, BoltRow>();
  for (const [m, mount] of mounts.entries()) {
    const { made } = mount;
    if (!made) continue;
    const piece = pieceOf(mount, strapWays_m[m]);
    if (piece) {
      const row = { stock: made.stock, width_m: piece.width_m, thickness_m: made.thickness_m.value };
      const key = JSON.stringify(row);
      stock.set(key, { ...row, pieces: byLength([...(stock.get(key)?.pieces ?? []), piece]) });
    }
    const pad = padOf(mount, strapWays_m[m]);
    if (pad && 'pad' in made) {
      const row = { of: made.pad.of, thickness_m: made.pad.thickness_m.value, width_m: pad.width_m };
      const key = JSON.stringify(row);
      pads.set(key, { ...row, pieces: byLength([...(pads.get(key)?.pieces ?? []), pad]) });
    }
    if ('bolts' in made && made.bolts) {
      const { size, class: grade, held, count } = made.bolts;
      const key = `${size} ${grade} ${held}`;
      // A strap has them at each end.
      const all = (bolts.get(key)?.count ?? 0) + count * (mount.kind === 'strap' ? 2 : 1);
      bolts.set(key, { size, class: grade, held, count: all });
    }
  }
  return { stock: [...stock.values()], pads: [...pads.values()], bolts: [...bolts.values()] };
}

/** The same as rows beside those of the lines: what is bought by the piece, and what is cut, longest first. */
export function mountRows(
  mounts: readonly MountDocument[],
  strapWays_m: Readonly<Record<number, number>>,
): { readonly parts: readonly ListedPart[]; readonly cuts: readonly ListedCut[] } {
  const { stock, pads, bolts } = mountList(mounts, strapWays_m);
  const size = (width_m: number, thickness_m: number): string =>
    `${Math.round(1e3 * width_m)} × ${Number((1e3 * thickness_m).toFixed(1))} mm`;
  const rows = [
    ...stock.map((row) => ({ ...row, name: MOUNT_STOCKS[row.stock].name })),
    ...pads.map((row) => ({ ...row, name: PAD_ROWS[row.of].name })),
  ];
  const cut = rows.flatMap(({ name, width_m, thickness_m, pieces }) =>
    pieces.map((piece) => ({ ...piece, stock: `${name}, ${size(width_m, thickness_m)}` })),
  );
  return {
    parts: [
      ...bolts.map(({ size: of, class: grade, held, count }) => ({
        what: 'bolt',
        name: `${of} bolt, ${BOLT_CLASS_ROWS[grade].name}${held === 'nut' ? ', with nut and washers' : ''}`,
        count,
        where: [],
      })),
      // Of what has no length yet it is said that it is wanted.
      ...cut
        .filter(({ length_m }) => length_m === undefined)
        .map((piece) => ({
          what: 'strap',
          name: `${piece.for}, length not known: ${piece.stock}`,
          count: 1,
          where: [],
        })),
    ],
    cuts: cut.flatMap((piece) =>
      piece.length_m === undefined ? [] : [{ name: piece.for, stock: piece.stock, cut_m: piece.length_m, ends: [] }],
    ),
  };
}
