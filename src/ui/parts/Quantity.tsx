'use client';

import { formatQuantity, type Role } from '@/core/units';
import { useReader } from '../state/reader';

/** A quantity in the reader's units, with no more digits than it deserves. */
export function Quantity({
  value,
  role,
  spread,
  digits,
}: {
  readonly value: number;
  readonly role: Role;
  readonly spread?: number;
  readonly digits?: number;
}) {
  const reader = useReader();
  return (
    <>{formatQuantity(value, role, { reader, ...(spread ? { spread } : {}), ...(digits ? { digits } : {}) }).text}</>
  );
}
