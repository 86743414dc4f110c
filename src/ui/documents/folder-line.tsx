'use client';

import { useState } from 'react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { ListDocumentsInput } from '@/contracts/document';
import type { FolderRow } from '@/contracts/folder';
import { wayTo } from '@/core/content/folders';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { addressWith } from '@/ui/tables/use-address';

/** Where one is among the folders, the folders here, and what can be done with them. */
export function FolderLine({
  folders,
  filter,
  mayChange,
}: {
  readonly folders: readonly FolderRow[];
  readonly filter: ListDocumentsInput;
  readonly mayChange: boolean;
}) {
  const router = useRouter();
  const [naming, setNaming] = useState<'new' | 'rename' | null>(null);
  const { problem, attempt } = useAttempt();
  const way = wayTo(folders, filter.folder ?? null);
  const here = way.at(-1) ?? null;
  const inside = folders.filter((folder) => folder.parentId === (here?.id ?? null));
  const to = (folder: FolderRow | null) =>
    addressWith('/documents', { q: filter.q, marking: filter.marking, folder: folder?.id });
  const send = async (name: string) => {
    const done = await attempt(() =>
      naming === 'rename' && here !== null
        ? call('POST', `/api/v1/folders/${here.id}`, { name })
        : call('POST', '/api/v1/folders', { name, parentId: here?.id ?? null }),
    );
    if (done) setNaming(null);
  };
  const remove = () =>
    attempt(async () => {
      if (here === null) return;
      await call('DELETE', `/api/v1/folders/${here.id}`);
      router.push(to(way.at(-2) ?? null));
    });
  return (
    <nav className="row above-10" aria-label="Folders">
      <span>
        {way.length === 0 ? <b>All folders</b> : <Link href={to(null)}>All folders</Link>}
        {way.map((folder) => (
          <span key={folder.id}>
            {' '}
            /{' '}
            {folder === here ? <b>{folder.name}</b> : <Link href={to(folder)}>{folder.name}</Link>}
          </span>
        ))}
      </span>
      {inside.map((folder) => (
        <ChipLink key={folder.id} href={to(folder)}>
          {folder.name} <span className="figure quiet">{folder.documents}</span>
        </ChipLink>
      ))}
      {mayChange && naming === null && (
        <ChipButton
          onClick={() => {
            setNaming('new');
          }}
        >
          New folder
        </ChipButton>
      )}
      {mayChange && naming === null && here !== null && (
        <ChipButton
          onClick={() => {
            setNaming('rename');
          }}
        >
          Rename
        </ChipButton>
      )}
      {mayChange && naming === null && here?.documents === 0 && inside.length === 0 && (
        <ChipButton onClick={() => void remove()}>Remove</ChipButton>
      )}
      {naming !== null && (
        <form
          className="row"
          onSubmit={(event) => {
            event.preventDefault();
            const name = new FormData(event.currentTarget).get('name');
            void send(typeof name === 'string' ? name : '');
          }}
        >
          <input
            className="plain"
            name="name"
            required
            autoFocus
            aria-label="Name of the folder"
            placeholder="name"
            defaultValue={naming === 'rename' ? (here?.name ?? '') : ''}
            style={{ width: 180 }}
            onKeyDown={(event) => {
              if (event.key === 'Escape') setNaming(null);
            }}
          />
          <ChipButton type="submit">{naming === 'rename' ? 'Save' : 'Create folder'}</ChipButton>
        </form>
      )}
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
    </nav>
  );
}
