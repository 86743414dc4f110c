'use client';

import { useRef, useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { ComposeStart } from '@/contracts/draft';
import { FIELDS } from '@/core/message/fields';
import { MailPreviewPart } from '@/ui/compose/mail-preview';
import { insertAround, insertAtLines, type Edited } from '@/ui/compose/note-editing';
import { SavedTexts } from '@/ui/compose/saved-texts';
import type { Composed } from '@/ui/compose/use-composed';
import type { GridRow } from '@/ui/recipients/grid-view';
import { ChipButton } from '@/ui/shell/chips';
import { fieldWords } from '@/ui/words/field-words';

type Props = {
  readonly start: ComposeStart;
  readonly composed: Composed;
  /** The recipient whose message is previewed. */
  readonly active: GridRow | null;
};

/** The note: written, formatted, taken from a saved text, and seen as one recipient gets it. */
export function MessagePart({ start, composed, active }: Props) {
  const { note, setNote, subject, setSubject, way, setWay } = composed;
  const field = useRef<HTMLTextAreaElement>(null);
  const [isSeen, setSeen] = useState(false);
  const edit = (change: (text: string, from: number, to: number) => Edited) => {
    const { current } = field;
    const at = current?.selectionStart ?? note.length;
    const { text, from, to } = change(note, at, current?.selectionEnd ?? at);
    setNote(text);
    // The text is there with the next paint.
    requestAnimationFrame(() => {
      current?.focus();
      current?.setSelectionRange(from, to);
    });
  };
  const mailed = way.delivery === 'mail';
  return (
    <>
      <div className="row tight-row">
        <SavedTexts
          texts={start.texts}
          subject={subject}
          note={note}
          onTake={(text) => {
            setNote(text.note);
            if (text.subject !== '') setSubject(text.subject);
          }}
        />
      </div>
      <div className="row tight-row" role="group" aria-label="Format">
        <ChipButton
          onClick={() => {
            edit((...at) => insertAround(...at, '**'));
          }}
        >
          <b>Bold</b>
        </ChipButton>
        <ChipButton
          onClick={() => {
            edit((...at) => insertAround(...at, '_'));
          }}
        >
          <i>Italic</i>
        </ChipButton>
        <ChipButton
          onClick={() => {
            edit((...at) => insertAtLines(...at, '- '));
          }}
        >
          • List
        </ChipButton>
        {FIELDS.map((name) => (
          <ChipButton
            key={name}
            title={fieldWords[name].hint}
            onClick={() => {
              edit((text, from, to) => {
                const inserted = `{${name}}`;
                const end = from + inserted.length;
                return {
                  text: text.slice(0, from) + inserted + text.slice(to),
                  from: end,
                  to: end,
                };
              });
            }}
          >
            {fieldWords[name].name}
          </ChipButton>
        ))}
      </div>
      <TextField
        label="Note"
        multiline
        minRows={4}
        maxRows={12}
        autoFocus
        inputRef={field}
        value={note}
        onChange={(event) => {
          setNote(event.target.value);
        }}
        helperText={
          mailed && way.noteInMail
            ? 'Stands in the mail, in the clear, and behind the link'
            : 'Shown after the link, once the email address is proven'
        }
      />
      {mailed && (
        <FormControlLabel
          control={
            <Checkbox
              checked={!way.noteInMail}
              onChange={(_event, on) => {
                setWay({ ...way, noteInMail: !on });
              }}
            />
          }
          label="Only behind the link"
        />
      )}
      {mailed && active?.row.kind === 'person' && (
        <Button
          sx={{ alignSelf: 'flex-start' }}
          aria-expanded={isSeen}
          onClick={() => {
            setSeen(!isSeen);
          }}
        >
          {isSeen ? 'Close preview' : 'Preview'}
        </Button>
      )}
      {isSeen && active !== null && <MailPreviewPart composed={composed} each={active} />}
    </>
  );
}
