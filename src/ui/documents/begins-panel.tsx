'use client';

import dynamic from 'next/dynamic';
import type { DocumentDetail } from '@/contracts/document-detail';
import { resolveDefaults, watermarkUnder } from '@/core/policy/defaults';
import { OwnRule } from '@/ui/documents/own-rule';
import { MarkLines } from '@/ui/watermark/mark-line';
import { originWords } from '@/ui/words/origin-words';

/**
 * What a dispatch of a document begins with and what stands on its pages, each with who set it; and
 * its own, which is set here.
 */
const DefaultsForm = dynamic(() =>
  import('@/ui/levels/defaults-form').then((form) => form.DefaultsForm),
);

export function BeginsPanel({ detail }: { readonly detail: DocumentDetail }) {
  const marks = watermarkUnder([], detail.defaults);
  return (
    <section className="stack" aria-label="Defaults">
      <h2>Defaults for new dispatches</h2>
      {originWords(resolveDefaults(detail.defaults)).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {marks.length > 0 && (
        <>
          <p>Also on every page:</p>
          <MarkLines layers={marks} />
        </>
      )}
      <OwnRule
        ask="Set defaults…"
        form={(given) => (
          <DefaultsForm
            of={{ level: 'document', subject: detail.id, name: detail.title }}
            page={{ defaults: detail.defaults, markings: [], folders: [] }}
            mayChange
            {...given}
          />
        )}
      />
    </section>
  );
}
