'use client';

import { useState, type ReactNode } from 'react';
import TextField from '@mui/material/TextField';
import { Confirmation } from '@/ui/shell/confirmation';
import { Problem } from '@/ui/shell/notice';

/** Asks for words to be typed before keys are destroyed, since that cannot be undone. */
export function DestroyDialog({
  open,
  title,
  action,
  words,
  isTyped,
  busy,
  problem,
  onClose,
  onConfirm,
  children,
}: {
  readonly open: boolean;
  readonly title: string;
  readonly action: string;
  readonly words: string;
  /** Whether what was typed counts as the words. */
  readonly isTyped: (typed: string) => boolean;
  readonly busy: boolean;
  readonly problem: string | null;
  readonly onClose: () => void;
  readonly onConfirm: (typed: string, reason: string) => void;
  readonly children: ReactNode;
}) {
  const [typed, setTyped] = useState('');
  return (
    <Confirmation
      open={open}
      busy={busy || !isTyped(typed)}
      title={title}
      action={action}
      onClose={() => {
        setTyped('');
        onClose();
      }}
      onConfirm={(reason) => {
        onConfirm(typed, reason);
      }}
    >
      {children}
      <TextField
        label={`Type ${words} to confirm`}
        className="above-8"
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value);
        }}
        autoComplete="off"
      />
      <Problem words={problem} />
    </Confirmation>
  );
}
