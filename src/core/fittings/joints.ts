import { ADAPTERS, JOINS, joinHexagon_m, type AdapterRow, type Form, type Join } from '../reference/joins';

/** An adapter with the way it is put in: its end `near` meets what comes before it. */
export type PlacedAdapter = { readonly row: AdapterRow; readonly near: Join; readonly far: Join };

/** A chain of adapters between two ends, none where they mate as they are. */
export type AdapterChain = {
  readonly adapters: readonly PlacedAdapter[];
  /** Narrowest bore in it [m]; endless where it is empty. */ readonly bore_m: number;
};

/**
 * Whether two ends go together: one system, one size, one going into the
 * other. Flanges meet face to face. A taper pipe thread goes into the parallel
 * port of its own standard (R into G), never into another's.
 */
export function mates(a: Join, b: Join): boolean {
  if (a.size !== b.size) return false;
  if (a.system === 'flange' && b.system === 'flange') return true;
  if (a.side === b.side) return false;
  const [into, port] = a.side === 'male' ? [a, b] : [b, a];
  return a.system === b.system || (into.system === 'bsp-taper' && port.system === 'bsp-parallel');
}

/** Why two ends do not go together, in words; undefined where they do. */
export function mismatch(a: Join, b: Join): string | undefined {
  if (mates(a, b)) return undefined;
  const [one, other] = [JOINS[a.system].name, JOINS[b.system].name];
  if (a.system !== b.system) {
    const looksAlike = [a, b].every(
      ({ system }) => system === 'npt' || system === 'bsp-taper' || system === 'bsp-parallel',
    );
    return looksAlike
      ? `${one} and ${other} start and then bind: flank and pitch differ, and they leak.`
      : `${one} and ${other} are different systems.`;
  }
  if (a.size !== b.size) return `${one} ${a.size} against ${b.size}: sizes differ.`;
  return a.side === 'male' ? 'Both ends are made to go in.' : 'Both ends are made to take the other.';
}

/** Longest chain that is looked for: more joints than this are more leaks than sense. */
export const MOST_ADAPTERS = 3;
const MOST_CHAINS = 8;
const FORM_RANK: Readonly<Record<Form, number>> = { straight: 0, 45: 1, 90: 2 };

const key = ({ system, size, side }: Join): string => `${system} ${size} ${side}`;
const turned = (row: AdapterRow): PlacedAdapter[] => [
  { row, near: row.a, far: row.b },
  ...(key(row.a) === key(row.b) ? [] : [{ row, near: row.b, far: row.a }]),
];
const PLACED: readonly PlacedAdapter[] = ADAPTERS.flatMap(turned);

/**
 * The shortest chains of adapters that join two ends, best first: fewest
 * joints, then straight ones, then the widest bore.
 *
 * @param forms of adapters allowed; a turned one is offered beside straight ones of the same length
 * @returns one empty chain where the ends mate; none where nothing of up to three adapters joins them
 */
export function adapterChains(from: Join, to: Join, forms: readonly Form[] = ['straight', '45', '90']): AdapterChain[] {
  if (mates(from, to)) return [{ adapters: [], bore_m: Infinity }];
  const usable = PLACED.filter(({ row }) => forms.includes(row.form));
  let open: PlacedAdapter[][] = [[]];
  const seen = new Set([key(from)]);
  for (let length = 1; length <= MOST_ADAPTERS; length++) {
    const grown = open.flatMap((chain) => {
      const end = chain.at(-1)?.far ?? from;
      return usable
        .filter(({ near, far }) => mates(end, near) && !seen.has(key(far)))
        .map((placed) => [...chain, placed]);
    });
    const done = grown
      .filter((chain) => mates(chain.at(-1)!.far, to))
      .map(chainOf)
      .sort(byMerit);
    if (done.length > 0) return done.slice(0, MOST_CHAINS);
    // Only the best way to each further end goes on; a turned way to it would be no shorter.
    const best = new Map<string, PlacedAdapter[]>();
    for (const chain of grown) {
      const at = key(chain.at(-1)!.far);
      const other = best.get(at);
      if (!other || byMerit(chainOf(chain), chainOf(other)) < 0) best.set(at, chain);
    }
    open = [...best.values()];
    for (const at of best.keys()) seen.add(at);
  }
  return [];
}

const chainOf = (adapters: readonly PlacedAdapter[]): AdapterChain => ({
  adapters,
  bore_m: Math.min(...adapters.map(({ row }) => row.bore_m)),
});
const bends = ({ adapters }: AdapterChain): number => adapters.reduce((sum, { row }) => sum + FORM_RANK[row.form], 0);
const byMerit = (a: AdapterChain, b: AdapterChain): number =>
  a.adapters.length - b.adapters.length || bends(a) - bends(b) || b.bore_m - a.bore_m;

/** How a chain kept by the keys of its adapters lies between two ends; undefined where it does not join them. */
export function placeChain(from: Join, to: Join, rows: readonly AdapterRow[]): readonly PlacedAdapter[] | undefined {
  const walk = (end: Join, left: readonly AdapterRow[]): readonly PlacedAdapter[] | undefined => {
    const [row, ...rest] = left;
    if (!row) return mates(end, to) ? [] : undefined;
    for (const placed of turned(row)) {
      if (!mates(end, placed.near)) continue;
      const onward = walk(placed.far, rest);
      if (onward) return [placed, ...onward];
    }
    return undefined;
  };
  return walk(from, rows);
}

/** What makes the joint of two mating ends tight. */
export function sealOf(a: Join, b: Join): string {
  const taper = [a, b].find(({ system, side }) => side === 'male' && (system === 'npt' || system === 'bsp-taper'));
  return JOINS[(taper ?? a).system].seal;
}

/** Spanners that a joint takes [m], smallest first, each size once. */
export function spannersOf(ends: readonly Join[], adapters: readonly AdapterRow[]): number[] {
  const sizes = [
    ...ends.flatMap((end) => joinHexagon_m(end) ?? []),
    ...adapters.flatMap(({ acrossFlats_m }) => acrossFlats_m ?? []),
  ];
  return [...new Set(sizes)].sort((a, b) => a - b);
}
