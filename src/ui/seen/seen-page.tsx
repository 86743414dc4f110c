'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { useAsked } from '@/ui/http/use-asked';
import { SeenReader } from '@/ui/seen/seen-reader';
import { Problem } from '@/ui/shell/notice';
import { NOW, WhatIf, type Case } from '@/ui/why/what-if';
import { given } from '@/ui/why/why-panel';

type Props = { readonly document: DocumentId; readonly recipient: RecipientId };

/** A document as one recipient would be shown it, now or in another case. */
export function SeenPage({ document, recipient }: Props) {
  const [asked, setAsked] = useState<Case>(NOW);
  const { answer, problem } = useAsked('POST /api/v1/explain/seen', {
    document,
    recipient,
    at: asked.at,
    network: given(asked.network),
    country: given(asked.country),
    device: given(asked.device),
    address: given(asked.address),
  });
  if (answer === null)
    return (
      <main className="work wide">
        <div className="part">{problem === null ? 'Opening…' : <Problem words={problem} />}</div>
      </main>
    );
  return (
    <SeenReader
      key={`${answer.person.address} ${String(answer.explained.opens)}`}
      {...answer}
      at={asked.at}
      network={given(asked.network)}
      leave={
        <Button component={Link} href={`/documents/${document}`}>
          Back to the document
        </Button>
      }
      otherCase={
        <>
          <Problem words={problem} />
          <WhatIf asked={asked} onAsk={setAsked} />
        </>
      }
    />
  );
}
