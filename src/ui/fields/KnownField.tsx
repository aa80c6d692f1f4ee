'use client';

import { capital } from '@/core/formats';
import { Box, chakra } from '@chakra-ui/react';
import { memo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { limitsAt, ORIGINS, valueAt, withValue, wordsAt, type Known, type Origin, type Path } from '@/core/plan';
import {
  entryText,
  fromSI,
  roleUnit,
  ROLES,
  toSI,
  unitById,
  type EntryField,
  type Reader,
  type Role,
} from '@/core/units';
import { FIELD_ROWS } from '../parts/Panel';
import { applyEdit, openDocument, setValue, setValueNumbersFirst, useValueNow } from '../state/editor';
import { useReader } from '../state/reader';
import { fromDocument, inDegrees, measuredSpread, readEntry, toDocument } from './readEntry';
import { TextEntry, type EntryVerdict } from './TextEntry';

export const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  measured: 'measured',
  chosen: 'chosen',
  part: 'from part',
  assumed: 'assumed',
};

export type KnownFieldProps = {
  readonly path: Path;
  /** As the plan has it where left out. */ readonly label?: string;
  readonly hint?: string;
  readonly entry?: Pick<EntryField, 'metal' | 'line'>;
};

/**
 * One quantity of the document: its value, and in a tag that opens how it is known and, unless it was simply chosen,
 * how far it may be off. Typing over an assumption makes it a measurement.
 */
export const KnownField = memo(function KnownField({ path, entry, ...own }: KnownFieldProps) {
  const reader = useReader();
  const [isOpen, setOpen] = useState(false);
  const known = useValueNow((system) => valueAt(system, path) as Known | undefined);
  const words = useValueNow(useShallow((system) => (valueAt(system, path) ? wordsAt(system, path) : undefined)));
  if (!known || !words) return null;
  const { role } = words;
  const label = own.label ?? capital(words.label);
  const hint = own.hint ?? words.hint;
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  const edit = `${label}`;

  const put = (value: number): void => {
    if (known.origin === 'assumed')
      setValueNumbersFirst(edit, path, {
        value,
        origin: 'measured',
        spread: measuredSpread(role, value, known.spread),
      });
    else setValueNumbersFirst(edit, [...path, 'value'], value);
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

  const setOrigin = (origin: Origin): void =>
    applyEdit(`${edit}: ${ORIGIN_WORDS[origin]}`, (current) =>
      withValue(current, path, {
        value: known.value,
        origin,
        ...(origin === 'chosen' ? {} : { spread: known.spread ?? measuredSpread(role, known.value, undefined) }),
      }),
    );

  return (
    <Box data-path={path.join('.')} minW="0" {...FIELD_ROWS}>
      <TextEntry
        label={label}
        value={entryText(
          fromDocument(known.value, role),
          role,
          reader,
          known.spread ? fromDocument(known.spread, role) : undefined,
        )}
        unit={unit.symbol}
        onEnter={enter}
        onStep={step}
        hint={hint}
        tag={<HowKnown label={label} known={known} role={role} isOpen={isOpen} onToggle={() => setOpen(!isOpen)} />}
        below={
          isOpen && (
            <Box display="flex" gap="1" mt="1" data-testid="how-known">
              <OriginPicker label={label} origin={known.origin} onChange={setOrigin} />
              {known.origin !== 'chosen' && (
                <SpreadField label={label} path={[...path, 'spread']} role={role} known={known} />
              )}
            </Box>
          )
        }
      />
    </Box>
  );
}, sameField);

/** Fields are the same when they say the same; their path is a new list at every draw. */
function sameField(a: KnownFieldProps, b: KnownFieldProps): boolean {
  return (
    a.label === b.label &&
    a.hint === b.hint &&
    a.path.join('.') === b.path.join('.') &&
    a.entry?.metal === b.entry?.metal &&
    a.entry?.line === b.entry?.line
  );
}

/** A step of one in the second significant digit. */
const stepSize = (value: number): number => (value === 0 ? 1 : 10 ** (Math.floor(Math.log10(Math.abs(value))) - 1));

/** A spread in the unit of its value, without an offset: 2 °C of spread are 2 K. */
function spreadText(spread: number, role: Role, reader: Reader): string {
  const scale = inDegrees(role) ? 1 : unitById(ROLES[role].kind, roleUnit(role, reader)).toSI;
  return String(Number((spread / scale).toPrecision(3)));
}

/** Where a value comes from and how far it may be off, in a word; pressed, both can be set. */
export function HowKnown({
  label,
  known,
  role,
  isOpen,
  onToggle,
}: {
  readonly label: string;
  readonly known: Known;
  readonly role: Role;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
}) {
  const reader = useReader();
  const loud = known.origin === 'assumed';
  const spread =
    known.origin === 'chosen' || known.spread === undefined ? '' : ` ±${spreadText(known.spread, role, reader)}`;
  return (
    <chakra.button
      type="button"
      onClick={onToggle}
      aria-expanded={isOpen}
      aria-label={`${label} is ${ORIGIN_WORDS[known.origin]}${spread}: change how it is known`}
      fontSize="xs"
      fontWeight={loud ? '700' : '500'}
      color={loud ? 'warn' : 'soft'}
      bg={loud ? 'warnBg' : 'transparent'}
      borderRadius="sm"
      px="1"
      minH="24px"
      whiteSpace="nowrap"
      cursor="pointer"
      textDecoration="underline dotted"
      textUnderlineOffset="3px"
      flexShrink="0"
      position="relative"
      // A word small to the eye and large under a thumb.
      _after={{ content: '""', position: 'absolute', inset: '-14px -6px -4px -6px' }}
    >
      {ORIGIN_WORDS[known.origin]}
      {spread}
    </chakra.button>
  );
}

/** How a value is known, to be chosen. */
export function OriginPicker({
  label,
  origin,
  onChange,
}: {
  readonly label: string;
  readonly origin: Origin;
  readonly onChange: (origin: Origin) => void;
}) {
  const loud = origin === 'assumed';
  return (
    <chakra.select
      aria-label={`How is ${label} known?`}
      value={origin}
      onChange={(event) => onChange(event.target.value as Origin)}
      flex="1 1 90px"
      minW="0"
      minH="42px"
      px="1"
      fontSize="sm"
      borderRadius="md"
      borderWidth="1.5px"
      bg={loud ? 'warnBg' : 'sunk'}
      color={loud ? 'warn' : 'ink'}
      borderColor={loud ? 'warn' : 'rule'}
    >
      {ORIGINS.map((option) => (
        <option key={option} value={option}>
          {ORIGIN_WORDS[option]}
        </option>
      ))}
    </chakra.select>
  );
}

/** How far a value may be off; `path` is where the plan has it. */
export function SpreadField({
  label,
  path,
  role,
  known,
}: {
  readonly label: string;
  readonly path: Path;
  readonly role: Role;
  readonly known: Known;
}) {
  const reader = useReader();
  const unit = unitById(ROLES[role].kind, roleUnit(role, reader));
  const scale = inDegrees(role) ? 1 : unit.toSI;
  const text = known.spread === undefined ? '' : spreadText(known.spread, role, reader);
  const enter = (entered: string): EntryVerdict => {
    const value = Number(entered.replace(',', '.').replace(/^±\s*/, ''));
    if (entered.trim() === '' || !Number.isFinite(value) || value < 0)
      return { ok: false, message: `Enter how far it may be off, in ${unit.symbol || 'the same unit'}: 0 or more.` };
    const spread = Number((value * scale).toPrecision(12));
    const { max } = limitsAt(openDocument(), path);
    if (spread > max)
      return {
        ok: false,
        message: `No more than ±${spreadText(max, role, reader)} ${unit.symbol}: else it is not known.`,
      };
    setValue(`${label}: spread`, path, spread);
    return { ok: true };
  };
  return (
    <Box flex="1 1 76px" minW="0">
      <TextEntry label={`${label}, spread`} hideLabel value={text} prefix="±" quiet onEnter={enter} />
    </Box>
  );
}
