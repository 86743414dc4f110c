/** How long one page was in view in one open, in ms. */
export type PageShown = { readonly page: number; readonly shownFor: number };

/** A page counts as read from so long in view on, in ms: less is a glimpse while passing. */
export const READ_AFTER = 2_000;

/** Pages in a row, both ends included. */
export type PageRange = { readonly from: number; readonly to: number };

/** How long each page was in view over several opens; what was in view for less than a glimpse is left out. */
export function timesByPage(opens: readonly (readonly PageShown[])[]): ReadonlyMap<number, number> {
  const times = new Map<number, number>();
  for (const { page, shownFor } of opens.flat()) times.set(page, (times.get(page) ?? 0) + shownFor);
  return times;
}

/** The pages that were read, as ranges in order. */
export function readRanges(times: ReadonlyMap<number, number>): PageRange[] {
  const pages = Array.from(times)
    .filter(([, shownFor]) => shownFor >= READ_AFTER)
    .map(([page]) => page)
    .sort((a, b) => a - b);
  const ranges: { from: number; to: number }[] = [];
  for (const page of pages) {
    const last = ranges.at(-1);
    if (last?.to === page - 1) last.to = page;
    else ranges.push({ from: page, to: page });
  }
  return ranges;
}

/** Ranges named one by one; more of them are counted. */
const MOST_NAMED = 4;

function rangeWords({ from, to }: PageRange): string {
  return from === to ? String(from) : `${String(from)} to ${String(to)}`;
}

/** What was read of a document of so many pages: `read all`, `read pages 1 to 3`, `opened, nothing seen`. */
export function coverageWords(times: ReadonlyMap<number, number>, pages: number): string {
  const ranges = readRanges(times);
  const read = ranges.reduce((sum, { from, to }) => sum + to - from + 1, 0);
  if (read === 0) return 'opened, nothing seen';
  if (read >= pages) return pages === 1 ? 'read' : 'read all';
  if (ranges.length > MOST_NAMED) return `read ${String(read)} of ${String(pages)} pages`;
  return `read ${read === 1 ? 'page' : 'pages'} ${ranges.map(rangeWords).join(', ')}`;
}

/** What was read of the newest version, without saying which pages where they do not lie in a row. */
export type ReadSummary = PageRange & {
  /** How many different pages, and of how many. */
  readonly read: number;
  readonly pages: number;
};

/** The same in a few words, for a column that says “Read”: `all`, `pages 1 to 3`, `5 of 20 pages`. */
export function summaryWords({ read, from, to, pages }: ReadSummary): string {
  if (read === 0) return 'nothing';
  if (read >= pages) return 'all';
  if (to - from + 1 > read) return `${String(read)} of ${String(pages)} pages`;
  return `${read === 1 ? 'page' : 'pages'} ${rangeWords({ from, to })}`;
}

/** A piece of a strip that shows a document: its pages, and how long the longest of them was in view. */
export type StripPiece = PageRange & { readonly shownFor: number };

/** A document as at most `most` pieces of as many pages each. */
export function stripOf(
  times: ReadonlyMap<number, number>,
  pages: number,
  most: number,
): StripPiece[] {
  const count = Math.max(1, Math.min(pages, most));
  return Array.from({ length: count }, (_each, i) => {
    const from = Math.floor((i * pages) / count) + 1;
    const to = Math.floor(((i + 1) * pages) / count);
    let shownFor = 0;
    for (let page = from; page <= to; page++) shownFor = Math.max(shownFor, times.get(page) ?? 0);
    return { from, to, shownFor };
  });
}
