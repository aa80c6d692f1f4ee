import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';

type Props = {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
  /** Said instead of the label where the pointer rests. */ readonly title?: string | undefined;
  readonly disabled?: boolean;
};

/** A button with a picture for its words, beside a field. */
export function SquareButton({ label, onClick, children, title = label, disabled }: Props) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={title}
      disabled={disabled}
      onClick={onClick}
      minW="44px"
      minH="42px"
      display="grid"
      placeItems="center"
      borderWidth="1.5px"
      borderColor="rule"
      borderRadius="md"
      cursor="pointer"
      _disabled={{ opacity: 0.35, cursor: 'not-allowed' }}
    >
      {children}
    </chakra.button>
  );
}
