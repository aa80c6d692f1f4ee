'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useId } from 'react';

type Props = {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly most: number;
  readonly isLarge?: boolean;
};

/** A field of a form that is sent as a whole; what stands in a system has fields of its own. */
export function PlainField({ label, value, onChange, most, isLarge = false }: Props) {
  const id = useId();
  return (
    <Box>
      <chakra.label htmlFor={id} display="block" fontSize="sm" color="soft" mb="1">
        {label}
      </chakra.label>
      <chakra.input
        id={id}
        value={value}
        maxLength={most}
        onChange={(event) => onChange(event.currentTarget.value)}
        autoComplete="off"
        autoCapitalize={isLarge ? 'characters' : 'sentences'}
        width="100%"
        minH={isLarge ? '56px' : '44px'}
        px="3"
        bg="panel"
        borderWidth="1.5px"
        borderColor="edge"
        borderRadius="md"
        fontSize={isLarge ? '2xl' : 'md'}
        fontWeight={isLarge ? '700' : '400'}
        letterSpacing={isLarge ? '0.12em' : undefined}
      />
    </Box>
  );
}
