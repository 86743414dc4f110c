'use client';

import { counted } from '@/core/base/counted';
import type { Find } from '@/ui/pages/use-find';

/** How a search stands: `12 places; looked through up to page 80`. */
export function findWords({ words, places, searchingFrom, problem }: Find, pages: number): string {
  if (problem !== null) return problem;
  if (words.trim() === '') return '';
  if (words.trim().length < 2) return 'Two letters at least.';
  const found = places.length === 0 ? 'Nothing found' : counted(places.length, 'place');
  return searchingFrom === null
    ? found
    : `${found} so far; page ${String(searchingFrom)} of ${String(pages)}`;
}

/** The pages on which words were found. */
export function FoundList({ find, pages }: { readonly find: Find; readonly pages: number }) {
  const first = (page: number) => find.places.findIndex((place) => place.page === page);
  const current = find.at === null ? null : find.places[find.at]?.page;
  return (
    <div className="stack">
      <p className="quiet small">
        {find.words.trim() === ''
          ? 'Whole words are found, and shown on the page.'
          : findWords(find, pages)}
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
              <span>Page {page}</span>{' '}
              <span className="quiet">{counted(places.length, 'place')}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
