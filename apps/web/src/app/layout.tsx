import '@fontsource-variable/figtree';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { AppTheme } from '@/ui/AppTheme';
import { words } from '@/words';

export const metadata: Metadata = { title: words.app.nuvet, description: words.app.fromAPictureToATrue };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en">
      <body>
        <AppRouterCacheProvider options={{ nonce }}>
          <AppTheme>{children}</AppTheme>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
