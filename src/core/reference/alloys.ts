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
};

const DENSITY = 'ASM Handbook vol. 2 and 1, density; usual wall: common practice';

export const ALLOYS: Readonly<Record<AlloyKey, AlloyRow>> = {
  'al-5052': { key: 'al-5052', name: 'aluminium 5052', density_kgPerM3: 2680, gauge: 'aluminium', thinnestUsual_m: 0.002, ...sourced('from memory', DENSITY) },
  'al-3003': { key: 'al-3003', name: 'aluminium 3003', density_kgPerM3: 2730, gauge: 'aluminium', thinnestUsual_m: 0.002, ...sourced('from memory', DENSITY) },
  'al-6061': { key: 'al-6061', name: 'aluminium 6061', density_kgPerM3: 2700, gauge: 'aluminium', thinnestUsual_m: 0.002, ...sourced('from memory', DENSITY) },
  'mild-steel': { key: 'mild-steel', name: 'mild steel', density_kgPerM3: 7850, gauge: 'steel', thinnestUsual_m: 0.0015, ...sourced('from memory', DENSITY) },
  'stainless-304': { key: 'stainless-304', name: 'stainless 304', density_kgPerM3: 8000, gauge: 'stainless', thinnestUsual_m: 0.0012, ...sourced('from memory', DENSITY) },
  'stainless-316': { key: 'stainless-316', name: 'stainless 316', density_kgPerM3: 8000, gauge: 'stainless', thinnestUsual_m: 0.0012, ...sourced('from memory', DENSITY) },
  hdpe: { key: 'hdpe', name: 'polyethylene (HDPE)', density_kgPerM3: 955, thinnestUsual_m: 0.004, ...sourced('from memory', DENSITY) },
};
