import type { SheetMetal } from './sheetGauges';
import { sourced, type Sourced } from './provenance';

export type AlloyKey = 'al-5052' | 'al-3003' | 'al-6061' | 'mild-steel' | 'stainless-304' | 'stainless-316' | 'hdpe';

export type AlloyRow = Sourced & {
  readonly key: AlloyKey;
  readonly name: string;
  readonly density_kgPerM3: number;
  /** Which gauge table its sheet is named by; none for plastics. */
  readonly gauge?: SheetMetal;
  /** Wall below which a welded tank of some size is hard to keep flat and tight [m]. */
  readonly thinnestUsual_m: number;
  /** Filler rod for welding it to itself. */
  readonly filler: string;
  /** Least inside radius of a cold 90° bend, in thicknesses, for the usual temper. */
  readonly bendRadius_t: number;
  /** What to know of it at the brake and the bench. */
  readonly note: string;
};

const DENSITY =
  'ASM Handbook vol. 1 and 2: density; AWS A5.10, A5.18, A5.9: filler; Aluminum Association bend tables: radius; usual wall: common practice';

export const ALLOYS: Readonly<Record<AlloyKey, AlloyRow>> = {
  'al-5052': {
    key: 'al-5052',
    name: 'aluminium 5052',
    density_kgPerM3: 2680,
    gauge: 'aluminium',
    thinnestUsual_m: 0.002,
    filler: 'ER5356',
    bendRadius_t: 1.5,
    note: 'H32 temper; bends and welds well, the usual choice.',
    ...sourced('from memory', DENSITY),
  },
  'al-3003': {
    key: 'al-3003',
    name: 'aluminium 3003',
    density_kgPerM3: 2730,
    gauge: 'aluminium',
    thinnestUsual_m: 0.002,
    filler: 'ER4043',
    bendRadius_t: 1,
    note: 'H14 temper; soft, bends best of the aluminiums.',
    ...sourced('from memory', DENSITY),
  },
  'al-6061': {
    key: 'al-6061',
    name: 'aluminium 6061',
    density_kgPerM3: 2700,
    gauge: 'aluminium',
    thinnestUsual_m: 0.002,
    filler: 'ER4043 or ER5356',
    bendRadius_t: 4,
    note: 'T6 temper cracks at a sharp bend: weld corners, or bend it annealed.',
    ...sourced('from memory', DENSITY),
  },
  'mild-steel': {
    key: 'mild-steel',
    name: 'mild steel',
    density_kgPerM3: 7850,
    gauge: 'steel',
    thinnestUsual_m: 0.0015,
    filler: 'ER70S-6',
    bendRadius_t: 1,
    note: 'Rusts: coat it outside; some line it inside.',
    ...sourced('from memory', DENSITY),
  },
  'stainless-304': {
    key: 'stainless-304',
    name: 'stainless 304',
    density_kgPerM3: 8000,
    gauge: 'stainless',
    thinnestUsual_m: 0.0012,
    filler: 'ER308L',
    bendRadius_t: 1,
    note: 'Back-purge with argon or the root turns to sugar; best with alcohol blends.',
    ...sourced('from memory', DENSITY),
  },
  'stainless-316': {
    key: 'stainless-316',
    name: 'stainless 316',
    density_kgPerM3: 8000,
    gauge: 'stainless',
    thinnestUsual_m: 0.0012,
    filler: 'ER316L',
    bendRadius_t: 1,
    note: 'As 304, and it stands salt water better.',
    ...sourced('from memory', DENSITY),
  },
  hdpe: {
    key: 'hdpe',
    name: 'polyethylene (HDPE)',
    density_kgPerM3: 955,
    thinnestUsual_m: 0.004,
    filler: 'HDPE rod of the same grade',
    bendRadius_t: 10,
    note: 'Hot-gas or extrusion welded; not bent cold.',
    ...sourced('from memory', DENSITY),
  },
};
