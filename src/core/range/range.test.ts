import { expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { burnAtDuty_m3PerS, burnFromPower_m3PerS, endurance } from '.';

it('usable less reserve over burn, times speed', () => {
  const trip = unwrap(endurance({ usable_m3: 0.1, reserve_ratio: 0.2, burn_m3PerS: 8e-3 / 3600, speed_mPerS: 5 }));
  expect(trip.endurance_s).toBeCloseTo(10 * 3600, 6);
  expect(trip.range_m).toBeCloseTo(180e3, 3);
  expect(trip.reserve_m3).toBeCloseTo(0.02, 12);
});

it('without a speed there is no distance, and without burn no end', () => {
  expect(unwrap(endurance({ usable_m3: 0.1, reserve_ratio: 0, burn_m3PerS: 1e-6 })).range_m).toBeUndefined();
  expect(endurance({ usable_m3: 0.1, reserve_ratio: 0, burn_m3PerS: 0 })).toMatchObject({
    ok: false,
    error: { code: 'no-burn' },
  });
});

it('burn runs straight from idle to full', () => {
  expect(burnAtDuty_m3PerS(1, 5, 0)).toBe(1);
  expect(burnAtDuty_m3PerS(1, 5, 0.5)).toBe(3);
  expect(burnAtDuty_m3PerS(1, 5, 1)).toBe(5);
});

it('40 kW at 240 g/kWh of 0.835 kg/L burns 11.5 L/h', () => {
  expect(burnFromPower_m3PerS(40e3, 240e-3 / 3.6e6, 835) * 3.6e6).toBeCloseTo(11.497, 3);
});
