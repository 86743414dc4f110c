'use client';

import { useState } from 'react';
import TextField from '@mui/material/TextField';
import { counted } from '@/core/base/counted';
import { useAttempt } from '@/ui/http/use-attempt';
import { BroughtOdrl } from '@/ui/odrl/brought-odrl';
import { Notice } from '@/ui/shell/notice';

const stateWords = {
  new: 'would be given',
  changed: 'would be changed',
  revoked: 'would be revoked',
  same: 'as it is here',
  stopped: 'left out',
};

/** Access in from a W3C ODRL document: what would be given, changed and revoked is shown before it is. */
export function BringGrants() {
  const { busy, said, attempt } = useAttempt();
  const [subject, setSubject] = useState('Access brought in');
  const about = (
    <p className="quiet" style={{ flex: 1 }}>
      Agreements of a W3C ODRL 2.2 file, as a dispatch gives them out or another program writes
      them. One that names a grant of ours changes it; any other gives access anew, in your name and
      without mail: the links stand on the dispatch.
    </p>
  );
  return (
    <section className="stack" aria-label="Bring access in" style={{ marginTop: 10 }}>
      <BroughtOdrl
        path="/api/v1/grants/odrl"
        head={about}
        pick="Choose a file"
        also={{ subject }}
        stateWords={stateWords}
        verb="Take"
        attempt={attempt}
        busy={busy}
        done={({ taken, waiting = 0 }) =>
          `${counted(taken, 'agreement is', 'agreements are')} imported.` +
          (waiting > 0 ? ' What is new needs a second person.' : '')
        }
      >
        <TextField
          label="New access is called"
          value={subject}
          onChange={(event) => {
            setSubject(event.target.value);
          }}
          sx={{ maxWidth: 420 }}
        />
      </BroughtOdrl>
      <Notice said={said} />
    </section>
  );
}
