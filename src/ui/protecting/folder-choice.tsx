'use client';

import NativeSelect from '@mui/material/NativeSelect';
import type { FolderRow } from '@/contracts/folder';
import type { FolderId } from '@/core/base/ids';
import { wayText } from '@/core/content/folders';

/** The folder that new documents are put into. Shows nothing where there are none. */
export function FolderChoice({
  folders,
  value,
  onChange,
}: {
  readonly folders: readonly FolderRow[];
  readonly value: FolderId | null;
  readonly onChange: (folder: FolderId | null) => void;
}) {
  if (folders.length === 0) return null;
  return (
    <NativeSelect
      className="folder-choice"
      value={value ?? ''}
      inputProps={{ 'aria-label': 'Folder of new documents' }}
      onChange={({ target }) => {
        onChange(folders.find(({ id }) => id === target.value)?.id ?? null);
      }}
    >
      <option value="">into no folder</option>
      {folders.map(({ id }) => (
        <option key={id} value={id}>
          into {wayText(folders, id)}
        </option>
      ))}
    </NativeSelect>
  );
}
