'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import type { SavedText } from '@/contracts/saved-texts';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ChipButton } from '@/ui/shell/chips';
import { Problem } from '@/ui/shell/notice';

/** Fetched when a text is saved. */
const SaveText = dynamic(() => import('@/ui/compose/save-text').then((form) => form.SaveText));

type Message = Pick<SavedText, 'subject' | 'note'>;

/** Messages kept under a name for everybody who sends: taken, saved, removed. */
export function SavedTexts({
  texts: begun,
  subject,
  note,
  onTake,
}: Message & {
  readonly texts: readonly SavedText[];
  readonly onTake: (text: SavedText) => void;
}) {
  const [texts, setTexts] = useState(begun);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [naming, setNaming] = useState(false);
  const { problem, attempt } = useAttempt();
  const here = texts.find((text) => text.note === note && note !== '');
  return (
    <>
      <ChipButton
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        disabled={texts.length === 0}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {texts.length === 0 ? 'No saved texts' : 'Saved texts ▾'}
      </ChipButton>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        transitionDuration={0}
        onClose={() => {
          setAnchor(null);
        }}
      >
        {texts.map((text) => (
          <MenuItem
            key={text.id}
            onClick={() => {
              onTake(text);
              setAnchor(null);
            }}
          >
            <span className="suggestion">
              <b>{text.name}</b> <span className="quiet">{text.subject}</span>
            </span>
          </MenuItem>
        ))}
      </Menu>
      {note.trim() !== '' && here === undefined && !naming && (
        <ChipButton
          onClick={() => {
            setNaming(true);
          }}
        >
          Save this text
        </ChipButton>
      )}
      {here !== undefined && (
        <ChipButton
          onClick={() =>
            void attempt(async () => {
              setTexts((await api('DELETE /api/v1/texts/:id', { id: here.id })).texts);
            })
          }
        >
          Remove “{here.name}”
        </ChipButton>
      )}
      {naming && (
        <SaveText
          subject={subject}
          note={note}
          onSaved={setTexts}
          onClose={() => {
            setNaming(false);
          }}
        />
      )}
      <Problem words={problem} />
    </>
  );
}
