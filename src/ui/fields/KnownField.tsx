'use client';

import { Box, chakra } from '@chakra-ui/react';
import { memo } from 'react';
import { limitsAt, ORIGINS, valueAt, withValue, type Known, type Limits, type Origin, type Path } from '@/core/document';
import { acceptedText, entryText, formatQuantity, fromSI, parseQuantity, roleUnit, ROLES, toSI, unitById, type EntryField, type ReaderSystem, type Role } from '@/core/units';
import { applyEdit, openDocument, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { TextEntry, type EntryVerdict } from './TextEntry';

/** What a careful measurement of each role is worth, half-width in SI; shares are of the value. */
const MEASURED: Readonly<Partial<Record<Role, { readonly abs?: number; readonly rel?: number }>>> = {
  tape: { abs: 0.001 }, bore: { abs: 0.0002 }, thickness: { abs: 0.0001 }, run: { abs: 0.02 },
  burn: { rel: 0.05 }, transfer: { rel: 0.05 }, pressure: { rel: 0.05 }, resistance: { rel: 0.02 }, slope: { abs: 0.5 }, tankVolume: { rel: 0.01 },
};

const ORIGIN_WORDS: Readonly<Record<Origin, string>> = { measured: 'measured', chosen: 'chosen', part: 'from part', assumed: 'assumed' };

const SI_ROLES_IN_DEGREES = 'slope';

export type KnownFieldProps = {
  readonly label: string;
  readonly path: Path;
  readonly role: Role;
  readonly entry?: Pick<EntryField, 'metal' | 'line'>;
  readonly hint?: string;
};

/** Angles stand in the document in degrees; every other value in SI. */
const fromDocument = (value: number, role: Role): number => (role === SI_ROLES_IN_DEGREES ? (value * Math.PI) / 180 : value);
const toDocument = (si: number, role: Role): number => (role === SI_ROLES_IN_DEGREES ? Number(((si * 180) / Math.PI).toPrecision(12)) : Number(si.toPrecision(12)));

/** Reads an entry for a role and checks it against limits given as they stand in the document. */
export function readEntry(
  text: string, role: Role, reader: ReaderSystem, limits: Limits, entry: Pick<EntryField, 'metal' | 'line'> = {},
): { ok: true; value: number; note?: string } | { ok: false; message: string } {
  const field: EntryField = { kind: ROLES[role].kind, unit: roleUnit(role, reader), reader, ...entry };
  const read = parseQuantity(text, field);
  if (!read.ok) return { ok: false, message: read.error.detail };
  const value = toDocument(read.value.si, role);
  if (value < limits.min || value > limits.max) {
    const show = (bound: number): string => formatQuantity(fromDocument(bound, role), role, { reader }).text;
    return { ok: false, message: `${formatQuantity(read.value.si, role, { reader }).text} is out of range; enter ${show(limits.min)} to ${show(limits.max)}.` };
  }
  const shown = formatQuantity(read.value.si, role, { reader }).text;
  return { ok: true, value, ...(read.value.nominal || !isPlain(text, shown) ? { note: `${read.value.reading} = ${shown}` } : {}) };
}

/** True when the entry begins with the number that is shown for it: then there is nothing to say back. */
const isPlain = (text: string, shown: string): boolean => text.trim().replace('-', '−').startsWith(shown.split(' ')[0]!);

/** What the field takes, for a hint. */
export const acceptedFor = (role: Role, reader: ReaderSystem, entry: Pick<EntryField, 'metal' | 'line'> = {}): string =>
  acceptedText({ kind: ROLES[role].kind, unit: roleUnit(role, reader), reader, ...entry });

const measuredSpread = (role: Role, value: number, old: number | undefined): number => {
  const rule = MEASURED[role] ?? { rel: 0.02 };
  const careful = rule.abs ?? Math.abs(value) * (rule.rel ?? 0.02);
  return Number((old === undefined ? careful : Math.min(old, careful)).toPrecision(6));
};

/**
 * One quantity of the document: its value, how it is known and, unless it was
 * simply chosen, how far it may be off. Typing over an assumption makes it a
 * measurement.
 */
export const KnownField = memo(function KnownField({ label, path, role, entry, hint }: KnownFieldProps) {
  const reader = useReader();
  const known = useValue((system) => valueAt(system, path) as Known | undefined);
  if (!known) return null;
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  const edit = `${label}`;

  const put = (value: number): void => {
    if (known.origin === 'assumed') setValue(edit, path, { value, origin: 'measured', spread: measuredSpread(role, value, known.spread) });
    else setValue(edit, [...path, 'value'], value);
  };

  const enter = (text: string): EntryVerdict => {
    const read = readEntry(text, role, reader, limitsAt(openDocument(), path), entry);
    if (!read.ok) return read;
    put(read.value);
    return read.note ? { ok: true, note: read.note } : { ok: true };
  };

  const step = (steps: number): void => {
    const value = fromSI(fromDocument(known.value, role), unit);
    const size = stepSize(value);
    const next = toDocument(toSI(Math.round(value / size) * size + steps * size, unit), role);
    const { min, max } = limitsAt(openDocument(), path);
    put(Math.min(max, Math.max(min, next)));
  };

  const setOrigin = (origin: Origin): void => applyEdit(`${edit}: ${ORIGIN_WORDS[origin]}`, (current) => withValue(current, path, {
    value: known.value, origin,
    ...(origin === 'chosen' ? {} : { spread: known.spread ?? measuredSpread(role, known.value, undefined) }),
  }));

  return (
    <Box data-path={path.join('.')}>
      <TextEntry
        label={label} value={entryText(fromDocument(known.value, role), role, reader)} unit={unit.symbol} onEnter={enter} onStep={step} hint={hint}
        after={
          <>
            <OriginPicker label={label} origin={known.origin} onChange={setOrigin} />
            {known.origin === 'chosen' ? <Box width={SPREAD_WIDTH} flexShrink="0" /> : <SpreadField label={label} path={path} role={role} known={known} />}
          </>
        }
      />
    </Box>
  );
}, sameField);

/** Fields are the same when they say the same; their path is a new list at every draw. */
function sameField(a: KnownFieldProps, b: KnownFieldProps): boolean {
  return a.label === b.label && a.role === b.role && a.hint === b.hint
    && a.path.join('.') === b.path.join('.') && a.entry?.metal === b.entry?.metal && a.entry?.line === b.entry?.line;
}

const SPREAD_WIDTH = '76px';

/** A step of one in the second significant digit. */
const stepSize = (value: number): number => (value === 0 ? 1 : 10 ** (Math.floor(Math.log10(Math.abs(value))) - 1));

function OriginPicker({ label, origin, onChange }: { readonly label: string; readonly origin: Origin; readonly onChange: (origin: Origin) => void }) {
  const loud = origin === 'assumed';
  return (
    <chakra.select
      aria-label={`How is ${label} known?`} value={origin} onChange={(event) => onChange(event.target.value as Origin)}
      width="102px" flexShrink="0" px="1" fontSize="sm" borderRadius="md" borderWidth="1.5px" bg={loud ? 'warnBg' : 'sunk'} color={loud ? 'warn' : 'ink'} borderColor={loud ? 'warn' : 'rule'}
    >
      {ORIGINS.map((option) => <option key={option} value={option}>{ORIGIN_WORDS[option]}</option>)}
    </chakra.select>
  );
}

function SpreadField({ label, path, role, known }: { readonly label: string; readonly path: Path; readonly role: Role; readonly known: Known }) {
  const reader = useReader();
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  // A spread is a difference: no offset, so that 2 °C of spread are 2 K.
  const scale = role === SI_ROLES_IN_DEGREES ? 1 : unit.toSI;
  const text = known.spread === undefined ? '' : String(Number((known.spread / scale).toPrecision(3)));
  const enter = (entered: string): EntryVerdict => {
    const value = Number(entered.replace(',', '.').replace(/^±\s*/, ''));
    if (entered.trim() === '' || !Number.isFinite(value) || value < 0) return { ok: false, message: `Enter how far it may be off, in ${unit.symbol || 'the same unit'}: 0 or more.` };
    setValue(`${label}: spread`, [...path, 'spread'], Number((value * scale).toPrecision(12)));
    return { ok: true };
  };
  return (
    <Box width={SPREAD_WIDTH} flexShrink="0"><TextEntry label={`${label}, spread`} hideLabel value={text} prefix="±" quiet onEnter={enter} /></Box>
  );
}
