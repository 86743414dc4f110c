'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { KeysPage } from '@/contracts/keys';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { MakeRecovery } from '@/ui/recovery/make-recovery';
import { Note } from '@/ui/shell/notice';

/** The recovery key there is, what it opens, and its replacement. */
export function RecoveryKeyPart({
  page: { recoveryKey, recoverable, versions, twoPeople },
  attempt,
}: {
  readonly page: KeysPage;
  readonly attempt: Attempt['attempt'];
}) {
  const [making, setMaking] = useState(false);
  const keep = async (publicKey: string) => {
    const well = await attempt(
      () => api('POST /api/v1/settings/recovery', { recoveryKey: publicKey }),
      'From now on every file is encrypted to this recovery key.',
    );
    if (well) setMaking(false);
  };
  return (
    <section className="stack" aria-label="Recovery key">
      <h2>Recovery key</h2>
      {recoveryKey === null ? (
        <Note tone="stops">There is none. If this server is lost, every document is lost.</Note>
      ) : (
        <>
          <p>Public key, to which every file is also encrypted:</p>
          <code className="key-text">{recoveryKey}</code>
        </>
      )}
      <p>
        It opens {recoverable} of {versions} stored versions
        {recoverable < versions &&
          '. The others were left out, or are encrypted to an earlier key: keep that one as well'}
        .
      </p>
      {making ? (
        <MakeRecovery twoPeople={twoPeople} onKept={(publicKey) => void keep(publicKey)} />
      ) : (
        <div className="row">
          <Button
            onClick={() => {
              setMaking(true);
            }}
          >
            {recoveryKey === null ? 'Make a recovery key' : 'Replace the recovery key'}
          </Button>
        </div>
      )}
    </section>
  );
}
