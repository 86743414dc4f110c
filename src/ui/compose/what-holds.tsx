'use client';

import { bareDomain } from '@/core/policy/address';
import { assurances } from '@/core/policy/assurance';
import { listed } from '@/core/base/listed';
import type { Terms } from '@/core/policy/rights';
import { carriesFile } from '@/core/policy/delivery';
import { readOn, shutOutText } from '@/ui/compose/pulled-back';
import type { Composed } from '@/ui/compose/use-composed';
import type { GridRow } from '@/ui/recipients/grid-view';
import { Note } from '@/ui/shell/notice';
import { assuranceText } from '@/ui/words/assurance-words';

type Props = {
  readonly composed: Composed;
  /** The row that is looked at. */
  readonly active: GridRow | null;
};

/** How it is read. */
function Way({
  isLinkAlone,
  terms,
  local,
}: {
  readonly isLinkAlone: boolean;
  readonly terms: Terms;
  /** Titles of what was encrypted on this machine. */
  readonly local: readonly string[];
}) {
  return (
    <p className="quiet">
      {isLinkAlone ? 'Anyone with the link' : 'Each proves their email address with a code, then'}{' '}
      reads marked pictures of the pages, held by the server. Every page is checked again when it is
      shown.
      {local.length > 0 &&
        ` Not so ${listed(local)}: that is read on their own machine alone, from the file you hand over.`}
      {terms.conditions?.offline != null &&
        ' The protected file opens on their own machine as well, where the key comes to them.'}
    </p>
  );
}

/** How soon everybody could be shut out, from the time that is given offline. */
function PulledBack({ all }: { readonly all: readonly Terms[] }) {
  if (readOn(all) === 0) return null;
  return (
    <Note>
      If you had to pull this back, everybody would be shut out {shutOutText(all)}: so long it may
      be read on their own machines without asking again.
    </Note>
  );
}

/** What holds it, and what stays although it is taken back. */
export function WhatHolds({
  composed: { rows, way, common, watermark, documents },
  active,
}: Props) {
  const terms: Terms = active?.terms ?? common;
  const has = (kind: GridRow['row']['kind']) => rows.some(({ row }) => row.kind === kind);
  const domains = rows.filter(({ row }) => row.kind === 'domain');
  const isLinkAlone = has('link') && rows.length === 1;
  return (
    <section className="stack" aria-label="What holds it">
      <h2>What holds it</h2>
      <Way
        isLinkAlone={isLinkAlone}
        terms={terms}
        local={documents.flatMap(({ title, isLocal }) => (isLocal ? [`“${title}”`] : []))}
      />
      <PulledBack all={rows.length === 0 ? [terms] : rows.map((row) => row.terms)} />
      <table className="assurances">
        <tbody>
          {assurances(terms, {
            carriesFile: carriesFile(way.form),
            marked: watermark.length > 0,
            readingAids: active?.known?.readingAids ?? false,
          }).map((line) => {
            const { name, by, how } = assuranceText(line);
            return (
              <tr key={line.held}>
                <th scope="row">{name}</th>
                <td>
                  <b className={line.by === 'nothing' ? 'magenta' : 'current'}>{by}</b>{' '}
                  <span className="quiet">{how}</span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {carriesFile(way.form) && (
        <p className="quiet">Your clear original stays with you. Do not mix the two up.</p>
      )}
      {has('link') && (
        <Note>
          The link asks for no proof, so it stays unknown who reads it and how many. It can be
          revoked for everybody who used it.
        </Note>
      )}
      {domains.length > 0 && (
        <Note>
          It is unknown how many people are at{' '}
          {domains.map(({ row }) => bareDomain(row.key)).join(', ')}.
          {way.delivery === 'mail' &&
            ' Nobody there is mailed. Their link is on the dispatch, for you to hand over.'}{' '}
          Each becomes a recipient of their own at the first open, and can be revoked alone.
        </Note>
      )}
    </section>
  );
}
