'use client';

import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useWords } from '@/ui/words/use-words';
import type { SharedDocument } from '@/contracts/reader';

/** A protected file that somebody picked, to be read here once they proved who they are. */
export type PickedFile = { readonly file: File; readonly version: string };

type Held = {
  readonly picked: PickedFile | null;
  readonly pick: (picked: PickedFile | null) => void;
};
const Picked = createContext<Held>({ picked: null, pick: () => undefined });

/** Holds the picked file while one page of the reader leads to another. It is written nowhere. */
export function PickedFileProvider({ children }: { readonly children: ReactNode }) {
  const [picked, pick] = useState<PickedFile | null>(null);
  const held = useMemo(() => ({ picked, pick }), [picked]);
  return <Picked value={held}>{children}</Picked>;
}

export function usePickedFile(): Held {
  return useContext(Picked);
}

/** The document whose current version a picked file holds. */
export function documentOf<D extends SharedDocument>(
  picked: PickedFile | null,
  documents: readonly D[],
): D | undefined {
  return picked === null ? undefined : documents.find(({ version }) => version === picked.version);
}

/** Says where a picked file is of none of these. */
export function NotAmong({ documents }: { readonly documents: readonly SharedDocument[] }) {
  const { picked } = usePickedFile();
  const { say } = useWords();
  if (picked === null || documentOf(picked, documents) !== undefined) return null;
  return (
    <p role="status" className="notice" dir="auto">
      {say('own.notAmong', { name: picked.file.name })}
    </p>
  );
}
