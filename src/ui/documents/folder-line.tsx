'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { ListDocumentsInput } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderRow } from '@/contracts/folder';
import { wayTo } from '@/core/content/folders';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { Problem } from '@/ui/shell/notice';
import { addressWith } from '@/ui/tables/use-address';

const NewFolder = dynamic(() =>
  import('@/ui/documents/folder-forms').then((forms) => forms.NewFolder),
);
const RenameFolder = dynamic(() =>
  import('@/ui/documents/folder-forms').then((forms) => forms.RenameFolder),
);

type Props = {
  readonly folders: readonly FolderRow[];
  readonly filter: ListDocumentsInput;
  readonly markings: readonly MarkingRow[];
  readonly mayChange: boolean;
};

/** The address of a folder's documents, with the other filters as they are. */
function addressIn({ q, marking, sort }: ListDocumentsInput, folder: FolderRow | null): string {
  return addressWith('/documents', { q, marking, sort, folder: folder?.id });
}

/** Where one is among the folders, the folders here, and what can be done with them. */
export function FolderLine({ folders, filter, markings, mayChange }: Props) {
  const way = wayTo(folders, filter.folder ?? null);
  const here = way.at(-1) ?? null;
  const inside = folders.filter((folder) => folder.parentId === (here?.id ?? null));
  return (
    <nav className="row above-10" aria-label="Folders">
      <span>
        {here === null ? (
          <b>All folders</b>
        ) : (
          <Link href={addressIn(filter, null)}>All folders</Link>
        )}
        {way.map((folder) => (
          <span key={folder.id}>
            {' / '}
            {folder === here ? (
              <b>{folder.name}</b>
            ) : (
              <Link href={addressIn(filter, folder)}>{folder.name}</Link>
            )}
          </span>
        ))}
      </span>
      {inside.map((folder) => (
        <ChipLink key={folder.id} href={addressIn(filter, folder)}>
          {folder.name} <span className="figure quiet">{folder.documents}</span>
        </ChipLink>
      ))}
      {mayChange && (
        <FolderActs
          key={here?.id ?? 'all'}
          here={here}
          markings={markings}
          isEmpty={here?.documents === 0 && inside.length === 0}
          above={addressIn(filter, way.at(-2) ?? null)}
        />
      )}
    </nav>
  );
}

/** Making a folder here, naming this one otherwise, removing it while it is empty. */
function FolderActs({
  here,
  markings,
  isEmpty,
  above,
}: {
  readonly here: FolderRow | null;
  readonly markings: readonly MarkingRow[];
  readonly isEmpty: boolean;
  readonly above: string;
}) {
  const router = useRouter();
  const [naming, setNaming] = useState<'new' | 'rename' | null>(null);
  const { problem, attempt } = useAttempt();
  const close = () => {
    setNaming(null);
  };
  if (naming === 'new') return <NewFolder parent={here} onClose={close} />;
  if (naming === 'rename' && here !== null) return <RenameFolder of={here} onClose={close} />;
  return (
    <>
      <ChipButton
        onClick={() => {
          setNaming('new');
        }}
      >
        New folder
      </ChipButton>
      {here !== null && (
        <ChipButton
          onClick={() => {
            setNaming('rename');
          }}
        >
          Rename
        </ChipButton>
      )}
      {here !== null && isEmpty && (
        <ChipButton
          onClick={() =>
            void attempt(async () => {
              await api('DELETE /api/v1/folders/:id', here);
              router.push(above);
            })
          }
        >
          Remove
        </ChipButton>
      )}
      {here !== null && markings.length > 0 && (
        <TextField
          select
          label="New documents"
          sx={{ width: 170, flex: 'none' }}
          value={here.markingId ?? ''}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={({ target }) => {
            const markingId = markings.find(({ id }) => id === target.value)?.id ?? null;
            void attempt(() => api('POST /api/v1/folders/:id', { id: here.id, markingId }));
          }}
        >
          <MenuItem value="">marked as chosen</MenuItem>
          {markings.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Problem words={problem} />
    </>
  );
}
