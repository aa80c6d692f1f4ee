import { chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';

type Props = {
  readonly children: ReactNode;
  readonly onClick?: () => void;
  readonly kind?: 'main' | 'plain' | 'danger';
  readonly disabled?: boolean;
  readonly title?: string;
  /** What it is called where its words alone would not tell. */ readonly label?: string;
  readonly type?: 'button' | 'submit';
  readonly testId?: string;
  /** Of several of which one is in. */ readonly isPressed?: boolean;
};

/** The one button: large enough for a thumb in a glove. */
export function Button({
  children,
  onClick,
  kind = 'plain',
  disabled,
  title,
  label,
  type = 'button',
  testId,
  isPressed,
}: Props) {
  const look =
    kind === 'main'
      ? { bg: 'accent', color: 'onAccent', borderColor: 'accent' }
      : kind === 'danger'
        ? { bg: 'panel', color: 'stop', borderColor: 'stop' }
        : { bg: 'panel', color: 'ink', borderColor: 'edge' };
  return (
    <chakra.button
      type={type}
      onClick={onClick}
      disabled={disabled}
      title={title}
      aria-label={label}
      aria-pressed={isPressed}
      data-testid={testId}
      {...look}
      display="inline-flex"
      alignItems="center"
      gap="2"
      minH="44px"
      px="4"
      borderWidth="1.5px"
      borderRadius="md"
      fontWeight="650"
      cursor="pointer"
      _hover={{ filter: 'brightness(0.95)' }}
      _disabled={{ opacity: 0.45, cursor: 'not-allowed' }}
    >
      {children}
    </chakra.button>
  );
}
