import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { PSI_PA } from '../units';
import { airState, ambientPressure_Pa, fluidState, vapourAt, volumeCorrection } from '.';

const celsius = (t: number): number => t + 273.15;
const rankine = (f: number): number => (f + 459.67) / 1.8;

describe('water, against published values', () => {
  // IAPWS R12-08 check values and CRC Handbook of Chemistry and Physics (from memory).
  it.each([
    [20, 998.207, 1.0016e-3, 2339.3],
    [25, 997.047, 0.89e-3, 3169.9],
    [50, 988.04, 0.5465e-3, 12352],
    [100, 958.37, 0.2816e-3, 101418],
  ])('at %d °C', (t, density, viscosity, vapour) => {
    const state = unwrap(fluidState({ key: 'water' }, celsius(t)));
    expect(Math.abs(state.density_kgPerM3 / density - 1)).toBeLessThan(3e-5);
    expect(Math.abs(state.viscosity_PaS / viscosity - 1)).toBeLessThan(1e-3);
    expect(Math.abs(state.vapourPressureAbs_Pa / vapour - 1)).toBeLessThan(2e-4);
  });
});

describe('petroleum', () => {
  it('volume correction is 1 at 15 °C and its slope is alpha', () => {
    expect(volumeCorrection(835, 186.9696, 0.4862, celsius(15))).toBe(1);
    const alpha = 186.9696 / 835 ** 2 + 0.4862 / 835;
    const step = 1e-3;
    expect((1 - volumeCorrection(835, 186.9696, 0.4862, celsius(15) + step)) / step).toBeCloseTo(alpha, 7);
  });

  it('expansion of petrol is near 0.0012 and of diesel near 0.00085 a kelvin', () => {
    // Common practice: the figures used when head space is reckoned by hand.
    expect(unwrap(fluidState({ key: 'petrol' }, celsius(15))).expansion_perK).toBeCloseTo(0.00121, 4);
    expect(unwrap(fluidState({ key: 'diesel' }, celsius(15))).expansion_perK).toBeCloseTo(0.00085, 4);
  });

  it('vapour pressure of RVP 10 petrol follows EPA AP-42 table 7.1-2, constants A and B (from memory)', () => {
    // The same table's older column of rounded values (3.4, 4.2, … 10.5 psi) was read off
    // a chart and lies up to 2.3 % lower; equation and constants agree with one another.
    const law = {
      law: 'petrol-rvp',
      reidVapourPressure_Pa: 10 * PSI_PA,
      slope_K: 3,
      source: '',
      status: 'from memory',
    } as const;
    for (const f of [40, 50, 60, 70, 80, 90, 100]) {
      const psi = Math.exp(11.724 - 5237.3 / (f + 459.67));
      expect(Math.abs(vapourAt(law, rankine(f)) / PSI_PA / psi - 1)).toBeLessThan(0.003);
    }
  });

  it('vapour pressure of no. 2 distillate follows EPA AP-42 table 7.1-2 (from memory)', () => {
    const rows = [
      [40, 0.0031],
      [60, 0.0065],
      [80, 0.012],
      [100, 0.022],
    ] as const;
    for (const [f, psi] of rows) {
      const state = unwrap(fluidState({ key: 'diesel' }, rankine(f)));
      expect(Math.abs(state.vapourPressureAbs_Pa / PSI_PA / psi - 1)).toBeLessThan(0.06);
    }
  });

  it('diesel passes through its anchors and thickens in the cold', () => {
    const at = (t: number) => unwrap(fluidState({ key: 'diesel' }, celsius(t))).kinematicViscosity_m2PerS * 1e6;
    expect(at(20)).toBeCloseTo(4.3, 6);
    expect(at(40)).toBeCloseTo(2.7, 6);
    expect(at(-10)).toBeGreaterThan(9);
    expect(at(-10)).toBeLessThan(16);
  });

  it('says when a law is stretched, and refuses beyond reason', () => {
    expect(unwrap(fluidState({ key: 'diesel' }, celsius(-40))).extrapolated).toBe(true);
    expect(unwrap(fluidState({ key: 'diesel' }, celsius(10))).extrapolated).toBe(false);
    expect(fluidState({ key: 'diesel' }, 100)).toMatchObject({ ok: false, error: { code: 'temperature-range' } });
    expect(fluidState({ key: 'diesel' }, Number.NaN)).toMatchObject({ ok: false });
  });
});

describe('air', () => {
  it('ambient pressure follows ISO 2533 (from memory)', () => {
    for (const [h, p] of [
      [0, 101325],
      [1000, 89874.6],
      [2000, 79495.2],
      [3000, 70108.5],
      [5000, 54019.9],
    ] as const) {
      expect(Math.abs(unwrap(ambientPressure_Pa(h)) / p - 1)).toBeLessThan(2e-5);
    }
    expect(ambientPressure_Pa(20000)).toMatchObject({ ok: false, error: { code: 'altitude-range' } });
  });

  it('sea-level air is 1.225 kg/m³ and 17.9 µPa s', () => {
    const air = airState(288.15, 101325);
    expect(air.density_kgPerM3).toBeCloseTo(1.225, 3);
    expect(air.viscosity_PaS * 1e6).toBeCloseTo(17.89, 2);
  });
});

describe('oil and coolant', () => {
  it('oil is of SAE grade 40: 12.5 to 16.3 mm²/s at 100 °C (SAE J300; from memory), and thins as it warms', () => {
    const at = (temperature_K: number) =>
      unwrap(fluidState({ key: 'engine-oil' }, temperature_K)).kinematicViscosity_m2PerS * 1e6;
    expect(at(373.15)).toBeGreaterThan(12.5);
    expect(at(373.15)).toBeLessThan(16.3);
    expect(at(293.15)).toBeGreaterThan(at(313.15));
  });

  it('coolant grows by four to six per cent from 10 to 100 °C (handbook tables of half glycol; from memory)', () => {
    const at = (temperature_K: number) => unwrap(fluidState({ key: 'coolant' }, temperature_K)).density_kgPerM3;
    const growth = at(283.15) / at(373.15) - 1;
    expect(growth).toBeGreaterThan(0.04);
    expect(growth).toBeLessThan(0.06);
  });
});

describe('other fluids', () => {
  it('methanol boils at 64.6 °C and has 12.9 kPa at 20 °C, CRC Handbook (from memory)', () => {
    expect(unwrap(fluidState({ key: 'methanol' }, celsius(64.6))).vapourPressureAbs_Pa / 101325).toBeCloseTo(1, 2);
    expect(unwrap(fluidState({ key: 'methanol' }, celsius(20))).vapourPressureAbs_Pa / 12.9e3).toBeCloseTo(1, 1);
    expect(unwrap(fluidState({ key: 'methanol' }, celsius(25))).viscosity_PaS * 1e3).toBeCloseTo(0.544, 1);
  });

  it('fuels stand in the order of trade: petrol thinnest and first to boil, biodiesel thickest of the fuels', () => {
    const at20 = (key: FluidKey) => unwrap(fluidState({ key }, celsius(20)));
    const thickness = (['petrol', 'e10', 'e85', 'kerosene', 'diesel', 'b20', 'b100', 'engine-oil'] as const).map(
      (key) => at20(key).kinematicViscosity_m2PerS,
    );
    expect([...thickness].sort((a, b) => a - b)).toEqual(thickness);
    expect(at20('e10').vapourPressureAbs_Pa).toBeGreaterThan(at20('petrol').vapourPressureAbs_Pa);
    expect(at20('e85').vapourPressureAbs_Pa).toBeLessThan(at20('petrol').vapourPressureAbs_Pa);
  });

  it.each(Object.keys(FLUIDS) as FluidKey[])('%s: thinner and lighter when warmer, all over its range', (key) => {
    const { validFrom_K, validTo_K } = FLUIDS[key];
    let before = unwrap(fluidState({ key }, validFrom_K + (key === 'water' ? 5 : 0)));
    for (let t = validFrom_K + 10; t <= validTo_K; t += 10) {
      const state = unwrap(fluidState({ key }, t));
      expect(state.extrapolated).toBe(false);
      expect(state.kinematicViscosity_m2PerS).toBeLessThan(before.kinematicViscosity_m2PerS);
      expect(state.density_kgPerM3).toBeLessThan(before.density_kgPerM3);
      expect(state.vapourPressureAbs_Pa).toBeGreaterThan(before.vapourPressureAbs_Pa);
      before = state;
    }
  });
});
