'use client';

import { useState, type Key } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { DocumentRow } from '@/contracts/document';
import type { Page } from '@/contracts/page';
import { counted } from '@/core/base/counted';
import { useAsked } from '@/ui/http/use-asked';
import { usePaused } from '@/ui/http/use-paused';

/** Finds documents by their title or reference; the newest are there without typing. */
export function DocumentBox({
  first,
  chosen,
  onPick,
}: {
  readonly first: Page<DocumentRow>;
  readonly chosen: readonly DocumentRow[];
  readonly onPick: (document: DocumentRow) => void;
}) {
  const [text, setText] = useState('');
  const wanted = usePaused(text.trim());
  const { answer } = useAsked(
    'GET /api/v1/documents',
    wanted === '' ? null : { q: wanted, own: 'true' },
  );
  const page = text.trim() === '' ? first : (answer ?? first);
  const isChosen = new Set(chosen.map(({ id }) => id));
  return (
    <Autocomplete<DocumentRow, false, false, false>
      openOnFocus
      autoHighlight
      clearOnBlur
      className="document-box"
      options={page.rows.filter(({ id }) => !isChosen.has(id))}
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
      renderOption={({ key, ...props }, document) => (
        <li key={key as Key} {...props}>
          <span className="suggestion">
            <b>{document.title}</b> <span className="figure quiet">{document.reference}</span>{' '}
            <span className="quiet">{aboutDocument(document)}</span>
          </span>
        </li>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Add a document"
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

/** `86 pages · Office only`, and that it is revoked where it is. */
export function aboutDocument({ pages, marking, revoked }: DocumentRow): string {
  return [counted(pages, 'page'), marking ?? '', revoked ? 'revoked' : '']
    .filter((part) => part !== '')
    .join(' · ');
}
