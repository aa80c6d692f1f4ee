import { Box } from '@chakra-ui/react';
import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';

/** Stands at the step that can hurt: short, concrete, and never a substitute for the rules in force. */
export function Caution({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      role="note"
      display="flex"
      gap="2"
      bg="warnBg"
      color="ink"
      borderLeftWidth="5px"
      borderColor="warn"
      borderRadius="md"
      px="3"
      py="2"
      fontSize="sm"
    >
      <Box color="warn" flexShrink="0" pt="1px">
        <TriangleAlert size={18} aria-hidden />
      </Box>
      <Box>
        <b>Caution. </b>
        {children}
      </Box>
    </Box>
  );
}
