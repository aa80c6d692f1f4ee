'use client';

import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import { useServerInsertedHTML } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { system } from './system';

/** Collects the styles of a server render and puts them into the page before it is read. */
function useEmotionRegistry(nonce: string | undefined) {
  const [registry] = useState(() => {
    const cache = createCache({ key: 'gl', ...(nonce ? { nonce } : {}) });
    cache.compat = true;
    const insert = cache.insert.bind(cache);
    let inserted: string[] = [];
    cache.insert = (...args) => {
      const serialized = args[1];
      if (cache.inserted[serialized.name] === undefined) inserted.push(serialized.name);
      return insert(...args);
    };
    const flush = (): string[] => {
      const names = inserted;
      inserted = [];
      return names;
    };
    return { cache, flush };
  });
  useServerInsertedHTML(() => {
    const names = registry.flush();
    if (names.length === 0) return null;
    const styles = names
      .map((name) => registry.cache.inserted[name])
      .filter((style) => typeof style === 'string')
      .join('');
    return <style nonce={nonce} data-emotion={`gl ${names.join(' ')}`} dangerouslySetInnerHTML={{ __html: styles }} />;
  });
  return registry.cache;
}

export function Providers({ nonce, children }: { readonly nonce?: string; readonly children: ReactNode }) {
  const cache = useEmotionRegistry(nonce);
  return (
    <CacheProvider value={cache}>
      <ChakraProvider value={system}>
        <ThemeProvider attribute="class" defaultTheme="system" disableTransitionOnChange nonce={nonce}>
          {children}
        </ThemeProvider>
      </ChakraProvider>
    </CacheProvider>
  );
}
