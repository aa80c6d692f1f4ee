import { sourced, type Sourced } from './provenance';

/**
 * Fluids as data: what the property laws in `fluids/` need. Trade fuels vary
 * from batch to batch; the spread beside each anchor is that variation.
 */
export type FluidKey =
  | 'petrol'
  | 'e10'
  | 'e85'
  | 'methanol'
  | 'two-stroke'
  | 'diesel'
  | 'b20'
  | 'b100'
  | 'heating-oil'
  | 'kerosene'
  | 'water'
  | 'coolant'
  | 'engine-oil'
  | 'urea';

export type DensityLaw =
  /** Generalized petroleum products: VCF = exp(-a dT (1 + 0.8 a dT)), a = K0/rho² + K1/rho. */
  | ({
      readonly law: 'petroleum';
      readonly density15_kgPerM3: number;
      readonly k0: number;
      readonly k1: number;
    } & Sourced)
  /** Density that falls evenly with temperature. */
  | ({ readonly law: 'linear'; readonly density15_kgPerM3: number; readonly fall_kgPerM3K: number } & Sourced)
  | ({ readonly law: 'water-kell' } & Sourced);

export type ViscosityLaw =
  /** ln(mu) linear in 1/T through two anchors. */
  | ({ readonly law: 'andrade'; readonly anchors: readonly [ViscosityAnchor, ViscosityAnchor] } & Sourced)
  /** log log(nu + 0.7) linear in log T through two anchors. */
  | ({ readonly law: 'walther'; readonly anchors: readonly [ViscosityAnchor, ViscosityAnchor] } & Sourced)
  | ({ readonly law: 'water-iapws' } & Sourced);

export type ViscosityAnchor = { readonly temperature_K: number; readonly kinematic_m2PerS: number };

export type VapourLaw =
  /** True vapour pressure of petrol from its Reid vapour pressure and the distillation slope. */
  | ({ readonly law: 'petrol-rvp'; readonly reidVapourPressure_Pa: number; readonly slope_K: number } & Sourced)
  /** ln(p / psi) = A - B / T(°R). */
  | ({ readonly law: 'rankine-ab'; readonly a: number; readonly b_R: number } & Sourced)
  /** log10(p / bar) = A - B / (T + C), T in K. */
  | ({ readonly law: 'antoine'; readonly a: number; readonly b_K: number; readonly c_K: number } & Sourced)
  | ({ readonly law: 'water-wagner' } & Sourced);

export type FluidRow = {
  readonly key: FluidKey;
  readonly name: string;
  readonly density: DensityLaw;
  readonly viscosity: ViscosityLaw;
  readonly vapour: VapourLaw;
  /** Outside this range the laws are extrapolated and a finding says so. */
  readonly validFrom_K: number;
  readonly validTo_K: number;
  /** Half-width of batch variation, as a share of the value. */
  readonly spread: { readonly density_rel: number; readonly viscosity_rel: number; readonly vapour_rel: number };
  readonly flashPoint_K?: number;
  /** Carries water or alcohol, or may: how it takes up charge changes with it. Common practice. */
  readonly mayTakeUpWater: boolean;
};

/** Two points in °C and mm²/s. */
const anchors = (
  ...[a, b]: [readonly [number, number], readonly [number, number]]
): readonly [ViscosityAnchor, ViscosityAnchor] => {
  const anchor = ([celsius, mm2PerS]: readonly [number, number]): ViscosityAnchor => ({
    temperature_K: celsius + 273.15,
    kinematic_m2PerS: mm2PerS * 1e-6,
  });
  return [anchor(a), anchor(b)];
};

const TABLE_54B = 'API MPMS 11.1 / ASTM D1250-80, Table 54B constants';

export const FLUIDS: Readonly<Record<FluidKey, FluidRow>> = {
  petrol: {
    key: 'petrol',
    mayTakeUpWater: true,
    name: 'petrol (gasoline)',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 745,
      k0: 346.4228,
      k1: 0.4388,
      ...sourced('from memory', TABLE_54B + '; EN 228 allows 720 to 775 kg/m³ at 15 °C'),
    },
    viscosity: {
      law: 'andrade',
      anchors: [
        { temperature_K: 273.15, kinematic_m2PerS: 0.73e-6 },
        { temperature_K: 313.15, kinematic_m2PerS: 0.49e-6 },
      ],
      ...sourced('from memory', 'handbook range for motor petrol; batches differ by about 15 %'),
    },
    vapour: {
      law: 'petrol-rvp',
      reidVapourPressure_Pa: 70e3,
      slope_K: 3,
      ...sourced(
        'from memory',
        'EPA AP-42 section 7.1, equation for refined stocks, slope 3 for motor gasoline; EN 228 classes run from 45 to 100 kPa',
      ),
    },
    validFrom_K: 238.15,
    validTo_K: 333.15,
    spread: { density_rel: 0.03, viscosity_rel: 0.15, vapour_rel: 0.25 },
    flashPoint_K: 233.15,
  },
  e10: {
    key: 'e10',
    mayTakeUpWater: true,
    name: 'petrol E10',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 749,
      k0: 346.4228,
      k1: 0.4388,
      ...sourced('from memory', TABLE_54B + '; a tenth of ethanol adds some 5 kg/m³'),
    },
    viscosity: {
      law: 'andrade',
      anchors: anchors([0, 0.78], [40, 0.52]),
      ...sourced('from memory', 'petrol thickened by a tenth of ethanol, mixed by logarithms of viscosity'),
    },
    vapour: {
      law: 'petrol-rvp',
      reidVapourPressure_Pa: 76e3,
      slope_K: 3,
      ...sourced(
        'from memory',
        'EPA AP-42 section 7.1; a tenth of ethanol lifts the Reid vapour pressure by some 6 to 7 kPa',
      ),
    },
    validFrom_K: 238.15,
    validTo_K: 333.15,
    spread: { density_rel: 0.03, viscosity_rel: 0.15, vapour_rel: 0.25 },
    flashPoint_K: 233.15,
  },
  e85: {
    key: 'e85',
    mayTakeUpWater: true,
    name: 'E85 (ethanol fuel)',
    density: {
      law: 'linear',
      density15_kgPerM3: 784,
      fall_kgPerM3K: 0.87,
      ...sourced(
        'from memory',
        'mixture of ethanol (794 kg/m³ at 15 °C) and petrol; ethanol falls by 0.86 kg/m³ a kelvin',
      ),
    },
    viscosity: {
      law: 'andrade',
      anchors: anchors([0, 1.8], [40, 0.85]),
      ...sourced(
        'from memory',
        'ethanol (2.2 mm²/s at 0 °C, 1.06 at 40 °C) thinned by a sixth of petrol, by logarithms of viscosity',
      ),
    },
    vapour: {
      law: 'petrol-rvp',
      reidVapourPressure_Pa: 48e3,
      slope_K: 3,
      ...sourced('from memory', 'ASTM D5798 classes of 38 to 103 kPa; the law is that of petrol, stretched'),
    },
    validFrom_K: 248.15,
    validTo_K: 328.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.15, vapour_rel: 0.35 },
    flashPoint_K: 253.15,
  },
  methanol: {
    key: 'methanol',
    mayTakeUpWater: true,
    name: 'methanol',
    density: {
      law: 'linear',
      density15_kgPerM3: 796,
      fall_kgPerM3K: 0.93,
      ...sourced('from memory', 'CRC Handbook of Chemistry and Physics: 791 kg/m³ at 20 °C'),
    },
    viscosity: {
      law: 'andrade',
      anchors: anchors([0, 0.979], [40, 0.577]),
      ...sourced('from memory', 'CRC Handbook of Chemistry and Physics: 0.793 mPa s at 0 °C, 0.544 at 25 °C'),
    },
    vapour: {
      law: 'antoine',
      a: 5.20409,
      b_K: 1581.341,
      c_K: -33.5,
      ...sourced('from memory', 'NIST Chemistry WebBook, D. Ambrose and C. Sprake (1970), 288 to 357 K'),
    },
    validFrom_K: 273.15,
    validTo_K: 335.15,
    spread: { density_rel: 0.003, viscosity_rel: 0.03, vapour_rel: 0.03 },
    flashPoint_K: 284.15,
  },
  'two-stroke': {
    key: 'two-stroke',
    mayTakeUpWater: true,
    name: 'two-stroke mix (1:50)',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 748,
      k0: 346.4228,
      k1: 0.4388,
      ...sourced('from memory', TABLE_54B + '; with a fiftieth of oil'),
    },
    viscosity: {
      law: 'andrade',
      anchors: anchors([0, 0.82], [40, 0.54]),
      ...sourced('from memory', 'petrol thickened by a fiftieth of oil, mixed by logarithms of viscosity'),
    },
    vapour: {
      law: 'petrol-rvp',
      reidVapourPressure_Pa: 70e3,
      slope_K: 3,
      ...sourced('from memory', 'EPA AP-42 section 7.1, as petrol'),
    },
    validFrom_K: 238.15,
    validTo_K: 333.15,
    spread: { density_rel: 0.03, viscosity_rel: 0.2, vapour_rel: 0.25 },
    flashPoint_K: 233.15,
  },
  diesel: {
    key: 'diesel',
    mayTakeUpWater: false,
    name: 'diesel',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 835,
      k0: 186.9696,
      k1: 0.4862,
      ...sourced('from memory', TABLE_54B + '; EN 590 allows 820 to 845 kg/m³ at 15 °C'),
    },
    viscosity: {
      law: 'walther',
      anchors: [
        { temperature_K: 293.15, kinematic_m2PerS: 4.3e-6 },
        { temperature_K: 313.15, kinematic_m2PerS: 2.7e-6 },
      ],
      ...sourced('from memory', 'ASTM D341 form; EN 590 allows 2.0 to 4.5 mm²/s at 40 °C, middling batch taken'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 12.101,
      b_R: 8907,
      ...sourced('from memory', 'EPA AP-42 table 7.1-2, distillate fuel oil no. 2'),
    },
    validFrom_K: 253.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.015, viscosity_rel: 0.35, vapour_rel: 0.5 },
    flashPoint_K: 328.15,
  },
  b20: {
    key: 'b20',
    mayTakeUpWater: false,
    name: 'diesel with a fifth of biodiesel (B20)',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 845,
      k0: 186.9696,
      k1: 0.4862,
      ...sourced('from memory', TABLE_54B + '; mixture of diesel and biodiesel by volume'),
    },
    viscosity: {
      law: 'walther',
      anchors: anchors([20, 4.8], [40, 3]),
      ...sourced('from memory', 'ASTM D341 form; ASTM D7467 allows 1.9 to 4.1 mm²/s at 40 °C'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 12.101,
      b_R: 8907,
      ...sourced('from memory', 'EPA AP-42 table 7.1-2, of its diesel: the safe side'),
    },
    validFrom_K: 258.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.015, viscosity_rel: 0.3, vapour_rel: 0.5 },
    flashPoint_K: 328.15,
  },
  b100: {
    key: 'b100',
    mayTakeUpWater: false,
    name: 'biodiesel (B100)',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 883,
      k0: 186.9696,
      k1: 0.4862,
      ...sourced(
        'from memory',
        'EN 14214 allows 860 to 900 kg/m³ at 15 °C; expansion as of diesel, which comes within a few per cent',
      ),
    },
    viscosity: {
      law: 'walther',
      anchors: anchors([20, 7.3], [40, 4.5]),
      ...sourced('from memory', 'ASTM D341 form; EN 14214 allows 3.5 to 5.0 mm²/s at 40 °C'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 12.101,
      b_R: 8907,
      ...sourced('from memory', 'of diesel, which boils sooner: the safe side'),
    },
    validFrom_K: 273.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.015, viscosity_rel: 0.15, vapour_rel: 0.9 },
    flashPoint_K: 374.15,
  },
  'heating-oil': {
    key: 'heating-oil',
    mayTakeUpWater: false,
    name: 'heating oil, light',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 845,
      k0: 186.9696,
      k1: 0.4862,
      ...sourced('from memory', TABLE_54B + '; DIN 51603-1 allows up to 860 kg/m³ at 15 °C'),
    },
    viscosity: {
      law: 'walther',
      anchors: anchors([20, 4.9], [40, 3]),
      ...sourced('from memory', 'ASTM D341 form; DIN 51603-1 allows up to 6 mm²/s at 20 °C'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 12.101,
      b_R: 8907,
      ...sourced('from memory', 'EPA AP-42 table 7.1-2, distillate fuel oil no. 2'),
    },
    validFrom_K: 263.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.3, vapour_rel: 0.5 },
    flashPoint_K: 328.15,
  },
  kerosene: {
    key: 'kerosene',
    mayTakeUpWater: false,
    name: 'kerosene',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 800,
      k0: 594.5418,
      k1: 0,
      ...sourced('from memory', 'API MPMS 11.1 / ASTM D1250-80, Table 54B constants for jet fuels and kerosenes'),
    },
    viscosity: {
      law: 'walther',
      anchors: anchors([20, 1.9], [40, 1.35]),
      ...sourced('from memory', 'ASTM D341 form; ASTM D3699 allows 1.0 to 1.9 mm²/s at 40 °C'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 12.39,
      b_R: 8933,
      ...sourced('from memory', 'EPA AP-42 table 7.1-2, jet kerosene'),
    },
    validFrom_K: 243.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.2, vapour_rel: 0.5 },
    flashPoint_K: 311.15,
  },
  water: {
    key: 'water',
    mayTakeUpWater: true,
    name: 'water',
    density: { law: 'water-kell', ...sourced('from memory', 'G. S. Kell, J. Chem. Eng. Data 20 (1975) 97') },
    viscosity: { law: 'water-iapws', ...sourced('from memory', 'IAPWS SR6-08(2011), liquid water at 0.1 MPa') },
    vapour: {
      law: 'water-wagner',
      ...sourced('from memory', 'W. Wagner and A. Pruss, J. Phys. Chem. Ref. Data 22 (1993) 783'),
    },
    validFrom_K: 273.15,
    validTo_K: 373.15,
    spread: { density_rel: 0.001, viscosity_rel: 0.01, vapour_rel: 0.01 },
  },
  'engine-oil': {
    key: 'engine-oil',
    mayTakeUpWater: false,
    name: 'engine oil (10W-40)',
    density: {
      law: 'petroleum',
      density15_kgPerM3: 870,
      k0: 0,
      k1: 0.6278,
      ...sourced('from memory', 'API MPMS 11.1 / ASTM D1250-80, Table 54D constants for lubricating oils'),
    },
    viscosity: {
      law: 'walther',
      anchors: [
        { temperature_K: 313.15, kinematic_m2PerS: 95e-6 },
        { temperature_K: 373.15, kinematic_m2PerS: 14e-6 },
      ],
      ...sourced('from memory', 'ASTM D341 form; SAE J300 grade 40 is 12.5 to 16.3 mm²/s at 100 °C'),
    },
    vapour: {
      law: 'rankine-ab',
      a: 10.104,
      b_R: 10475,
      ...sourced('from memory', 'EPA AP-42 table 7.1-2, residual oil no. 6: of the order of an oil'),
    },
    validFrom_K: 253.15,
    validTo_K: 423.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.3, vapour_rel: 0.9 },
    flashPoint_K: 473.15,
  },
  coolant: {
    key: 'coolant',
    mayTakeUpWater: true,
    name: 'coolant, half glycol',
    density: {
      law: 'linear',
      density15_kgPerM3: 1074,
      fall_kgPerM3K: 0.58,
      ...sourced('from memory', 'handbook tables of ethylene glycol and water, half and half by volume, 0 to 100 °C'),
    },
    viscosity: {
      law: 'walther',
      anchors: [
        { temperature_K: 293.15, kinematic_m2PerS: 3.7e-6 },
        { temperature_K: 353.15, kinematic_m2PerS: 0.95e-6 },
      ],
      ...sourced('from memory', 'handbook tables of ethylene glycol and water, half and half by volume'),
    },
    vapour: { law: 'water-wagner', ...sourced('from memory', 'of water, which boils sooner: the safe side') },
    validFrom_K: 238.15,
    validTo_K: 393.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.2, vapour_rel: 0.3 },
  },
  urea: {
    key: 'urea',
    mayTakeUpWater: true,
    name: 'urea solution (32.5 %)',
    density: {
      law: 'linear',
      density15_kgPerM3: 1092,
      fall_kgPerM3K: 0.5,
      ...sourced('from memory', 'ISO 22241-1 allows 1087 to 1093 kg/m³ at 20 °C'),
    },
    viscosity: {
      law: 'andrade',
      anchors: anchors([0, 2.3], [25, 1.28]),
      ...sourced('from memory', 'ISO 22241 annex: about 1.4 mPa s at 25 °C'),
    },
    vapour: { law: 'water-wagner', ...sourced('from memory', 'of water, which boils sooner: the safe side') },
    validFrom_K: 265.15,
    validTo_K: 333.15,
    spread: { density_rel: 0.005, viscosity_rel: 0.15, vapour_rel: 0.1 },
  },
};

/** Heat that a kilogram takes up a kelvin, near 20 °C [J/(kg K)]. */
export const HEAT_CAPACITY: Readonly<Record<FluidKey, Sourced & { readonly heat_JPerKgK: number }>> = (() => {
  const of = (heat_JPerKgK: number, source: string) => ({ heat_JPerKgK, ...sourced('from memory', source) });
  const petroleum = 'handbook range of petroleum products, 1.8 to 2.2 kJ/(kg K)';
  return {
    petrol: of(2100, petroleum),
    e10: of(2130, petroleum),
    'two-stroke': of(2100, petroleum),
    e85: of(2380, 'CRC Handbook: ethanol 2.44 kJ/(kg K), with a sixth of petrol'),
    methanol: of(2530, 'CRC Handbook of Chemistry and Physics'),
    diesel: of(1950, petroleum),
    b20: of(1960, petroleum),
    b100: of(2000, petroleum),
    'heating-oil': of(1950, petroleum),
    kerosene: of(2010, petroleum),
    'engine-oil': of(1900, petroleum),
    water: of(4184, 'CRC Handbook of Chemistry and Physics'),
    coolant: of(3400, 'handbook tables of half glycol'),
    urea: of(3400, 'ISO 22241 annex, about 3.4 kJ/(kg K)'),
  };
})();
