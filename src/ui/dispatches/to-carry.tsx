'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { carriesFile, type DeliveryForm } from '@/core/policy/delivery';
import { linkWords } from '@/ui/words/addressee-words';
import { personName } from '@/ui/grants/grant-words';
import { TakeFile } from '@/ui/grants/take-file';

/** What of a dispatch is carried by hand, person by person: links to copy, protected files to take. */
export function ToCarry({
  grants,
  form,
}: {
  readonly grants: readonly GrantRow[];
  readonly form: DeliveryForm;
}) {
  const [copied, setCopied] = useState<string | null>(null);
  const copy = async (grant: GrantRow) => {
    try {
      await navigator.clipboard.writeText(grant.link);
      setCopied(grant.link);
    } catch {
      setCopied(null);
    }
  };
  return (
    <section className="stack" aria-label="Links to hand over">
      <h2>Links to hand over</h2>
      <p className="quiet">Give each person their link in any way you like.</p>
      {[...groupBy(grants, (grant) => grant.recipientId).values()].map((own) =>
        own.slice(0, 1).map((grant) => (
          <div key={grant.recipientId} className="stack tight">
            <div className="row">
              <b>{personName(grant)}</b>
              <span className="gap" />
              {form !== 'file' && grant.link !== '' && (
                <Button
                  variant="text"
                  aria-label={`Copy the link of ${personName(grant)}`}
                  onClick={() => void copy(grant)}
                >
                  {copied === grant.link ? 'Copied' : 'Copy the link'}
                </Button>
              )}
            </div>
            <span className="quiet small">{linkWords(grant)}</span>
            {form !== 'file' &&
              (grant.link === '' ? (
                <span className="quiet">Only the person who made this link can see it.</span>
              ) : (
                <code className="key-text">{grant.link}</code>
              ))}
            {carriesFile(form) &&
              own.map((each) => (
                <TakeFile key={each.id} grant={each} label={each.documentReference} />
              ))}
          </div>
        )),
      )}
    </section>
  );
}
