import type { ReactNode } from 'react';
import { languageHere } from '@/server/http/reader-language';
import { PickedFileProvider } from '@/ui/reader/picked-file';
import { SpokenLanguage } from '@/ui/words/spoken-language';
import { readerCatalogues } from '@/words/reader/reader-catalogues';

/** Everything a recipient sees, in their language. */
export default async function ReaderLayout({ children }: { readonly children: ReactNode }) {
  const language = await languageHere();
  return (
    <SpokenLanguage language={language} messages={readerCatalogues[language]}>
      <PickedFileProvider>{children}</PickedFileProvider>
    </SpokenLanguage>
  );
}
