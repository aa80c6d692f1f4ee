import { sourced, type Sourced } from './provenance';

/** What straps, tabs, bearers and what they stand on are made of. */
export const MOUNT_STOCK = [
  'mild-steel',
  'stainless',
  'aluminium-5052',
  'aluminium-6061',
  'polyester-web',
  'plywood',
  'fibreglass',
  'hardwood',
] as const;
export type MountStock = (typeof MOUNT_STOCK)[number];

export type MountStockRow = Sourced & {
  readonly name: string;
  readonly density_kgPerM3: number;
  readonly modulus_Pa: number;
  /** Stress it comes back from, in pull or bending; of webbing that of its whole section. */
  readonly yield_Pa: number;
  /** Stress at which it breaks. */ readonly breaks_Pa: number;
  /** Beside a weld: what is left of the stress it comes back from and of that at which it breaks. */
  readonly beside?: { readonly yield_Pa: number; readonly breaks_Pa: number };
};

const [MPA, GPA] = [1e6, 1e9];
export const MOUNT_STOCKS: Readonly<Record<MountStock, MountStockRow>> = {
  'mild-steel': {
    name: 'mild steel',
    density_kgPerM3: 7850,
    modulus_Pa: 210 * GPA,
    yield_Pa: 235 * MPA,
    breaks_Pa: 360 * MPA,
    beside: { yield_Pa: 235 * MPA, breaks_Pa: 360 * MPA },
    ...sourced('from memory', 'EN 10025-2, S235'),
  },
  stainless: {
    name: 'stainless 304 or 316',
    density_kgPerM3: 8000,
    modulus_Pa: 200 * GPA,
    yield_Pa: 210 * MPA,
    breaks_Pa: 520 * MPA,
    beside: { yield_Pa: 210 * MPA, breaks_Pa: 520 * MPA },
    ...sourced('from memory', 'EN 10088, 1.4301, annealed'),
  },
  'aluminium-5052': {
    name: 'aluminium 5052-H32',
    density_kgPerM3: 2680,
    modulus_Pa: 70 * GPA,
    yield_Pa: 160 * MPA,
    breaks_Pa: 215 * MPA,
    beside: { yield_Pa: 65 * MPA, breaks_Pa: 170 * MPA },
    ...sourced('from memory', 'Aluminum Design Manual: H32, and annealed beside a weld'),
  },
  'aluminium-6061': {
    name: 'aluminium 6061-T6',
    density_kgPerM3: 2700,
    modulus_Pa: 69 * GPA,
    yield_Pa: 240 * MPA,
    breaks_Pa: 260 * MPA,
    beside: { yield_Pa: 105 * MPA, breaks_Pa: 165 * MPA },
    ...sourced('from memory', 'Aluminum Design Manual: T6, and within 25 mm of a weld'),
  },
  'polyester-web': {
    name: 'polyester webbing with a ratchet',
    density_kgPerM3: 1200,
    modulus_Pa: 2.4 * GPA,
    yield_Pa: 167 * MPA,
    breaks_Pa: 333 * MPA,
    ...sourced(
      'from memory',
      'EN 12195-2: 50 mm webbing (3 mm thick) breaks at 50 kN, is rated at half, and gives 7 % at most at its rating',
    ),
  },
  plywood: {
    name: 'plywood',
    density_kgPerM3: 600,
    modulus_Pa: 8 * GPA,
    yield_Pa: 20 * MPA,
    breaks_Pa: 40 * MPA,
    ...sourced('from memory', 'EN 636 and EN 12369: structural plywood of mixed veneers'),
  },
  fibreglass: {
    name: 'fibreglass, hand laid',
    density_kgPerM3: 1500,
    modulus_Pa: 7 * GPA,
    yield_Pa: 80 * MPA,
    breaks_Pa: 85 * MPA,
    ...sourced('from memory', 'ISO 12215-5: chopped strand mat at 30 % glass'),
  },
  hardwood: {
    name: 'hardwood',
    density_kgPerM3: 650,
    modulus_Pa: 10 * GPA,
    yield_Pa: 30 * MPA,
    breaks_Pa: 60 * MPA,
    ...sourced('from memory', 'EN 338, D30'),
  },
};

/** What lies between a tank and what holds it. */
export const PADS = ['none', 'rubber', 'neoprene-sponge', 'felt', 'closed-cell-foam'] as const;
export type Pad = (typeof PADS)[number];

export type PadRow = Sourced & {
  readonly name: string;
  /** Of a thin sheet pressed between plates, as pads are. */ readonly modulus_Pa: number;
  /** The same pushed along its own face. */ readonly shear_Pa: number;
  /** Coulomb's ratio against metal, dry. */ readonly friction_ratio: number;
  /** More presses it flat for good. */ readonly most_Pa: number;
};

export const PAD_ROWS: Readonly<Record<Pad, PadRow>> = {
  none: {
    name: 'nothing: metal on what it stands on',
    modulus_Pa: 1e9,
    shear_Pa: 3.8e8,
    friction_ratio: 0.2,
    most_Pa: 1e8,
    ...sourced('common practice', 'metal on metal or paint; dirt and vibration make it less'),
  },
  rubber: {
    name: 'rubber strip, 60 to 70 Shore',
    modulus_Pa: 8e6,
    shear_Pa: 1.3e6,
    friction_ratio: 0.4,
    most_Pa: 2e6,
    ...sourced(
      'from memory',
      'handbooks of rubber springs: 4 to 6 MPa, stiffened by its shape; EN 12195-1: 0.6 for mats',
    ),
  },
  'neoprene-sponge': {
    name: 'neoprene sponge',
    modulus_Pa: 0.7e6,
    shear_Pa: 0.2e6,
    friction_ratio: 0.4,
    most_Pa: 0.3e6,
    ...sourced('common practice', 'medium sponge, pressed to three quarters by about 0.1 MPa'),
  },
  felt: {
    name: 'felt',
    modulus_Pa: 1.5e6,
    shear_Pa: 0.3e6,
    friction_ratio: 0.3,
    most_Pa: 0.5e6,
    ...sourced('common practice', 'soaks up water and fuel, and rusts what it lies on'),
  },
  'closed-cell-foam': {
    name: 'closed-cell foam',
    modulus_Pa: 0.4e6,
    shear_Pa: 0.12e6,
    friction_ratio: 0.3,
    most_Pa: 0.15e6,
    ...sourced('common practice', 'beds a tank all over; settles for good under a steady load'),
  },
};
