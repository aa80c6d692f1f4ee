'use client';

import { Box } from '@chakra-ui/react';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { withoutEntry, type Path } from '@/core/plan';
import { readName } from '../fields/readName';
import { TextEntry } from '../fields/TextEntry';
import { applyEdit, setValue } from '../state/editor';
import { SquareButton } from './SquareButton';

type Props = {
  readonly name: string;
  /** Of the list that holds the entry, and which one it is. */
  readonly list: Path;
  readonly index: number;
  /** Why it cannot be removed. */
  readonly heldBy?: string | undefined;
  readonly children?: ReactNode;
};

/** The head of one entry of a list: its name, what it is, and its removal. */
export function EntryHead({ name, list, index, heldBy, children }: Props) {
  return (
    <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
      <Box flex="1 1 200px">
        <TextEntry
          label="Name"
          value={name}
          onEnter={(text) => readName(text, (entered) => setValue(`rename ${name}`, [...list, index, 'name'], entered))}
        />
      </Box>
      {children}
      <SquareButton
        label={`Remove ${name}`}
        title={heldBy}
        disabled={heldBy !== undefined}
        onClick={() => applyEdit(`remove ${name}`, (system) => withoutEntry(system, list, index))}
      >
        <Trash2 size={18} aria-hidden />
      </SquareButton>
    </Box>
  );
}
