'use client';

import { useState } from 'react';
import { skipToken, useQuery } from '@tanstack/react-query';
import Button from '@mui/material/Button';
import { compareWords, type ComparedPiece } from '@/core/compare/compare-words';
import type { DocumentId } from '@/core/base/ids';
import type { TextPiece } from '@/contracts/reader';
import { call, sentenceOf } from '@/ui/http/call';
import { Problem } from '@/ui/shell/notice';

/** One of two versions that are looked at side by side. */
export type Side = { readonly number: number; readonly pages: number; readonly name: string };

const WIDTH = 900;

/** Two versions of a document beside each other, page by page, and what their words differ in. */
export function CompareVersions({
  id,
  before,
  after,
}: {
  readonly id: DocumentId;
  readonly before: Side;
  readonly after: Side;
}) {
  const [page, setPage] = useState(1);
  const pages = Math.max(before.pages, after.pages);
  return (
    <section className="stack" aria-label="Compared">
      <div className="row one-row">
        <Button
          disabled={page === 1}
          onClick={() => {
            setPage(page - 1);
          }}
        >
          Page before
        </Button>
        <span className="figure">
          {page} of {pages}
        </span>
        <Button
          disabled={page === pages}
          onClick={() => {
            setPage(page + 1);
          }}
        >
          Page after
        </Button>
      </div>
      <div className="compared">
        {[before, after].map((side) => (
          <ComparedPage key={side.number} id={id} side={side} page={page} />
        ))}
      </div>
      <ComparedWords key={page} id={id} before={before} after={after} page={page} />
    </section>
  );
}

function ComparedPage({
  id,
  side,
  page,
}: {
  readonly id: DocumentId;
  readonly side: Side;
  readonly page: number;
}) {
  const { number, pages, name } = side;
  return (
    <figure>
      <figcaption>{name}</figcaption>
      {page > pages ? (
        <p className="quiet">It has {pages} pages.</p>
      ) : (
        <img
          src={`/api/v1/documents/${id}/check/pages/${String(page)}?version=${String(number)}&width=${String(WIDTH)}`}
          alt={`Page ${String(page)} of ${name}`}
        />
      )}
    </figure>
  );
}

function useText(id: DocumentId, { number, pages }: Side, page: number) {
  const path = `/api/v1/documents/${id}/check/pages/${String(page)}/text?version=${String(number)}`;
  const { data, error } = useQuery({
    queryKey: [path],
    queryFn:
      page > pages ? skipToken : () => call<{ readonly runs: readonly TextPiece[] }>('GET', path),
  });
  const text = data?.runs.map((run) => run.text).join(' ') ?? null;
  return { text: page > pages ? '' : text, problem: error === null ? null : sentenceOf(error) };
}

function ComparedWords({
  id,
  before,
  after,
  page,
}: {
  readonly id: DocumentId;
  readonly before: Side;
  readonly after: Side;
  readonly page: number;
}) {
  const [one, other] = [useText(id, before, page), useText(id, after, page)];
  if (one.problem !== null || other.problem !== null)
    return <Problem words={one.problem ?? other.problem} />;
  if (one.text === null || other.text === null) return <p role="status">Comparing words…</p>;
  const pieces = compareWords(one.text, other.text);
  if (pieces === null)
    return <p className="quiet">This page has too much text to compare it word by word.</p>;
  if (pieces.every(({ change }) => change === 'same'))
    return <p className="quiet">The words of this page are the same in both.</p>;
  return (
    <div className="compared-words" aria-label={`Words of page ${String(page)}`}>
      {pieces.map((piece, i) => (
        <Piece key={i} piece={piece} />
      ))}
    </div>
  );
}

function Piece({ piece: { text, change } }: { readonly piece: ComparedPiece }) {
  if (change === 'added') return <ins>{text}</ins>;
  return change === 'removed' ? <del>{text}</del> : <span>{text}</span>;
}
