'use client';

import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';

type Props = {
  readonly children: ReactNode;
  readonly kind: 'stop' | 'warn';
  readonly testId: string;
  readonly role?: 'alert' | 'alertdialog';
  readonly label?: string;
};

/** What wants an answer before the work goes on: it stays in sight wherever the page is scrolled to. */
export function Asks({ children, kind, testId, role = 'alert', label }: Props) {
  return (
    <Box
      role={role}
      aria-label={label}
      data-testid={testId}
      bg={`${kind}Bg`}
      borderLeftWidth="6px"
      borderColor={kind}
      borderRadius="md"
      px="4"
      py="3"
      mb="4"
      position="sticky"
      top={{ base: '112px', lg: '176px' }}
      zIndex="5"
      maxH="60vh"
      overflowY="auto"
    >
      {children}
    </Box>
  );
}
