import { carriedOf, MOVED_M, standsOf, tipsOf, type Lifted, type Stands } from '@/core/answers';
import type { Outcome } from '@/core/outcome';
import type { SystemDocument } from '@/core/plan';
import { numberFrom, UsageError } from './args';
import { failed, type Verb } from './verb';

const [FORKS_MM, HOOK_MM] = [400, 1000];
const MM_PER_M = 1000;

export const mass: Verb = {
  name: 'mass',
  summary:
    'what each tank weighs, where its centre lies as it fills, when it tips over, and what it does to axles or trim',
  prints:
    'tanks[]: dryMass_kg, liquidMass_kg (now), fullMass_kg (at the fill limit), centre_m (now), balance[] (volume_m3, mass_kg, centre_m), tips: base_m (what it stands on), rows[]: way, angles_rad (empty, half, full); carried: forks[], feet[] and pockets[] (of a skid; null where it has none) as those rows, hangs by filling (tilt_rad, pull_N of one of two legs, lean_rad); stands: what the vehicle stands on (null where not said): cases[]: fill, tanks, aboard_kg, wheels (axles[] by id, hitch_kg, total_kg, centre_m, lifts), tips by way [rad], afloat (sinks_m, bowDown_rad, portDown_rad, gm_m), ballast that would lay her level (along_kg at at_x_m, across_kg at at_y_m); moved[] (tanks, way, by_m, and what that adds, all full)',
  options: {
    'forks-mm': `over both forks of a lifter, outside to outside [mm]; ${FORKS_MM} where it is left out`,
    'forks-run': 'along (the default) or across the tank',
    'hook-mm': `from a tank’s top up to the hook of four slings [mm]; ${HOOK_MM} where it is left out`,
  },
  needs: 'tanks',
  run: (system, { tanks }, options) => ({
    system: system.name,
    stands: standing(system),
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
        carried: carried(system, t, liftedBy(options)),
      };
    }),
  }),
};

function liftedBy(options: Readonly<Record<string, string | undefined>>): Lifted {
  const mm = (name: string, usual: number): number =>
    (options[name] === undefined ? usual : numberFrom(`--${name}`, options[name])) / MM_PER_M;
  const runs = options['forks-run'] ?? 'along';
  if (runs !== 'along' && runs !== 'across')
    throw new UsageError(`--forks-run wants along or across; it is "${runs}".`);
  return { forks_m: mm('forks-mm', FORKS_MM), runs, hook_m: mm('hook-mm', HOOK_MM) };
}

function carried(system: SystemDocument, t: number, how: Lifted) {
  const found = carriedOf(system, t, how);
  if (!found.ok) return failed(found.error);
  const { forks, feet, pockets, hangs } = found.value;
  return {
    forks: plainly(forks),
    feet: plainly(feet),
    pockets: plainly(pockets),
    hangs: Object.fromEntries(Object.entries(hangs).map(([fill, one]) => [fill, plainly(one)])),
  };
}

const plainly = <T>(outcome: Outcome<T> | undefined) =>
  outcome === undefined ? null : outcome.ok ? outcome.value : failed(outcome.error);

function standing(system: SystemDocument) {
  const stands = standsOf(system);
  if (!stands.ok) return stands.error.code === 'not-said' ? null : failed(stands.error);
  const { cases, moved, hull }: Stands = stands.value;
  return {
    hull: hull ?? null,
    moved: moved.map(({ tanks, ...more }) => ({
      tanks: tanks.map((t) => system.tanks[t]!.id),
      by_m: MOVED_M,
      ...more,
    })),
    cases: cases.map(({ fill, tanks, aboard_kg, wheels, tips, afloat, ballast }) => ({
      fill,
      tanks: tanks.map((t) => system.tanks[t]!.id),
      aboard_kg,
      wheels: wheels?.ok
        ? {
            ...wheels.value,
            hitch_kg: wheels.value.hitch_kg ?? null,
            axles: wheels.value.axles.map((axle, a) => ({ id: system.stance!.axles![a]!.id, ...axle })),
          }
        : plainly(wheels),
      tips: plainly(tips),
      afloat: plainly(afloat),
      ballast: ballast ?? null,
    })),
  };
}
