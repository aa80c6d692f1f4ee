'use client';

import { chakra } from '@chakra-ui/react';
import { Moon, Sun } from 'lucide-react';
import { useTheme } from 'next-themes';
import { useMounted } from './useMounted';

export function ThemeSwitch() {
  const { resolvedTheme, setTheme } = useTheme();
  const mounted = useMounted();
  const dark = mounted && resolvedTheme === 'dark';
  return (
    <chakra.button
      type="button"
      aria-label={dark ? 'Light colours' : 'Dark colours'}
      title={dark ? 'Light colours' : 'Dark colours'}
      onClick={() => setTheme(dark ? 'light' : 'dark')}
      minW="44px"
      minH="44px"
      display="grid"
      placeItems="center"
      borderRadius="md"
      cursor="pointer"
      _hover={{ bg: 'sunk' }}
    >
      {dark ? <Sun size={20} aria-hidden /> : <Moon size={20} aria-hidden />}
    </chakra.button>
  );
}
