import type { Verb } from './verb';

export const tank: Verb = {
  name: 'tank',
  summary: 'volumes, surface, centroid, unusable and usable at the conditions',
  prints: 'tanks[]: gross_m3, holds_m3, fill, pickups[] (unusable now, level and at the worst attitude), strapping[], masses',
  run: (system, { tanks, gravity, usable }) => ({
    system: system.name,
    up_vehicle: gravity.up,
    gravity_mPerS2: gravity.magnitude_mPerS2,
    usable_m3: usable.ok ? usable.value : null,
    tanks: tanks.map((result) => ({
      id: result.id, name: result.name, gross_m3: result.gross_m3, holds_m3: result.holds_m3, fill: result.fill, pickups: result.pickups,
      insideArea_m2: result.insideArea_m2, dryMass_kg: result.dryMass_kg, liquidMass_kg: result.liquidMass_kg, centre_m: result.centre_m ?? null, floodedVents: result.floodedVents, misplaced: result.misplaced,
      strapping: result.strapping,
    })),
  }),
};
