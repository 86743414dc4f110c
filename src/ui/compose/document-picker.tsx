'use client';

import { useEffect, useState } from 'react';
import Link from 'next/link';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { DocumentRow } from '@/contracts/document';
import type { Page } from '@/contracts/page';
import { call } from '@/ui/http/call';
import { addressWith } from '@/ui/tables/use-address';

const WAIT = 250;
const FEW = 8;

type Props = {
  readonly first: Page<DocumentRow>;
  readonly picked: readonly DocumentRow[];
  readonly onPick: (document: DocumentRow, on: boolean) => void;
};

/** Documents to send: those picked stand on top, the rest is found by typing. */
export function DocumentPicker({ first, picked, onPick }: Props) {
  const [search, setSearch] = useState('');
  const [found, setFound] = useState<Page<DocumentRow>>(first);
  const wanted = search.trim();
  useEffect(() => {
    if (wanted === '') return undefined;
    let current = true;
    const timer = setTimeout(() => {
      call<Page<DocumentRow>>(
        'GET',
        addressWith('/api/v1/documents', { q: wanted, own: 'true' }),
      ).then(
        (page) => {
          if (current) setFound(page);
        },
        () => undefined,
      );
    }, WAIT);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [wanted]);
  const page = wanted === '' ? first : found;
  const isPicked = new Set(picked.map(({ id }) => id));
  const shown = [...picked, ...page.rows.filter(({ id }) => !isPicked.has(id))];
  if (first.total === 0)
    return (
      <p className="quiet">
        There are no documents yet. <Link href="/documents">Protect one first.</Link>
      </p>
    );
  return (
    <div className="stack">
      {first.total > FEW && (
        <TextField
          label="Find"
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
          }}
          helperText={
            page.total > page.rows.length
              ? `The newest ${String(page.rows.length)} of ${page.total.toLocaleString('en-GB')}; type to find others`
              : undefined
          }
        />
      )}
      <div className="pick-list" role="group" aria-label="Documents to send">
        {shown.map((document) => (
          <div key={document.id}>
            <FormControlLabel
              control={
                <Checkbox
                  checked={isPicked.has(document.id)}
                  onChange={(_event, on) => {
                    onPick(document, on);
                  }}
                />
              }
              label={
                <>
                  {document.title} <span className="figure quiet">{document.reference}</span>{' '}
                  <span className="quiet">{document.pages} p</span>
                  {document.marking !== null && (
                    <span className="quiet"> · {document.marking}</span>
                  )}
                  {document.revoked && <span className="magenta"> revoked</span>}
                </>
              }
            />
          </div>
        ))}
      </div>
    </div>
  );
}
