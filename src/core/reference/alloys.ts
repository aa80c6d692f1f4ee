import type { SheetMetal } from './sheetGauges';
import { sourced, type Sourced } from './provenance';

export type AlloyKey =
  | 'al-5052'
  | 'al-3003'
  | 'al-6061'
  | 'mild-steel'
  | 'stainless-304'
  | 'stainless-316'
  | 'cast-aluminium'
  | 'unknown-metal'
  | 'hdpe'
  | 'pp'
  | 'pvc'
  | 'abs';

export type AlloyRow = Sourced & {
  readonly key: AlloyKey;
  readonly name: string;
  readonly isMetal: boolean;
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
  /** What speaks against a fuel tank of it, whatever the fuel. */ readonly caution?: string;
};

const DENSITY =
  'ASM Handbook vol. 1 and 2: density; AWS A5.10, A5.18, A5.9: filler; Aluminum Association bend tables: radius; usual wall: common practice';

export const ALLOYS: Readonly<Record<AlloyKey, AlloyRow>> = {
  'al-5052': {
    key: 'al-5052',
    name: 'aluminium 5052',
    isMetal: true,
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
    isMetal: true,
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
    isMetal: true,
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
    isMetal: true,
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
    isMetal: true,
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
    isMetal: true,
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
    isMetal: false,
    density_kgPerM3: 955,
    thinnestUsual_m: 0.004,
    filler: 'HDPE rod of the same grade',
    bendRadius_t: 10,
    note: 'Hot-gas or extrusion welded; not bent cold.',
    ...sourced('from memory', DENSITY),
  },
  'cast-aluminium': {
    key: 'cast-aluminium',
    name: 'cast aluminium',
    isMetal: true,
    density_kgPerM3: 2700,
    thinnestUsual_m: 0.004,
    filler: 'ER4043',
    bendRadius_t: Infinity,
    note: 'Not bent; welded only clean, warm and slowly.',
    caution:
      'A casting may be porous and weep for years, and oil in its pores spoils a weld: prove it long, and seal it.',
    ...sourced('from memory', DENSITY),
  },
  'unknown-metal': {
    key: 'unknown-metal',
    name: 'reclaimed metal, not known which',
    isMetal: true,
    density_kgPerM3: 2700,
    thinnestUsual_m: 0.002,
    filler: 'not known',
    bendRadius_t: 4,
    note: 'Weigh a piece of known size for its density; bend and weld an offcut first.',
    caution:
      'Sheet of an alloy that nobody knows may crack at a full bend or beside its weld, and coatings on it give off poison when welded: find out what it is.',
    ...sourced('common practice', 'reclaimed sheet is mostly aluminium; a magnet and a file tell steel'),
  },
  pp: {
    key: 'pp',
    name: 'polypropylene',
    isMetal: false,
    density_kgPerM3: 905,
    thinnestUsual_m: 0.005,
    filler: 'PP rod of the same grade',
    bendRadius_t: 10,
    note: 'Hot-gas or extrusion welded; brittle in the cold.',
    caution: 'Petrol swells it, and below freezing it breaks at a knock.',
    ...sourced('from memory', 'handbook values of polypropylene homopolymer'),
  },
  pvc: {
    key: 'pvc',
    name: 'PVC pipe',
    isMetal: false,
    density_kgPerM3: 1400,
    thinnestUsual_m: 0.003,
    filler: 'solvent cement',
    bendRadius_t: 10,
    note: 'Pipe with glued caps.',
    caution:
      'Done for diesel heaters; it is no listed fuel-tank material, and neither it nor its cement stands petrol.',
    ...sourced('from memory', 'handbook values of rigid PVC'),
  },
  abs: {
    key: 'abs',
    name: 'ABS pipe',
    isMetal: false,
    density_kgPerM3: 1050,
    thinnestUsual_m: 0.004,
    filler: 'solvent cement',
    bendRadius_t: 10,
    note: 'Pipe with glued caps.',
    caution: 'It is no listed fuel-tank material, and cracks under stress in fuel.',
    ...sourced('from memory', 'handbook values of ABS'),
  },
};
