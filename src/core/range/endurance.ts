import { failure, success, type Outcome } from '../outcome';

export type Trip = {
  readonly usable_m3: number;
  /** Share of the usable that stays in the tank. */
  readonly reserve_ratio: number;
  readonly burn_m3PerS: number;
  readonly speed_mPerS?: number;
};

export type Endurance = { readonly endurance_s: number; readonly reserve_m3: number; readonly range_m?: number };

/** Burn at a duty between idle and full load [m³/s]: straight between the two. */
export const burnAtDuty_m3PerS = (idle_m3PerS: number, full_m3PerS: number, duty_ratio: number): number =>
  idle_m3PerS + (full_m3PerS - idle_m3PerS) * duty_ratio;

/**
 * How long and how far the usable fuel goes with a reserve kept.
 * @param trip usable >= 0, reserve 0 … 1, burn > 0
 */
export function endurance(trip: Trip): Outcome<Endurance, 'no-burn'> {
  if (!(trip.burn_m3PerS > 0))
    return failure('no-burn', 'consumer', 'Nothing burns fuel at this duty, so there is no end to it.');
  const reserve_m3 = trip.usable_m3 * trip.reserve_ratio;
  const endurance_s = (trip.usable_m3 - reserve_m3) / trip.burn_m3PerS;
  return success({
    endurance_s,
    reserve_m3,
    ...(trip.speed_mPerS === undefined ? {} : { range_m: endurance_s * trip.speed_mPerS }),
  });
}

/**
 * Fuel burned at a power [m³/s].
 * @param specific_kgPerJ brake-specific consumption; 1 g/kWh is 1e-3 / 3.6e6
 * @source definition of brake-specific fuel consumption
 */
export const burnFromPower_m3PerS = (power_W: number, specific_kgPerJ: number, density_kgPerM3: number): number =>
  (power_W * specific_kgPerJ) / density_kgPerM3;
