/**
 * Text and bytes for other programs. One file a format; `csv.ts` for tables,
 * `stl.ts` for the tank's inside.
 */
export { csvText } from './csv';
export { stlBytes } from './stl';
