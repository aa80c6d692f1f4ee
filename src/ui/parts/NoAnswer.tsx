'use client';

import { Box } from '@chakra-ui/react';
import { useDetails } from '../state/results';
import { NotWorkedOut } from './NotWorkedOut';

/** Where an answer of the evaluation would stand: why there is none, or that it is on its way. */
export function NoAnswer({ error }: { readonly error: { readonly detail: string } | undefined }) {
  const { results, failed } = useDetails();
  if (failed !== undefined) return <NotWorkedOut why={failed} />;
  if (!results) return <Box color="soft">Being worked out…</Box>;
  const why = results.ok ? error : results.error;
  return (
    <Box color={why ? 'stop' : 'soft'} fontWeight={why ? '600' : undefined}>
      {why?.detail ?? 'Nothing draws from it yet.'}
    </Box>
  );
}
