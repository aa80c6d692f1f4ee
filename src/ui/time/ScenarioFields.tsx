'use client';

import { SCENARIO_FIELDS, type ScenarioField } from '@/core/plan';
import { clockText, entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { fromDocument, readEntry } from '../fields/readEntry';
import { TextEntry } from '../fields/TextEntry';
import { useReader } from '../state/reader';

/** A value of a scenario, as the reader has it. */
export function ScenarioNumber({
  field,
  value,
  label,
  onPut,
}: {
  readonly field: ScenarioField;
  readonly value: number;
  readonly label?: string;
  readonly onPut: (value: number) => void;
}) {
  const reader = useReader();
  const { role, min, max, label: named } = SCENARIO_FIELDS[field];
  return (
    <TextEntry
      label={label ?? named}
      value={entryText(fromDocument(value, role), role, reader)}
      unit={unitById(ROLES[role].kind, roleUnit(role, reader)).symbol}
      onEnter={(text) => {
        const read = readEntry(text, role, reader, { min, max });
        if (!read.ok) return read;
        onPut(read.value);
        return read;
      }}
    />
  );
}

/** A bare number would be hours to one and minutes to another. */
const BARE = /^[\d.,\s]+$/;

/** A time since the beginning, or how long something lasts. */
export function ScenarioTime({
  field,
  value_s,
  label,
  onPut,
}: {
  readonly field: 'at_s' | 'duration_s' | 'vapourLag_s';
  readonly value_s: number;
  readonly label?: string;
  readonly onPut: (value_s: number) => void;
}) {
  const reader = useReader();
  const { min, max, label: named } = SCENARIO_FIELDS[field];
  return (
    <TextEntry
      label={label ?? named}
      value={clockText(value_s)}
      onEnter={(text) => {
        const typed = text.trim();
        if (BARE.test(typed))
          return { ok: false, message: `Say ${typed} s, ${typed} min or ${typed} h; 1 h 20 min is understood too.` };
        const read = readEntry(typed, 'duration', reader, { min: -Infinity, max: Infinity });
        if (!read.ok) return read;
        if (read.value < min || read.value > max)
          return {
            ok: false,
            message: `${clockText(Math.max(0, read.value))} is out of range; enter ${clockText(min)} to ${clockText(max)}.`,
          };
        onPut(read.value);
        return { ok: true };
      }}
    />
  );
}
