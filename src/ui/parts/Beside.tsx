import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A picture that stays in sight, and beside it what one sets; one under the other where there is no room. */
export function Beside({
  picture,
  children,
  share = '3fr 2fr',
}: {
  readonly picture: ReactNode;
  readonly children: ReactNode;
  /** How the width is shared. */ readonly share?: '3fr 2fr' | '1fr 2fr' | '1fr 1fr';
}) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: share.replace(/(\dfr)/g, 'minmax(0, $1)') }}
      gap="4"
      alignItems="start"
    >
      <Box
        position={{ base: 'static', lg: 'sticky' }}
        top="200px"
        minW="0"
        display="grid"
        gridTemplateColumns="minmax(0, 1fr)"
        gap="4"
      >
        {picture}
      </Box>
      <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4" minW="0">
        {children}
      </Box>
    </Box>
  );
}
