'use client';

import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';

/** Asks once before access is cut, naming whom it hits. */
export function ConfirmCut({ open, title, action, busy, onConfirm, onClose, children }: { readonly open: boolean; readonly title: string; readonly action: string; readonly busy: boolean; readonly onConfirm: () => void; readonly onClose: () => void; readonly children: ReactNode }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="cut-title" maxWidth="sm" fullWidth>
      <div style={{ padding: '18px 22px' }}>
        <h1 id="cut-title">{title}</h1>
        <div style={{ margin: '12px 0 18px' }} className="stack">{children}</div>
        <div className="row">
          <span className="gap" />
          <Button onClick={onClose}>Leave as it is</Button>
          <Button color="error" onClick={onConfirm} disabled={busy}>{action}</Button>
        </div>
      </div>
    </Dialog>
  );
}
