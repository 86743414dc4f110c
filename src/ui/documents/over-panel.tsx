'use client';

import dynamic from 'next/dynamic';
import type { DocumentDetail } from '@/contracts/document-detail';
import { OwnRule } from '@/ui/documents/own-rule';
import { Moment } from '@/ui/time/moment';
import { levelWords, limitLines } from '@/ui/words/limit-words';

const CeilingForm = dynamic(() =>
  import('@/ui/levels/ceiling-form').then((form) => form.CeilingForm),
);

/** The ceilings that reach a document, and its own, which is set here. */
export function OverPanel({ detail }: { readonly detail: DocumentDetail }) {
  const own = detail.ceilings.some(({ level }) => level === 'document');
  return (
    <section className="stack" aria-label="Ceilings that apply">
      <h2>Ceilings that apply</h2>
      {detail.ceilings.length === 0 && <p className="quiet">None: senders may give any rights.</p>}
      {detail.ceilings.map((row) => (
        <p key={`${row.level} ${row.subject}`}>
          {row.level === 'organisation'
            ? 'The organisation'
            : row.level === 'document'
              ? 'This document'
              : `The ${levelWords[row.level]} ${row.name}`}
          : {limitLines(row.limits).join('; ')}{' '}
          <span className="quiet">
            by {row.setBy} <Moment at={row.setAt} />
          </span>
        </p>
      ))}
      <OwnRule
        ask={own ? 'Change ceiling…' : 'Set a ceiling…'}
        form={(given) => (
          <CeilingForm
            of={{ level: 'document', subject: detail.id, name: detail.title }}
            page={{ ceilings: detail.ceilings, markings: [], folders: [] }}
            mayChange
            {...given}
          />
        )}
      />
    </section>
  );
}
