import type { SystemDocument } from '@/core/plan';

const renamed = (item: object, names: Readonly<Record<string, string>>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(item).map(([key, value]) => [names[key] ?? key, value as unknown]));

/** As much of a system as version 6 could say: not how its mounts are made, nor what it stands on. */
export const sayableIn6 = ({ stance: _stance, ...system }: SystemDocument): SystemDocument => ({
  ...system,
  mounts: system.mounts.map(({ made: _made, ...mount }) => mount as SystemDocument['mounts'][number]),
});

/** A system as version 6 of the format had it: pours in their calibrations, and the names of before. */
export function asVersion6({ records, stance: _stance, ...plan }: SystemDocument): Record<string, unknown> {
  return {
    ...plan,
    version: 6,
    tanks: plan.tanks.map((tank) => ({
      ...tank,
      parts: tank.parts.map((part) => renamed(part, { operation: 'does' })),
      calibrations: tank.calibrations.map((calibration) => ({
        ...calibration,
        pours: records
          .filter(({ of }) => of === calibration.id)
          .map(({ kind: _kind, of: _of, recorded: _recorded, ...line }) => line),
      })),
    })),
    components: plan.components.map((part) => (part.kind === 'filter' ? renamed(part, { type: 'does' }) : part)),
    mounts: sayableIn6({ records, ...plan }).mounts,
    limits: renamed(plan.limits, { surgeCompartment_m3: 'surgeBay_m3' }),
    fit: renamed(plan.fit, { obstacles: 'things', removals: 'ways' }),
  };
}
