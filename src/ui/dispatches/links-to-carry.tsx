'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { personName } from '@/ui/dispatches/grant-words';

/** The links of a sending that is carried by hand, one a person, each to be copied. */
export function LinksToCarry({ grants }: { readonly grants: readonly GrantRow[] }) {
  const [copied, setCopied] = useState<string | null>(null);
  const people = [...groupBy(grants, (grant) => grant.recipientId).values()].flatMap(([first]) => (first === undefined ? [] : [first]));
  const copy = async (grant: GrantRow) => {
    try {
      await navigator.clipboard.writeText(grant.link);
      setCopied(grant.link);
    } catch {
      setCopied(null);
    }
  };
  return (
    <section className="stack" aria-label="Links to carry">
      <h2>Links to carry</h2>
      <p className="quiet">Each is for its one address. Give it by any means; forwarded to somebody else it is worth nothing.</p>
      {people.map((grant) => (
        <div key={grant.recipientId} className="stack" style={{ gap: 2 }}>
          <div className="row"><b>{personName(grant)}</b><span className="gap" /><Button variant="text" aria-label={`Copy the link of ${personName(grant)}`} onClick={() => void copy(grant)}>{copied === grant.link ? 'Copied' : 'Copy'}</Button></div>
          <code className="key-text">{grant.link}</code>
        </div>
      ))}
    </section>
  );
}
