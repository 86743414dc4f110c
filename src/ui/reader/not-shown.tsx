'use client';

import type { OpenResult } from '@/contracts/reader';
import { useWords } from '@/ui/words/use-words';

type Opened = OpenResult & { readonly outcome: 'granted' };

/** In the place of pages, where a file has none. */
export function NotShown({ rights, sender }: Opened) {
  const { say } = useWords();
  return (
    <main className="pages not-shown">
      <div className="notice stack">
        <b>{say('reading.notShown')}</b>
        <p>
          {rights.keep.granted
            ? say('reading.notShownKeep')
            : say('reading.notShownAsk', { sender: sender.name })}
        </p>
      </div>
    </main>
  );
}
