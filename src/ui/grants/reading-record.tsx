'use client';

import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { ReadingRecord as Record } from '@/contracts/opens';
import { coverageWords, READ_AFTER, stripOf, timesByPage } from '@/core/insight/coverage';
import { useAsked } from '@/ui/http/use-asked';
import { Moment } from '@/ui/time/moment';

/** Pieces that a strip has at the most. */
const PIECES = 90;

/** What somebody read of a document, and when: as a strip of its pages for each open. */
export function ReadingRecord({
  document,
  recipient,
}: {
  readonly document: DocumentId;
  readonly recipient: RecipientId;
}) {
  const { answer } = useAsked('GET /api/v1/ledger/reading', { document, recipient });
  const [newest] = answer?.opens ?? [];
  if (answer === null || newest === undefined) return null;
  // Pages of another version are other pages.
  const same = answer.opens.filter(({ version }) => version === newest.version);
  const all = timesByPage(same.map(({ shown }) => shown));
  return (
    <section className="stack tight" aria-label="Read">
      <p>
        <b>{sentence(coverageWords(all, newest.pages))}</b>
        {same.length > 1 && <span className="quiet"> in {same.length} opens</span>}
      </p>
      <Strip times={all} pages={newest.pages} />
      {same.length > 1 && (
        <details>
          <summary>Open by open</summary>
          <ul className="plain-list">
            {answer.opens.map((open) => (
              <Open key={open.id} open={open} />
            ))}
          </ul>
        </details>
      )}
      <p className="quiet small">As their browser told how long each page was in view.</p>
    </section>
  );
}

function sentence(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function Open({ open }: { readonly open: Record['opens'][number] }) {
  const times = timesByPage([open.shown]);
  return (
    <li className="stack tight">
      <span>
        <Moment at={open.openedAt} /> <span className="quiet">{open.device}</span>
      </span>
      <Strip times={times} pages={open.pages} />
      <span className="small">
        {coverageWords(times, open.pages)}
        {open.version > 1 && <span className="quiet"> · version {open.version}</span>}
      </span>
    </li>
  );
}

function seconds(ms: number): string {
  if (ms < READ_AFTER) return 'not read';
  const whole = Math.round(ms / 1_000);
  return whole < 60 ? `${String(whole)} s` : `${String(Math.round(whole / 60))} min`;
}

/** A document as a row of its pages, darker the longer they were in view. */
function Strip({
  times,
  pages,
}: {
  readonly times: ReadonlyMap<number, number>;
  readonly pages: number;
}) {
  const pieces = stripOf(times, pages, PIECES);
  const width = 270 / pieces.length;
  return (
    <svg
      viewBox="0 0 270 14"
      width="100%"
      height="14"
      role="img"
      aria-label={coverageWords(times, pages)}
    >
      {pieces.map(({ from, to, shownFor }, i) => (
        <rect
          key={from}
          x={i * width + 0.5}
          y="0.5"
          width={Math.max(1, width - 1)}
          height="13"
          fill={shownFor < READ_AFTER ? 'none' : 'var(--current)'}
          fillOpacity={Math.min(1, 0.35 + Math.log10(Math.max(1, shownFor / READ_AFTER)) / 2.5)}
          stroke="var(--line)"
        >
          <title>
            {`${from === to ? `Page ${String(from)}` : `Pages ${String(from)} to ${String(to)}`}: ${seconds(shownFor)}`}
          </title>
        </rect>
      ))}
    </svg>
  );
}
