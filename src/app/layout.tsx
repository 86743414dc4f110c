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
import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import { languageHere } from '@/server/http/reader-language';
import { Awake } from '@/ui/shell/awake';
import { ThemeRegistry } from '@/ui/theme/theme-registry';

export const metadata: Metadata = { title: 'Embargo', robots: 'noindex, nofollow' };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const given = await headers();
  const nonce = given.get('x-nonce') ?? '';
  const language = given.get('x-recipient') === 'yes' ? await languageHere() : DEFAULT_LANGUAGE;
  return (
    <html lang={language} suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute='[data-scheme="%s"]' defaultMode="system" nonce={nonce} />
        <ThemeRegistry nonce={nonce}>{children}</ThemeRegistry>
        <Awake />
      </body>
    </html>
  );
}
