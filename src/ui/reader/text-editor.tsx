'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { Problem } from '@/ui/shell/notice';
import type { TextEdit } from '@/ui/reader/use-text-edit';

/** A text that is being changed, in the place of its pages. */
export function TextEditor({ edit, sender }: { readonly edit: TextEdit; readonly sender: string }) {
  const [note, setNote] = useState('');
  const { text, isBusy, isChanged, problem } = edit;
  if (text === null) return null;
  return (
    <main className="text-editor stack" aria-label="The text">
      <textarea
        aria-label="The text that you change"
        value={text}
        spellCheck={false}
        onChange={({ target }) => {
          edit.change(target.value);
        }}
      />
      <Problem words={problem} />
      <TextField
        label="What you changed"
        value={note}
        onChange={({ target }) => {
          setNote(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <div className="row">
        <Button
          variant="contained"
          className="nowrap"
          disabled={isBusy || !isChanged}
          onClick={() => void edit.send(note)}
        >
          {isBusy ? 'Being sent…' : 'Send the change'}
        </Button>
        <Button className="nowrap" disabled={isBusy} onClick={edit.discard}>
          {isChanged ? 'Discard the change' : 'Back to the pages'}
        </Button>
      </div>
      <p className="quiet">{sender} compares it with the document, and accepts or declines it.</p>
    </main>
  );
}

/** What was being changed when access ended: it was not sent, and is not lost. */
export function UnsentText({ edit }: { readonly edit: TextEdit }) {
  if (edit.text === null || !edit.isChanged) return null;
  return (
    <TextField
      label="The text as you changed it"
      multiline
      maxRows={12}
      value={edit.text}
      helperText="It was not sent. Copy it from here."
      slotProps={{ htmlInput: { readOnly: true } }}
    />
  );
}
