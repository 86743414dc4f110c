'use client';

import dynamic from 'next/dynamic';
import Dialog from '@mui/material/Dialog';
import { onProofNeeded } from '@/ui/http/call';
import { useAnswered } from '@/ui/shell/use-answered';

/** Fetched when it is asked for: most pages are left before it is. */
const ProofForm = dynamic(() => import('@/ui/shell/proof-form'), { ssr: false });

/** Asks for password and second factor again, when something is done that reaches far. */
export function ProveAgain() {
  const [open, answer] = useAnswered<boolean>(onProofNeeded);
  return (
    <Dialog
      open={open}
      onClose={() => {
        answer(false);
      }}
      aria-labelledby="prove-title"
      maxWidth="xs"
      fullWidth
    >
      <ProofForm onAnswer={answer} />
    </Dialog>
  );
}
