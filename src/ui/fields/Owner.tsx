'use client';

import { Box } from '@chakra-ui/react';
import { createContext, useContext, type ReactNode } from 'react';

const OwnerContext = createContext('');

/** Fields within are of a part that is named above them: their labels say so to be found, and not again to the eye. */
export const Owner = ({ name, children }: { readonly name: string; readonly children: ReactNode }) => (
  <OwnerContext.Provider value={name}>{children}</OwnerContext.Provider>
);

/** The words of a label, the owner's name in them for a reader of the screen alone. */
export function LabelWords({ label }: { readonly label: string }) {
  const owner = useContext(OwnerContext);
  const tail = `, ${owner}`;
  if (owner === '' || !label.endsWith(tail)) return <>{label}</>;
  return (
    <>
      {label.slice(0, -tail.length)}
      <Box as="span" srOnly>
        {tail}
      </Box>
    </>
  );
}
