import { Box } from '@chakra-ui/react';

/** Where an answer would stand that could not be had. */
export const NotWorkedOut = ({ why }: { readonly why: string }) => (
  <Box color="stop" fontWeight="600">
    Not worked out: {why}
  </Box>
);
