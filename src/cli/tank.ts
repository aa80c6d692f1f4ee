import type { Verb } from './verb';

/** JSON has no infinity: what has no end is null. */
const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

const eachOf = <T, U>(record: Readonly<Record<string, T>>, change: (value: T) => U): Record<string, U> =>
  Object.fromEntries(Object.entries(record).map(([key, value]) => [key, change(value)]));

export const tank: Verb = {
  name: 'tank',
  summary: 'volumes, surface, centroid, unusable and usable at the conditions',
  prints:
    'tanks[]: gross_m3, holds_m3, fill, pickups[] (unusable now, level and at the worst attitude), compartments[], feeds[] (refill, holds while it brakes and corners), changes_m3 by part, strapping[], areas, masses',
  needs: 'tanks',
  run: (system, { tanks, state: { gravity }, usable }) => ({
    system: system.name,
    up_vehicle: gravity.up,
    gravity_mPerS2: gravity.magnitude_mPerS2,
    usable_m3: usable.ok ? usable.value : null,
    tanks: tanks.map((result) => ({
      id: result.id,
      name: result.name,
      gross_m3: result.gross_m3,
      holds_m3: result.holds_m3,
      fill: result.fill,
      pickups: result.pickups,
      changes_m3: result.changes,
      idle: result.idle,
      pieces: result.pieces,
      insideArea_m2: result.insideArea_m2,
      outsideArea_m2: result.outsideArea_m2,
      edges_m: result.edges_m,
      plateArea_m2: result.plateArea_m2,
      dryMass_kg: result.dryMass_kg,
      liquidMass_kg: result.liquidMass_kg,
      fullMass_kg: result.fullMass_kg,
      centre_m: result.centre_m ?? null,
      wetPorts: result.wetPorts,
      balance: result.balance,
      floodedVents: result.floodedVents,
      clickOff_m3: result.clickOff_m3 ?? null,
      misplaced: result.misplaced,
      compartments: result.inside.compartments.map((compartment) => ({
        ...compartment,
        kept_m3: eachOf(compartment.kept_m3, finite),
        slosh_Hz: compartment.slosh_Hz ?? null,
      })),
      feeds: result.inside.feeds.map((feed) => ({
        ...feed,
        compartment: feed.compartment + 1,
        refill: feed.refill ? { ...feed.refill, headForDraw_m: finite(feed.refill.headForDraw_m) } : null,
        holds: eachOf(feed.holds, ({ time_s, ...held }) => ({ ...held, time_s: finite(time_s) })),
      })),
      foam: result.foam.map(({ pieces, ...block }) => ({ ...block, pieces: pieces.ok ? pieces.value : null })),
      strapping: result.strapping,
    })),
  }),
};
