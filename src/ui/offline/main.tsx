// The reader without a connection, as a page of its own: no server draws it.
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ThemeProvider } from '@mui/material/styles';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/spline-sans-mono';
import '@/ui/theme/tokens.css';
import '@/ui/theme/grid.css';
import '@/ui/theme/reader.css';
import '@/ui/theme/watermark.css';
import { DEFAULT_LANGUAGE, firstLanguage } from '@/core/base/languages';
import { OfflineView } from '@/ui/offline/offline-view';
import { theme } from '@/ui/theme/theme';
import { SpokenLanguage } from '@/ui/words/spoken-language';
import { readerCatalogues } from '@/words/reader/reader-catalogues';

const language = firstLanguage(navigator.languages) ?? DEFAULT_LANGUAGE;
const place = document.getElementById('reader');
if (place !== null)
  createRoot(place).render(
    <StrictMode>
      <ThemeProvider theme={theme} defaultMode="system">
        <SpokenLanguage language={language} messages={readerCatalogues[language]}>
          <OfflineView />
        </SpokenLanguage>
      </ThemeProvider>
    </StrictMode>,
  );
