'use client';

import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
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
    <TextField
      select
      label="Folder"
      sx={{ width: 150, flex: 'none' }}
      value={value ?? ''}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={({ target }) => {
        onChange(folders.find(({ id }) => id === target.value)?.id ?? null);
      }}
    >
      <MenuItem value="">none</MenuItem>
      {folders.map(({ id }) => (
        <MenuItem key={id} value={id}>
          {wayText(folders, id)}
        </MenuItem>
      ))}
    </TextField>
  );
}
