import { Box, Heading } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A titled piece of a stage. */
export function Panel({
  title,
  children,
  aside,
  testId,
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly aside?: ReactNode;
  readonly testId?: string;
}) {
  return (
    <Box
      as="section"
      bg="panel"
      borderWidth="1px"
      borderColor="rule"
      borderRadius="lg"
      p={{ base: '3', md: '4' }}
      data-testid={testId}
      // What is not on screen is neither laid out nor painted while values move; its last height is kept.
      css={{
        contentVisibility: 'auto',
        containIntrinsicSize: 'auto 420px',
        '@media print': { contentVisibility: 'visible' },
      }}
    >
      <Box display="flex" justifyContent="space-between" alignItems="baseline" gap="3" mb="3">
        <Heading as="h2" fontSize="lg" fontWeight="700">
          {title}
        </Heading>
        {aside}
      </Box>
      {children}
    </Box>
  );
}

/** Fields side by side, as many as fit. */
export function FieldGrid({ children, min = '330px' }: { readonly children: ReactNode; readonly min?: string }) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={`repeat(auto-fill, minmax(min(100%, ${min}), 1fr))`}
      gap="3"
      alignItems="start"
    >
      {children}
    </Box>
  );
}
