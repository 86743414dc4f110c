'use client';

import { LanguageChoice } from '@/ui/reader/language-choice';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { useWords } from '@/ui/words/use-words';

/** Where an address of the reader leads nowhere. */
export function NothingHere() {
  const { say } = useWords();
  return (
    <main className="entry">
      <ReaderBrand />
      <h1>{say('nothing.heading')}</h1>
      <p className="quiet">{say('nothing.cutOff')}</p>
      <LanguageChoice />
    </main>
  );
}
