import type { DocumentId, LicenceId } from '@/core/base/ids';
import type { TakenAt } from '@/core/own-machine/kept-licence';
import type { KeyTaken, OfflineOpen } from '@/contracts/own-machine';
import { inStore, inStores } from '@/ui/own-machine/reader-store';

/** What the reader shows of a document beside its pages. */
type AboutKept = {
  readonly title: string;
  readonly reference: string;
  readonly sender: string;
  readonly organisation: string;
  readonly address: string;
  readonly mayHaveText: 'nothing' | 'aids' | 'copying';
  readonly captureDeterrent: boolean;
  /** What is written is handed in later. */
  readonly mayComment: boolean;
  readonly document: DocumentId;
};

/** A licence that is kept in this browser, so that its file is read without a connection. */
export type KeptLicence = TakenAt & {
  readonly licence: LicenceId;
  readonly version: string;
  readonly taken: KeyTaken;
  readonly about: AboutKept;
  /** Opens without a connection so far. */
  readonly opens: number;
};

const keyOf = ({ licence, number }: Pick<OfflineOpen, 'licence' | 'number'>): string =>
  `${licence} ${String(number)}`;

/** Keeps a licence in the place of the one before of the same version. */
export async function keepLicence(kept: Omit<KeptLicence, 'opens'>): Promise<void> {
  const before = await licenceOf(kept.version);
  const opens = before?.licence === kept.licence ? before.opens : 0;
  await inStore('licences', 'readwrite', (store) => store.put({ ...kept, opens }, kept.version));
}

export function licenceOf(version: string): Promise<KeptLicence | undefined> {
  return inStore(
    'licences',
    'readonly',
    (store) => store.get(version) as IDBRequest<KeptLicence | undefined>,
  );
}

export function allLicences(): Promise<KeptLicence[]> {
  return inStore('licences', 'readonly', (store) => store.getAll() as IDBRequest<KeptLicence[]>);
}

export async function forgetLicence(version: string): Promise<void> {
  await inStore('licences', 'readwrite', (store) => store.delete(version));
}

/**
 * Writes an open down before anything of it is shown, and counts it. Rejects where it cannot be kept:
 * then nothing may be shown.
 */
export async function beginOpen(kept: KeptLicence, openedAt: number): Promise<OfflineOpen> {
  const number = kept.opens + 1;
  const open: OfflineOpen = { licence: kept.licence, number, openedAt, pages: [] };
  await inStores(['licences', 'opens'], 'readwrite', (storeOf) => {
    storeOf('opens').add(open, keyOf(open));
    return storeOf('licences').put({ ...kept, opens: number, lastSeen: openedAt }, kept.version);
  });
  return open;
}

/** So many pages are told of one open: what is handed in is short. */
const MOST_PAGES = 1_000;

/** Adds to how long pages were in view, and how late it has become. */
export async function noteRead(
  kept: KeptLicence,
  open: OfflineOpen,
  seen: readonly { readonly page: number; readonly shown: number }[],
  now: number,
): Promise<OfflineOpen> {
  const pages = new Map(open.pages);
  for (const { page, shown } of seen)
    if (pages.has(page) || pages.size < MOST_PAGES) pages.set(page, (pages.get(page) ?? 0) + shown);
  const noted: OfflineOpen = { ...open, pages: [...pages] };
  await inStores(['licences', 'opens'], 'readwrite', (storeOf) => {
    storeOf('licences').put({ ...kept, opens: open.number, lastSeen: now }, kept.version);
    return storeOf('opens').put(noted, keyOf(open));
  });
  return noted;
}

/** Opens that are still to be handed in, in the order they were made. */
export async function opensToHandIn(): Promise<OfflineOpen[]> {
  const opens = await inStore(
    'opens',
    'readonly',
    (store) => store.getAll() as IDBRequest<OfflineOpen[]>,
  );
  return opens.sort((a, b) => a.openedAt - b.openedAt || a.number - b.number);
}

export async function forgetOpen(open: OfflineOpen): Promise<void> {
  await inStore('opens', 'readwrite', (store) => store.delete(keyOf(open)));
}
