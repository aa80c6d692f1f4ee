import { sourced, type Sourced } from './provenance';

/** What a boat floats in. */
export const WATERS = ['sea', 'fresh'] as const;
export type Water = (typeof WATERS)[number];

export type WaterRow = Sourced & { readonly name: string; readonly density_kgPerM3: number };

export const WATER_ROWS: Readonly<Record<Water, WaterRow>> = {
  sea: {
    name: 'sea water',
    density_kgPerM3: 1025,
    ...sourced('from memory', 'naval architecture handbooks: sea water of 35 g salt a kilogram at 15 °C'),
  },
  fresh: {
    name: 'fresh water',
    density_kgPerM3: 1000,
    ...sourced('from memory', 'naval architecture handbooks: fresh water at 4 °C'),
  },
};
