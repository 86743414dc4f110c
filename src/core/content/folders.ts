import type { FolderId } from '@/core/base/ids';

export type FolderNode = {
  readonly id: FolderId;
  readonly parentId: FolderId | null;
  readonly name: string;
};

/** The way to a folder from the top, itself last; empty for one that is not there. */
export function wayTo<F extends FolderNode>(folders: readonly F[], id: FolderId | null): F[] {
  const known = new Map(folders.map((folder) => [folder.id, folder]));
  const way: F[] = [];
  // A loop cannot come about by `wouldLoop`; a damaged database must not hang a page.
  for (let at = id; at !== null && way.length <= folders.length; at = way[0]?.parentId ?? null) {
    const folder = known.get(at);
    if (folder === undefined) break;
    way.unshift(folder);
  }
  return way;
}

/** Whether moving a folder there would put it inside itself. */
export function wouldLoop(
  folders: readonly FolderNode[],
  id: FolderId,
  parentId: FolderId | null,
): boolean {
  return wayTo(folders, parentId).some((folder) => folder.id === id);
}

/** A folder and all below it. */
export function withThoseBelow(folders: readonly FolderNode[], id: FolderId): Set<FolderId> {
  const inside = new Set<FolderId>([id]);
  for (let grown = 0; grown !== inside.size;) {
    grown = inside.size;
    for (const folder of folders)
      if (folder.parentId !== null && inside.has(folder.parentId)) inside.add(folder.id);
  }
  return inside;
}

/** `Hull 412 / Tender`: the way as one line. */
export function wayText(folders: readonly FolderNode[], id: FolderId | null): string {
  return wayTo(folders, id)
    .map((folder) => folder.name)
    .join(' / ');
}

/** How new documents in a folder are marked by itself or the nearest folder above; `null`: not at all. */
export function folderMarking<M extends string>(
  folders: readonly (FolderNode & { readonly markingId: M | null })[],
  id: FolderId | null,
): M | null {
  return wayTo(folders, id).findLast(({ markingId }) => markingId !== null)?.markingId ?? null;
}
