'use client';

import { chakra } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import type { Path } from '@/core/plan';
import { Owner } from '../fields/Owner';
import { addedTo } from './added';

/** Which entry of a list is open: the only one, the one that was added last, or the one that was pressed. */
export function useUnfolded(ids: readonly string[]) {
  const [open, setOpen] = useState(ids.length === 1 ? ids[0] : undefined);
  const [before, setBefore] = useState(ids);
  if (ids.join() !== before.join()) {
    setBefore(ids);
    const added = addedTo(before, ids);
    if (added !== undefined) setOpen(added);
  }
  return {
    isOpen: (id: string): boolean => id === open,
    toggled: (id: string, isOpen: boolean): void =>
      setOpen((current) => (isOpen ? id : current === id ? undefined : current)),
  };
}

type Props = {
  readonly path: Path;
  readonly name: string;
  /** What it is, in the words of its line. */ readonly note?: ReactNode;
  readonly isOpen: boolean;
  readonly onToggle: (isOpen: boolean) => void;
  readonly children: ReactNode;
};

/** One entry of a list in a line that opens: its name and what it is, then its fields. */
export function EntryFold({ path, name, note, isOpen, onToggle, children }: Props) {
  return (
    <chakra.details
      open={isOpen}
      onToggle={(event) => onToggle(event.currentTarget.open)}
      borderTopWidth="1px"
      borderColor="rule"
      data-path={path.join('.')}
    >
      <chakra.summary minH="42px" py="2" cursor="pointer">
        <b>{name}</b> <chakra.span color="soft">{note}</chakra.span>
      </chakra.summary>
      <chakra.div pb="3">
        <Owner name={name}>{children}</Owner>
      </chakra.div>
    </chakra.details>
  );
}
