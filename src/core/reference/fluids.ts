import { sourced, type Sourced } from './provenance';

/**
 * Fluids as data: what the property laws in `fluids/` need. Trade fuels vary
 * from batch to batch; the spread beside each anchor is that variation.
 */
export type FluidKey = 'petrol' | 'diesel' | 'water' | 'engine-oil' | 'coolant';

export type DensityLaw =
  /** Generalized petroleum products: VCF = exp(-a dT (1 + 0.8 a dT)), a = K0/rho² + K1/rho. */
  | ({ readonly law: 'petroleum'; readonly density15_kgPerM3: number; readonly k0: number; readonly k1: number } & Sourced)
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
};

const TABLE_54B = 'API MPMS 11.1 / ASTM D1250-80, Table 54B constants';

export const FLUIDS: Readonly<Record<FluidKey, FluidRow>> = {
  petrol: {
    key: 'petrol',
    name: 'petrol (gasoline)',
    density: { law: 'petroleum', density15_kgPerM3: 745, k0: 346.4228, k1: 0.4388, ...sourced('from memory', TABLE_54B + '; EN 228 allows 720 to 775 kg/m³ at 15 °C') },
    viscosity: {
      law: 'andrade',
      anchors: [
        { temperature_K: 273.15, kinematic_m2PerS: 0.73e-6 },
        { temperature_K: 313.15, kinematic_m2PerS: 0.49e-6 },
      ],
      ...sourced('from memory', 'handbook range for motor petrol; batches differ by about 15 %'),
    },
    vapour: { law: 'petrol-rvp', reidVapourPressure_Pa: 70e3, slope_K: 3, ...sourced('from memory', 'EPA AP-42 section 7.1, equation for refined stocks, slope 3 for motor gasoline; EN 228 classes run from 45 to 100 kPa') },
    validFrom_K: 238.15,
    validTo_K: 333.15,
    spread: { density_rel: 0.03, viscosity_rel: 0.15, vapour_rel: 0.25 },
    flashPoint_K: 233.15,
  },
  diesel: {
    key: 'diesel',
    name: 'diesel',
    density: { law: 'petroleum', density15_kgPerM3: 835, k0: 186.9696, k1: 0.4862, ...sourced('from memory', TABLE_54B + '; EN 590 allows 820 to 845 kg/m³ at 15 °C') },
    viscosity: {
      law: 'walther',
      anchors: [
        { temperature_K: 293.15, kinematic_m2PerS: 4.3e-6 },
        { temperature_K: 313.15, kinematic_m2PerS: 2.7e-6 },
      ],
      ...sourced('from memory', 'ASTM D341 form; EN 590 allows 2.0 to 4.5 mm²/s at 40 °C, middling batch taken') },
    vapour: { law: 'rankine-ab', a: 12.101, b_R: 8907, ...sourced('from memory', 'EPA AP-42 table 7.1-2, distillate fuel oil no. 2') },
    validFrom_K: 253.15,
    validTo_K: 353.15,
    spread: { density_rel: 0.015, viscosity_rel: 0.35, vapour_rel: 0.5 },
    flashPoint_K: 328.15,
  },
  water: {
    key: 'water',
    name: 'water',
    density: { law: 'water-kell', ...sourced('from memory', 'G. S. Kell, J. Chem. Eng. Data 20 (1975) 97') },
    viscosity: { law: 'water-iapws', ...sourced('from memory', 'IAPWS SR6-08(2011), liquid water at 0.1 MPa') },
    vapour: { law: 'water-wagner', ...sourced('from memory', 'W. Wagner and A. Pruss, J. Phys. Chem. Ref. Data 22 (1993) 783') },
    validFrom_K: 273.15,
    validTo_K: 373.15,
    spread: { density_rel: 0.001, viscosity_rel: 0.01, vapour_rel: 0.01 },
  },
  'engine-oil': {
    key: 'engine-oil',
    name: 'engine oil (10W-40)',
    density: { law: 'petroleum', density15_kgPerM3: 870, k0: 0, k1: 0.6278, ...sourced('from memory', 'API MPMS 11.1 / ASTM D1250-80, Table 54D constants for lubricating oils') },
    viscosity: {
      law: 'walther',
      anchors: [
        { temperature_K: 313.15, kinematic_m2PerS: 95e-6 },
        { temperature_K: 373.15, kinematic_m2PerS: 14e-6 },
      ],
      ...sourced('from memory', 'ASTM D341 form; SAE J300 grade 40 is 12.5 to 16.3 mm²/s at 100 °C'),
    },
    vapour: { law: 'rankine-ab', a: 10.104, b_R: 10475, ...sourced('from memory', 'EPA AP-42 table 7.1-2, residual oil no. 6: of the order of an oil') },
    validFrom_K: 253.15,
    validTo_K: 423.15,
    spread: { density_rel: 0.02, viscosity_rel: 0.3, vapour_rel: 0.9 },
    flashPoint_K: 473.15,
  },
  coolant: {
    key: 'coolant',
    name: 'coolant, half glycol',
    density: { law: 'linear', density15_kgPerM3: 1074, fall_kgPerM3K: 0.58, ...sourced('from memory', 'handbook tables of ethylene glycol and water, half and half by volume, 0 to 100 °C') },
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
};
