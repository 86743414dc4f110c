'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { personName } from '@/ui/grants/grant-words';
import { Confirmation } from '@/ui/shell/confirmation';
import { Problem } from '@/ui/shell/notice';

/** Whether a screen reader can read the pages to this person, and the switch for it. */
export function ReadingAids({ grant }: { readonly grant: GrantRow }) {
  const [asking, setAsking] = useState(false);
  const { busy, problem, attempt } = useAttempt();
  const { readingAids: isOn, documentId, recipientId, mayChange, rights } = grant;
  const name = personName(grant);
  // With the right to copy, text comes anyway.
  if (grant.kind !== 'person' || rights.includes('copy') || !(mayChange || isOn)) return null;
  const set = async (on: boolean, reason?: string) => {
    await attempt(() =>
      api('POST /api/v1/documents/:id/reading-aids', {
        id: documentId,
        recipient: recipientId,
        on,
        reason,
      }),
    );
    setAsking(false);
  };
  return (
    <section className="stack tight" aria-label="Reading aids">
      <h2>Reading aids</h2>
      <p className="quiet">
        {isOn
          ? 'On: the text of pages comes for a screen reader. That it is not copied is held by the reader alone.'
          : 'Off: pages come as pictures, which a screen reader cannot read.'}
      </p>
      <Problem words={problem} />
      {mayChange && (
        <div className="row">
          <Button
            disabled={busy}
            onClick={() => {
              if (isOn) void set(false);
              else setAsking(true);
            }}
          >
            {isOn ? 'Switch off' : 'Switch on…'}
          </Button>
        </div>
      )}
      <Confirmation
        open={asking}
        busy={busy}
        title={`Switch on reading aids for ${name}?`}
        action="Switch on"
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(reason) => void set(true, reason)}
      >
        <p>
          For somebody who uses a screen reader. The text of the pages they may read then reaches
          their browser, on every document of this owner. That they do not copy it is from then on
          held by the reader, not by the server.
        </p>
      </Confirmation>
    </section>
  );
}
