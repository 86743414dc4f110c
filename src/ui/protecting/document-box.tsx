'use client';

import { useState } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { DocumentRow } from '@/contracts/document';
import type { Page } from '@/contracts/page';
import { api } from '@/ui/http/api';
import { useAsked } from '@/ui/http/use-asked';
import { usePaused } from '@/ui/http/use-paused';
import { pagesText } from '@/ui/words/pages-words';

/** Finds documents by their title or reference; the newest are there without typing. */
export function DocumentBox({
  first,
  chosen,
  onPick,
  label = 'Add a document',
}: {
  readonly label?: string;
  readonly first: Page<DocumentRow>;
  readonly chosen: readonly DocumentRow[];
  readonly onPick: (document: DocumentRow) => void;
}) {
  const [text, setText] = useState('');
  const [isOpen, setOpen] = useState(false);
  const wanted = usePaused(text.trim());
  const { answer, busy } = useAsked(
    'GET /api/v1/documents',
    wanted === '' ? null : { q: wanted, own: 'true' },
  );
  const page = text.trim() === '' ? first : (answer ?? first);
  const isChosen = new Set(chosen.map(({ id }) => id));
  const canPick = (document: DocumentRow) => !isChosen.has(document.id) && matches(document, text);
  // What was found for less is narrowed at once: nothing is chosen that does not match what stands here.
  const options = page.rows.filter(canPick);
  const isSettled = !busy && wanted === text.trim();
  /** Anyone who types fast presses enter before anything was found: it is looked for, and then chosen. */
  const onEnter = async () => {
    const { rows } = await api('GET /api/v1/documents', { q: text.trim(), own: 'true' });
    const first = rows.find(canPick);
    if (first === undefined) return;
    setOpen(false);
    setText('');
    onPick(first);
  };
  return (
    <Autocomplete<DocumentRow>
      openOnFocus
      open={isOpen}
      onOpen={() => {
        setOpen(true);
      }}
      onClose={() => {
        setOpen(false);
      }}
      autoHighlight
      clearOnBlur
      className="document-box"
      options={options}
      filterOptions={(all) => all}
      value={null}
      inputValue={text}
      noOptionsText="No document of yours is called so"
      getOptionLabel={({ title }) => title}
      getOptionKey={({ id }) => id}
      onInputChange={(_event, next, reason) => {
        setText(reason === 'input' ? next : '');
      }}
      onChange={(_event, document) => {
        if (document !== null) onPick(document);
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || text.trim() === '' || isSettled) return;
        event.preventDefault();
        event.defaultMuiPrevented = true;
        void onEnter().catch(() => undefined);
      }}
      renderOption={({ key, ...props }, document) => (
        <li key={key} {...props}>
          <span className="suggestion">
            <b>{document.title}</b> <span className="figure quiet">{document.reference}</span>{' '}
            <span className="quiet">{aboutDocument(document)}</span>
          </span>
        </li>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label={label}
          placeholder={
            page.total > page.rows.length
              ? `The newest ${String(page.rows.length)} of ${page.total.toLocaleString('en-GB')}; type to find others`
              : 'Title or reference'
          }
        />
      )}
    />
  );
}

function matches({ title, reference }: DocumentRow, text: string): boolean {
  const wanted = text.trim().toLowerCase();
  return [title, reference].some((value) => value.toLowerCase().includes(wanted));
}

/** `86 pages · Office only`, and that it is revoked where it is. */
export function aboutDocument({ pages, marking, revoked, isLocal }: DocumentRow): string {
  const where = isLocal ? 'encrypted on your machine' : '';
  return [pagesText(pages), marking ?? '', where, revoked ? 'revoked' : '']
    .filter((part) => part !== '')
    .join(' · ');
}
