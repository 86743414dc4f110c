'use client';

import type { ReactNode } from 'react';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { ThemeProvider } from '@mui/material/styles';
import { theme } from '@/ui/theme/theme';

/** Styles with this page's nonce, in the scheme the person chose or their system asks for. */
export function ThemeRegistry({
  nonce,
  children,
}: {
  readonly nonce: string;
  readonly children: ReactNode;
}) {
  return (
    <AppRouterCacheProvider options={{ nonce }}>
      <ThemeProvider theme={theme} defaultMode="system">
        {children}
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
