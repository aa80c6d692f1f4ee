'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { NumberKey } from '@/core/answers';
import { formatQuantity, type Reader, type Role } from '@/core/units';

const COLUMN_SHARES: Readonly<Record<NumberKey, string>> = {
  holds: '1.05fr',
  comes: '1.05fr',
  usable: '1.05fr',
  head: '1.05fr',
  delivers: '1.25fr',
  goes: '1.05fr',
  backPressure: '1.05fr',
  gauge: '0.95fr',
};

/** The row of numbers with the findings at its end: in one line on a phone, as wide as they need. */
export function Cells({ keys, children }: { readonly keys: readonly NumberKey[]; readonly children: ReactNode }) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={{
        base: `repeat(${keys.length + 1}, minmax(max-content, 1fr))`,
        md: 'repeat(3, minmax(0, 1fr))',
        lg: `${keys.map((key) => COLUMN_SHARES[key]).join(' ')} 0.95fr`,
      }}
      overflowX={{ base: 'auto', md: 'visible' }}
    >
      {children}
    </Box>
  );
}

export const FIGURE_SIZE = { base: 'lg', md: '2xl', lg: '4xl' } as const;

/** A number with its unit. */
function Figure({ number, symbol }: { readonly number: string; readonly symbol: string }) {
  return (
    <>
      <Box as="span" fontSize={FIGURE_SIZE} fontWeight="750" letterSpacing="-0.01em">
        {number}
      </Box>{' '}
      <Box as="span" fontSize={{ base: 'sm', lg: 'lg' }} fontWeight="600">
        {symbol}
      </Box>
    </>
  );
}

type Quantity = { readonly value: number; readonly role: Role };

/** A number as it is read, with no more digits than its spread leaves it. */
export const figureOf = ({ value, role }: Quantity, reader: Reader, spread: number | undefined) =>
  formatQuantity(value, role, { reader, ...(spread ? { spread: spread / 2 } : {}) });

type SpreadProps = {
  readonly number: Quantity;
  readonly spread: number;
  readonly reader: Reader;
  readonly isFresh: boolean;
};

/** By how much a number may be off, beside it; one of an older plan is faint. */
function SpreadOf({ number: { value, role }, spread, reader, isFresh }: SpreadProps) {
  return (
    <Box
      as="span"
      display={{ base: 'none', md: 'inline' }}
      fontSize="sm"
      color="soft"
      ml="2"
      opacity={isFresh ? 1 : 0.4}
      data-fresh={isFresh}
    >
      ± {formatQuantity(spread, role, { reader, digits: 1, unitOf: value }).text}
    </Box>
  );
}

type AmountProps = {
  readonly of: NumberKey;
  readonly number: Quantity;
  readonly spread: number | undefined;
  /** Why nobody knows how far it may be off, where that is so. */
  readonly whyNoSpread?: string | undefined;
  readonly isFresh?: boolean;
  readonly reader: Reader;
};

/** A number, and how far it may be off. */
export function Amount({ of, number, spread, whyNoSpread, isFresh = true, reader }: AmountProps) {
  return (
    <Box data-testid={`number-${of}`} whiteSpace="nowrap" lineHeight="1.05">
      <Figure {...figureOf(number, reader, spread)} />
      {whyNoSpread !== undefined ? (
        <NoSpread why={whyNoSpread} />
      ) : spread !== undefined && spread > 0 ? (
        <SpreadOf number={number} spread={spread} isFresh={isFresh} reader={reader} />
      ) : null}
    </Box>
  );
}

type NoNumberProps = { readonly of: NumberKey; readonly isOnItsWay?: boolean; readonly children: ReactNode };

/** What stands where there is no number: that it is none, or on its way. */
export function NoNumber({ of, isOnItsWay = false, children }: NoNumberProps) {
  return (
    <Box
      data-testid={`number-${of}`}
      fontSize={{ base: 'lg', md: '2xl' }}
      fontWeight="700"
      color={isOnItsWay ? 'soft' : 'stop'}
    >
      {children}
    </Box>
  );
}

export const NO_SPREAD = 'At an end of some value’s spread this number cannot be worked out; Measure next names it.';

/** Beside a number of which nobody knows how far it may be off. */
function NoSpread({ why }: { readonly why: string }) {
  return (
    <Box as="span" display={{ base: 'none', md: 'inline' }} fontSize="sm" color="warn" ml="2" title={why}>
      ± not known
    </Box>
  );
}

type Counts = { readonly stops: number; readonly warns: number; readonly notes: number };

/** How many findings there are of each kind. */
export const countWords = ({ stops, warns, notes }: Counts): string[] => [
  stops > 0 ? `${stops} stop` : '',
  warns > 0 ? `${warns} warn` : '',
  notes > 0 ? `${notes} note` : '',
];

/** The colour of a count of findings, by the gravest. */
export const gravestTone = ({ stops, warns }: Counts, hasMore: boolean): 'stop' | 'warn' | 'ink' | 'good' =>
  stops > 0 ? 'stop' : warns > 0 ? 'warn' : hasMore ? 'ink' : 'good';

type CellProps = {
  readonly open?: boolean;
  /** None while nothing can be opened yet. */
  readonly onClick?: () => void;
  readonly label: string;
  readonly children: ReactNode;
};

const CELL = {
  display: 'grid',
  alignContent: 'start',
  textAlign: 'left',
  px: { base: '1.5', md: '3', lg: '4' },
  py: { base: '1', md: '2' },
  minH: '44px',
  minW: '0',
  borderRightWidth: '1px',
  borderColor: 'rule',
} as const;

export function Cell({ open, onClick, label, children }: CellProps) {
  const inside = (
    <>
      <Box fontSize={{ base: 'xs', md: 'sm' }} color="soft" fontWeight="600" whiteSpace="nowrap">
        {label}
      </Box>
      {children}
    </>
  );
  if (!onClick) return <Box {...CELL}>{inside}</Box>;
  return (
    <chakra.button
      type="button"
      onClick={onClick}
      aria-expanded={open}
      cursor="pointer"
      bg={open ? 'sunk' : 'transparent'}
      _hover={{ bg: 'sunk' }}
      {...CELL}
    >
      {inside}
    </chakra.button>
  );
}
