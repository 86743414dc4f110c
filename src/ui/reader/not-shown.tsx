'use client';

import type { OpenResult } from '@/contracts/reader';
import { NOT_SHOWN } from '@/ui/words/pages-words';

type Opened = OpenResult & { readonly outcome: 'granted' };

/** In the place of pages, where a file has none. */
export function NotShown({ rights, sender }: Opened) {
  return (
    <main className="pages not-shown">
      <div className="notice stack">
        <b>{NOT_SHOWN}</b>
        <p>
          {rights.keep.granted
            ? 'Keep a copy, and open it with the program it was made for.'
            : `${sender.name} did not give it to be kept. Ask for that here, or write to them.`}
        </p>
      </div>
    </main>
  );
}
