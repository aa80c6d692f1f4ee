import { tipsOf } from '@/core/answers';
import { failed, type Verb } from './verb';

export const mass: Verb = {
  name: 'mass',
  summary: 'what each tank weighs, where its centre lies as it fills, and when it tips over, set down loose',
  prints:
    'tanks[]: dryMass_kg, liquidMass_kg (now), fullMass_kg (at the fill limit), centre_m (now), balance[] (volume_m3, mass_kg, centre_m), tips: base_m (what it stands on), rows[]: way, angles_rad (empty, half, full)',
  needs: 'tanks',
  run: (system, { tanks }) => ({
    system: system.name,
    tanks: tanks.map((tank, t) => {
      const tips = tipsOf(system, t);
      return {
        id: tank.id,
        name: tank.name,
        dryMass_kg: tank.dryMass_kg,
        liquidMass_kg: tank.liquidMass_kg,
        fullMass_kg: tank.fullMass_kg,
        centre_m: tank.centre_m ?? null,
        balance: tank.balance,
        tips: tips.ok ? tips.value : failed(tips.error),
      };
    }),
  }),
};
