'use client';

import type { SayReader } from '@/words/reader/reader-words';
import type { Find } from '@/ui/pages/use-find';
import { useWords } from '@/ui/words/use-words';

/** How a search stands: `12 places; looked through up to page 80`. */
export function findWords(
  say: SayReader,
  { words, places, searchingFrom, problem }: Find,
  pages: number,
): string {
  if (problem !== null) return problem;
  if (words.trim() === '') return '';
  if (words.trim().length < 2) return say('pages.twoLetters');
  const found =
    places.length === 0 ? say('pages.nothing') : say('pages.places', { count: places.length });
  return searchingFrom === null
    ? found
    : say('pages.soFar', {
        found,
        page: String(searchingFrom),
        pages: String(pages),
      });
}

/** The pages on which words were found. */
export function FoundList({ find, pages }: { readonly find: Find; readonly pages: number }) {
  const { say } = useWords();
  const first = (page: number) => find.places.findIndex((place) => place.page === page);
  const current = find.at === null ? null : find.places[find.at]?.page;
  return (
    <div className="stack">
      <p className="quiet small">
        {find.words.trim() === '' ? say('pages.whole') : findWords(say, find, pages)}
      </p>
      <ul className="outline">
        {find.found.map(({ page, places }) => (
          <li key={page}>
            <button
              type="button"
              aria-current={page === current ? 'true' : undefined}
              onClick={() => {
                find.goTo(first(page));
              }}
            >
              <span>{say('pages.page', { page: String(page) })}</span>{' '}
              <span className="quiet">{say('pages.places', { count: places.length })}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
