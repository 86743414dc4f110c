'use client';

import { useState } from 'react';
import TextField from '@mui/material/TextField';
import { counted } from '@/core/base/counted';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ImportedOdrl } from '@/ui/odrl/imported-odrl';
import { Notice } from '@/ui/shell/notice';

const stateWords = {
  new: 'would be given',
  changed: 'would be changed',
  revoked: 'would be revoked',
  same: 'same as here',
  stopped: 'left out',
};

/** Access in from a W3C ODRL document: what would be given, changed and revoked is shown before it is. */
export function ImportGrants() {
  const { busy, said, attempt } = useAttempt();
  const [subject, setSubject] = useState('Imported access');
  const about = (
    <p className="quiet gap">
      Agreements from a W3C ODRL 2.2 file, exported from a dispatch or written by another program.
      An agreement that names an existing grant changes it. Any other gives new access in your name,
      without mail; the links are on the dispatch.
    </p>
  );
  return (
    <section className="stack above-10" aria-label="Import access">
      <ImportedOdrl
        look={(text) => api('POST /api/v1/grants/odrl/preview', { text })}
        take={(text) => api('POST /api/v1/grants/odrl', { text, subject })}
        head={about}
        pick="Choose a file"
        stateWords={stateWords}
        verb="Import"
        attempt={attempt}
        busy={busy}
        done={({ taken, waiting = 0 }) =>
          `${counted(taken, 'agreement is', 'agreements are')} imported.` +
          (waiting > 0 ? ' What is new needs a second person.' : '')
        }
      >
        <TextField
          label="Subject of the new dispatch"
          value={subject}
          onChange={(event) => {
            setSubject(event.target.value);
          }}
          className="name-form"
        />
      </ImportedOdrl>
      <Notice said={said} />
    </section>
  );
}
