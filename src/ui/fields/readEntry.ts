import type { Limits } from '@/core/plan';
import { formatQuantity, parseQuantity, roleUnit, ROLES, type EntryField, type Reader, type Role } from '@/core/units';

/** What a careful measurement of each role is worth, half-width in SI; shares are of the value. */
const MEASURED: Readonly<Partial<Record<Role, { readonly abs?: number; readonly rel?: number }>>> = {
  tape: { abs: 0.001 },
  bore: { abs: 0.0002 },
  thickness: { abs: 0.0001 },
  run: { abs: 0.02 },
  burn: { rel: 0.05 },
  transfer: { rel: 0.05 },
  pressure: { rel: 0.05 },
  resistance: { rel: 0.02 },
  slope: { abs: 0.5 },
  tankVolume: { rel: 0.01 },
};

const SI_ROLES_IN_DEGREES: Role = 'slope';

/** Angles stand in the document in degrees; every other value in SI. */
export const fromDocument = (value: number, role: Role): number =>
  role === SI_ROLES_IN_DEGREES ? (value * Math.PI) / 180 : value;
export const toDocument = (si: number, role: Role): number =>
  role === SI_ROLES_IN_DEGREES ? Number(((si * 180) / Math.PI).toPrecision(12)) : Number(si.toPrecision(12));

/** Reads an entry for a role and checks it against limits given as they stand in the document. */
export function readEntry(
  text: string,
  role: Role,
  reader: Reader,
  limits: Limits,
  entry: Pick<EntryField, 'metal' | 'line'> = {},
): { ok: true; value: number; note?: string } | { ok: false; message: string } {
  const field: EntryField = { kind: ROLES[role].kind, unit: roleUnit(role, reader), reader, ...entry };
  const read = parseQuantity(text, field);
  if (!read.ok) return { ok: false, message: read.error.detail };
  const value = toDocument(read.value.si, role);
  if (value < limits.min || value > limits.max) {
    const show = (bound: number): string => formatQuantity(fromDocument(bound, role), role, { reader }).text;
    return {
      ok: false,
      message: `${formatQuantity(read.value.si, role, { reader }).text} is out of range; enter ${show(limits.min)} to ${show(limits.max)}.`,
    };
  }
  const shown = formatQuantity(read.value.si, role, { reader });
  return {
    ok: true,
    value,
    ...(read.value.nominal || !isPlain(text, shown.number) ? { note: `${read.value.reading} = ${shown.text}` } : {}),
  };
}

/** True when the entry begins with the number that is shown for it: then there is nothing to say back. */
const isPlain = (text: string, number: string): boolean => text.trim().replace('-', '−').startsWith(number);

/** How far a careful measurement may be off, but never farther than was assumed. */
export const measuredSpread = (role: Role, value: number, old: number | undefined): number => {
  const rule = MEASURED[role] ?? { rel: 0.02 };
  const careful = rule.abs ?? Math.abs(value) * (rule.rel ?? 0.02);
  return Number((old === undefined ? careful : Math.min(old, careful)).toPrecision(6));
};

/** True where a role's values stand in degrees. */
export const inDegrees = (role: Role): boolean => role === SI_ROLES_IN_DEGREES;
