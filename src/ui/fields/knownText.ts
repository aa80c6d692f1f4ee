import { formatQuantity, ROLES, roleUnit, unitById, type Reader, type Role } from '@/core/units';
import { fromDocument, inDegrees } from './readEntry';

/**
 * A value of the document with its spread, both in one unit: "0° ± 1°", "40 mm ± 0.5".
 * Angles stand in degrees in the document; a spread is a difference, so that
 * 2 K of it are 2 °C.
 */
export function knownText(
  { value, spread }: { readonly value: number; readonly spread?: number | undefined },
  role: Role,
  reader: Reader,
): string {
  const shown = formatQuantity(fromDocument(value, role), role, { reader });
  if (spread === undefined || spread === 0) return shown.text;
  const unit = unitById(
    ROLES[role].kind,
    role === 'duration' && shown.symbol === 'min' ? 'min' : roleUnit(role, reader),
  );
  const off = String(Number((inDegrees(role) ? spread : spread / unit.toSI).toPrecision(2)));
  return `${shown.text} ± ${off}${inDegrees(role) ? '°' : ''}`;
}
