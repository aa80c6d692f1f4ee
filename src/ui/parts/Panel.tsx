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

/**
 * Fields side by side, as many as fit; labels, values and hints each in a line of the grid, so that values stand in
 * one row whatever wraps over them.
 */
export function FieldGrid({ children, min = '176px' }: { readonly children: ReactNode; readonly min?: string }) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={`repeat(auto-fill, minmax(min(100%, ${min}), 1fr))`}
      columnGap="3"
      rowGap="2"
      css={{ '& > *': { gridRow: 'span 3' } }}
    >
      {children}
    </Box>
  );
}

/** A field within them: its label at the foot of the first line, its value in the second, what is said of it below. */
export const FIELD_ROWS = {
  display: 'grid',
  gridTemplateRows: 'subgrid',
  gridTemplateColumns: 'minmax(0, 1fr)',
  gridRow: 'span 3',
  rowGap: '2px',
  alignItems: 'start',
} as const;
