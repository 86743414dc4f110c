import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/spline-sans-mono';
import '@/ui/theme/tokens.css';
import '@/ui/theme/grid.css';
import '@/ui/theme/reader.css';
import '@/ui/theme/watermark.css';
import { Awake } from '@/ui/shell/awake';
import { ThemeRegistry } from '@/ui/theme/theme-registry';

export const metadata: Metadata = { title: 'Embargo', robots: 'noindex, nofollow' };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute='[data-scheme="%s"]' defaultMode="system" nonce={nonce} />
        <ThemeRegistry nonce={nonce}>{children}</ThemeRegistry>
        <Awake />
      </body>
    </html>
  );
}
