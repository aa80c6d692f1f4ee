import { Box } from '@chakra-ui/react';

/** Where an answer would stand: why there is none, or that it is on its way. */
export function NoAnswer({ error, waits = true }: { readonly error: { readonly detail: string } | undefined; readonly waits?: boolean }) {
  if (error) return <Box color="stop" fontWeight="600">{error.detail}</Box>;
  return <Box color="soft">{waits ? 'Being worked out…' : 'Nothing draws from it yet.'}</Box>;
}
