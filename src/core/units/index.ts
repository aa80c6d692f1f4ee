/**
 * Quantities: what people type to SI, and SI to what people read.
 *
 * Read `units.ts` first: the table of units with exact factors. `parse.ts`
 * is the way in for every typed quantity (numbers in `parseNumber.ts`, sizes
 * that are names in `parseNominal.ts`); `format.ts` is the way out, by the
 * role a number plays and for who reads it (`reader.ts`). To add a unit, add a row to UNITS; to add a way of
 * showing one, add a role to ROLES.
 */
export { parseQuantity, acceptedText, type EntryField, type EntryCode } from './parse';
export {
  apartOf,
  readerOf,
  systemOf,
  UNIT_GROUPS,
  UNIT_GROUP_KEYS,
  type Reader,
  type ReaderSystem,
  type UnitGroup,
} from './reader';
export { clockText } from './clock';
export { isoSeconds } from './isoTime';
export { parseNumber } from './parseNumber';
export type { Quantity } from './quantity';
export {
  formatQuantity,
  entryText,
  inchFraction,
  roleUnit,
  ROLES,
  type FormattedQuantity,
  type FormatOptions,
} from './format';
export type { Role } from './role';
export { degrees, radians } from './angles';
export { inReaderUnits, messageText, say, type Message } from './message';
export { UNITS, unitById, unitBySpelling, toSI, fromSI, type Kind, type Unit } from './units';
export {
  INCH_M,
  FOOT_M,
  US_GALLON_M3,
  IMPERIAL_GALLON_M3,
  POUND_KG,
  PSI_PA,
  STANDARD_GRAVITY_M_PER_S2,
  ZERO_CELSIUS_K,
} from './units';
