'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { withoutEntry, type Path } from '@/core/document';
import { TextEntry } from '../fields/TextEntry';
import { applyEdit, setValue } from '../state/editor';

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
  const rename = (text: string) => {
    const trimmed = text.trim();
    if (trimmed.length < 1 || trimmed.length > 80) return { ok: false as const, message: 'A name has 1 to 80 characters.' };
    setValue(`rename ${name}`, [...list, index, 'name'], trimmed);
    return { ok: true as const };
  };
  return (
    <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
      <Box flex="1 1 200px"><TextEntry label="Name" value={name} onEnter={rename} /></Box>
      {children}
      <chakra.button
        type="button" aria-label={`Remove ${name}`} title={heldBy ?? `Remove ${name}`} disabled={heldBy !== undefined} onClick={() => applyEdit(`remove ${name}`, (system) => withoutEntry(system, list, index))}
        minW="44px" minH="42px" display="grid" placeItems="center" borderWidth="1.5px" borderColor="rule" borderRadius="md" cursor="pointer" _disabled={{ opacity: 0.35, cursor: 'not-allowed' }}
      >
        <Trash2 size={18} aria-hidden />
      </chakra.button>
    </Box>
  );
}
