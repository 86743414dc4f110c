'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { Problem } from '@/ui/shell/notice';
import type { TextEdit } from '@/ui/reader/use-text-edit';
import { useWords } from '@/ui/words/use-words';

/** A text that is being changed, in the place of its pages. */
export function TextEditor({ edit, sender }: { readonly edit: TextEdit; readonly sender: string }) {
  const { say } = useWords();
  const [note, setNote] = useState('');
  const { text, isBusy, isChanged, problem } = edit;
  if (text === null) return null;
  return (
    <main className="text-editor stack" aria-label={say('revise.text')}>
      <textarea
        aria-label={say('revise.textChanged')}
        value={text}
        spellCheck={false}
        onChange={({ target }) => {
          edit.change(target.value);
        }}
      />
      <Problem words={problem} />
      <TextField
        label={say('revise.what')}
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
          {isBusy ? say('revise.being') : say('revise.sendText')}
        </Button>
        <Button className="nowrap" disabled={isBusy} onClick={edit.discard}>
          {isChanged ? say('revise.discard') : say('reading.backToPages')}
        </Button>
      </div>
      <p className="quiet">{say('revise.comparedText', { sender })}</p>
    </main>
  );
}

/** What was being changed when access ended: it was not sent, and is not lost. */
export function UnsentText({ edit }: { readonly edit: TextEdit }) {
  const { say } = useWords();
  if (edit.text === null || !edit.isChanged) return null;
  return (
    <TextField
      label={say('revise.unsent')}
      multiline
      maxRows={12}
      value={edit.text}
      helperText={say('revise.unsentHint')}
      slotProps={{ htmlInput: { readOnly: true } }}
    />
  );
}
