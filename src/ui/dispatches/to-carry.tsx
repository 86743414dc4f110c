'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { carriesFile, carriesLink, type DeliveryForm } from '@/core/policy/delivery';
import { linkWords } from '@/ui/words/addressee-words';
import { linkList } from '@/ui/dispatches/link-list';
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
  const copy = async (text: string) => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied(text);
    } catch {
      setCopied(null);
    }
  };
  const list = linkList(grants);
  const name = carriesLink(form) ? 'Links to hand over' : 'Files to hand over';
  return (
    <section className="stack" aria-label={name}>
      <div className="row">
        <h2>{name}</h2>
        <span className="gap" />
        {carriesLink(form) && grants.length > 1 && list !== '' && (
          <Button variant="text" onClick={() => void copy(list)}>
            {copied === list ? 'Copied' : 'Copy all links'}
          </Button>
        )}
      </div>
      <p className="quiet">
        {carriesLink(form)
          ? 'Give each person their link in any way you like.'
          : 'Give each person their file in any way you like.'}
      </p>
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
                  onClick={() => void copy(grant.link)}
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
                <TakeFile key={each.id} of={each} label={`Download ${each.documentReference}`} />
              ))}
          </div>
        )),
      )}
    </section>
  );
}
