import { fromSI, roleUnit, ROLES, unitById, type Reader, type Role } from '@/core/units';

/** A role's values in the reader's unit, for an axis that needs bare numbers. */
export function axisOf(role: Role, reader: Reader): { symbol: string; value: (si: number) => number } {
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  return { symbol: unit.symbol, value: (si) => fromSI(si, unit) };
}
