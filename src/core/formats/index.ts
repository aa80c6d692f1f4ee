/**
 * Text and bytes for other programs. One file a format; `csv.ts` for tables,
 * `stl.ts` and `stlRead.ts` for a tank's inside.
 */
export { csvText, unguarded } from './csv';
export { cellNumber, decimalMark, quoted, type DecimalMark } from './csvNumbers';
export { NOT_UTF8, PLAIN_NAME, PLAIN_TEXT, plainName, utf8Text } from './plainText';
export { MOST_NESTED, readJson, type JsonCode } from './json';
export { stlBytes } from './stl';
export {
  closedStl,
  MOST_TRIANGLES,
  readStl,
  sound,
  STL_SIZE_M,
  STL_UNITS,
  type StlCode,
  type StlUnit,
} from './stlRead';
export {
  MOST_NOTE,
  MOST_POURS,
  MOST_TIME,
  POUR_STATES,
  POUR_WAYS,
  poursCsv,
  readPoursCsv,
  type PourLine,
  type PourReading,
  type PoursCode,
  type PoursRead,
} from './poursCsv';
export { holeChartCsv, type ChartHole } from './holeChart';
export { cutsCsv, partsCsv, type ListedCut, type ListedPart } from './linesCsv';
export { capital } from './capital';
