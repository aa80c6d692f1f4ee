/**
 * Text and bytes for other programs. One file a format; `csv.ts` for tables,
 * `stl.ts` and `stlRead.ts` for a tank's inside.
 */
export { csvText } from './csv';
export { stlBytes } from './stl';
export { MOST_TRIANGLES, readStl, sound, STL_SIZE_M, STL_UNITS, type StlCode, type StlUnit } from './stlRead';
