import '@fontsource-variable/atkinson-hyperlegible-next/index.css';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/theme/Providers';

export const metadata: Metadata = {
  title: 'Gas Line',
  description: 'Plan the fuel side of a vehicle or boat around a custom tank.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Providers {...(nonce ? { nonce } : {})}>{children}</Providers>
      </body>
    </html>
  );
}
