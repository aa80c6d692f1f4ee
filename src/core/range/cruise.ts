import { endurance } from './endurance';

/** What is burned at a speed or a load, as it was timed. */
export type Cruise = { readonly name: string; readonly burn_m3PerS: number; readonly speed_mPerS?: number };

/** What the usable fuel less its reserve does at it. */
export type CruiseRow = Cruise & {
  readonly endurance_s: number;
  readonly range_m?: number;
  /** Of all that have a speed the one that goes furthest. */ readonly isFurthest: boolean;
};

/**
 * How long and how far the fuel goes at each speed or load.
 * @param usable_m3     >= 0
 * @param reserve_ratio 0 … 1
 * @returns rows in the order given; one that burns nothing is left out
 */
export function cruiseTable(rows: readonly Cruise[], usable_m3: number, reserve_ratio: number): CruiseRow[] {
  const reckoned = rows.flatMap((row) => {
    const trip = endurance({ ...row, usable_m3, reserve_ratio });
    return trip.ok ? [{ ...row, endurance_s: trip.value.endurance_s, ...rangeOf(trip.value.range_m) }] : [];
  });
  const furthest = Math.max(...reckoned.map(({ range_m }) => range_m ?? -Infinity));
  return reckoned.map((row) => ({ ...row, isFurthest: row.range_m !== undefined && row.range_m === furthest }));
}

const rangeOf = (range_m: number | undefined) => (range_m === undefined ? {} : { range_m });
