import { fromSI, roleUnit, ROLES, unitById, type ReaderSystem, type Role } from '@/core/units';

/** A role's values in the reader's unit, for an axis that needs bare numbers. */
export function axisOf(role: Role, reader: ReaderSystem): { symbol: string; value: (si: number) => number } {
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  return { symbol: unit.symbol, value: (si) => fromSI(si, unit) };
}
