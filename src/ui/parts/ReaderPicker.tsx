'use client';

import { Box, chakra } from '@chakra-ui/react';
import { SlidersHorizontal } from 'lucide-react';
import { useId, useState, type ToggleEvent } from 'react';
import {
  apartOf,
  systemOf,
  UNIT_GROUPS,
  UNIT_GROUP_KEYS,
  type Reader,
  type ReaderSystem,
  type UnitGroup,
} from '@/core/units';
import { Select } from '../fields/Select';
import { useReaderStore } from '../state/reader';

const SYSTEMS: readonly { value: ReaderSystem; label: string }[] = [
  { value: 'metric', label: 'mm, litres' },
  { value: 'us', label: 'inch, US gal' },
  { value: 'imperial', label: 'inch, imp gal' },
];

/** A reader's units in words, for the foot of a sheet. */
export function readerLabel(reader: Reader): string {
  const apart = Object.entries(apartOf(reader)) as [UnitGroup, string][];
  const words = apart.map(([group, id]) => UNIT_GROUPS[group].choices[id]!.label);
  return [SYSTEMS.find(({ value }) => value === systemOf(reader))!.label, ...words].join('; ');
}

/** The reader's system of units, and a list that opens to set each kind of quantity apart. */
export function ReaderPicker() {
  const { reader, setSystem } = useReaderStore();
  const id = useId();
  const [isOpen, setOpen] = useState(false);
  const count = Object.keys(apartOf(reader)).length;
  const label = count === 0 ? 'Set each unit apart' : `Set each unit apart: ${count} set`;
  return (
    <Box display="flex" alignItems="center">
      <Select
        label="Units"
        hideLabel
        width="136px"
        value={systemOf(reader)}
        options={SYSTEMS}
        onChange={(system) => setSystem(system)}
      />
      <chakra.button
        type="button"
        popoverTarget={id}
        aria-label={label}
        title={label}
        minW={{ base: '40px', md: '44px' }}
        minH="44px"
        display="inline-flex"
        alignItems="center"
        justifyContent="center"
        gap="1"
        borderRadius="md"
        cursor="pointer"
        color={count > 0 ? 'accent' : undefined}
        _hover={{ bg: 'sunk' }}
      >
        <SlidersHorizontal size={20} aria-hidden />
        {count > 0 && <b>{count}</b>}
      </chakra.button>
      <chakra.div
        id={id}
        popover="auto"
        role="group"
        aria-label="The unit of each kind of quantity"
        data-testid="units-apart"
        onToggle={(event: ToggleEvent<HTMLDivElement>) => setOpen(event.newState === 'open')}
        position="fixed"
        inset="56px 12px auto auto"
        m="0"
        w="min(420px, calc(100vw - 24px))"
        maxH="calc(100dvh - 72px)"
        overflowY="auto"
        bg="panel"
        color="ink"
        borderWidth="1px"
        borderColor="edge"
        borderRadius="lg"
        boxShadow="lg"
        p="3"
      >
        {isOpen && <UnitsApart />}
      </chakra.div>
    </Box>
  );
}

/** A choice for each kind of quantity; the first is what comes with the system. */
function UnitsApart() {
  const { reader, setApart, setAllAsTheRest } = useReaderStore();
  const apart = apartOf(reader);
  return (
    <>
      <Box display="grid" gridTemplateColumns="minmax(0, 1fr) minmax(0, 1fr)" gap="2" alignItems="center">
        {UNIT_GROUP_KEYS.map((group) => (
          <UnitChoice
            key={group}
            label={UNIT_GROUPS[group].label}
            value={apart[group] ?? ''}
            options={[
              { value: '', label: 'as the rest' },
              ...Object.entries(UNIT_GROUPS[group].choices).map(([value, { label }]) => ({ value, label })),
            ]}
            onChange={(id) => setApart(group, id === '' ? undefined : id)}
          />
        ))}
      </Box>
      <Box mt="3" fontSize="sm" color="soft">
        Nominal sizes, such as 3/8 NPT, -6 or a 16 mm spanner, are never converted. Whatever is typed with its unit is
        understood in any case.
      </Box>
      <chakra.button
        type="button"
        mt="2"
        minH="44px"
        color="accent"
        textDecoration="underline"
        cursor="pointer"
        onClick={setAllAsTheRest}
      >
        All as the rest again
      </chakra.button>
    </>
  );
}

type ChoiceProps = {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (id: string) => void;
};

function UnitChoice({ label, ...rest }: ChoiceProps) {
  return (
    <>
      <span aria-hidden>{label}</span>
      <Select label={label} hideLabel {...rest} />
    </>
  );
}
