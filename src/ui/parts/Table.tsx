'use client';

import { Box, chakra } from '@chakra-ui/react';
import { formatQuantity, type Role } from '@/core/units';
import { cardTable } from './cardTable';
import { useReader } from '../state/reader';

export type Cell = { readonly text: string; readonly tone?: 'stop' | 'warn' | 'good' };

/** Cases one under the other, what each comes to beside it; cards on a phone. */
export function Table({
  label,
  heads,
  rows,
}: {
  readonly label: string;
  readonly heads: readonly string[];
  readonly rows: readonly { readonly head: string; readonly cells: readonly Cell[] }[];
}) {
  return (
    <Box overflowX="auto">
      <chakra.table borderCollapse="collapse" aria-label={label} minW="100%" css={cardTable(heads)}>
        <thead>
          <tr>
            {heads.map((text, i) => (
              <chakra.th key={i} px="2" textAlign={i === 0 ? 'left' : 'right'} color="soft" fontWeight="600">
                {text}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ head, cells }) => (
            <chakra.tr key={head} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="1">
                {head}
              </chakra.td>
              {cells.map(({ text, tone }, i) => (
                <chakra.td
                  key={i}
                  px="2"
                  textAlign="right"
                  whiteSpace="nowrap"
                  fontWeight={tone ? 700 : undefined}
                  color={tone}
                >
                  {text}
                </chakra.td>
              ))}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

export type Write = (value: number, role: Role) => string;

/** A quantity in the reader's words. */
export function useWrite(): Write {
  const reader = useReader();
  return (value, role) => formatQuantity(value, role, { reader }).text;
}
