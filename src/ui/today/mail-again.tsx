'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { DispatchId, RecipientId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';

/** Mails the link of a dispatch once more, to those it names. */
export function MailAgain({
  dispatch,
  recipients,
}: {
  readonly dispatch: DispatchId;
  readonly recipients: readonly RecipientId[];
}) {
  const { busy, problem, attempt } = useAttempt();
  const [done, setDone] = useState(false);
  const send = async () => {
    if (
      await attempt(() =>
        api('POST /api/v1/dispatches/:id/mail-again', { id: dispatch, recipients }),
      )
    )
      setDone(true);
  };
  if (done) return <p role="status">Mailed again.</p>;
  return (
    <div>
      <Button variant="text" sx={{ px: 0 }} disabled={busy} onClick={() => void send()}>
        Resend link
      </Button>
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </div>
  );
}
