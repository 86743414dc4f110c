'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { Colleague } from '@/contracts/document';
import type { FolderRow } from '@/contracts/folder';
import type { MarkingRow } from '@/contracts/marking';
import type { DocumentId } from '@/core/base/ids';
import { wayText } from '@/core/content/folders';
import { FilingImpact, useFiling } from '@/ui/documents/use-filing';
import { DestroyKeys } from '@/ui/documents/destroy-keys';
import { useHolds } from '@/ui/shell/permissions';

const NONE = 'none';
/** Documents one dispatch may carry. */
const MOST_SENT = 50;

type Props = {
  readonly documents: readonly DocumentId[];
  readonly titles: readonly string[];
  readonly folders: readonly FolderRow[];
  readonly markings: readonly MarkingRow[];
  readonly colleagues: readonly Colleague[];
  readonly onDone: (said?: string) => void;
};

/** Files the selected documents together: folder, marking, owner, deputy. */
export function FilingBar({ documents, titles, folders, markings, colleagues, onDone }: Props) {
  const filing = useFiling(documents, onDone);
  const { file, said } = filing;
  const destroys = useHolds('destroy-key');
  const field = (
    label: string,
    name: string,
    options: readonly { readonly id: string; readonly name: string }[],
    none: string | null,
  ) => (
    <TextField
      select
      label={label}
      value=""
      sx={{ minWidth: 130, maxWidth: 190 }}
      onChange={(event) =>
        void file({ [name]: event.target.value === NONE ? null : event.target.value })
      }
    >
      {none !== null && <MenuItem value={NONE}>{none}</MenuItem>}
      {options.map((option) => (
        <MenuItem key={option.id} value={option.id}>
          {option.name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <div className="row above-12" role="group" aria-label="Selected documents">
      <b>{documents.length} selected</b>
      {field(
        'Move to',
        'folderId',
        folders.map((folder) => ({ id: folder.id, name: wayText(folders, folder.id) })),
        'no folder',
      )}
      {field('Mark', 'markingId', markings, 'no marking')}
      {field('Give to', 'ownerId', colleagues, null)}
      {field('Deputy', 'deputyId', colleagues, 'no deputy')}
      {documents.length <= MOST_SENT && (
        <Button component={Link} href={`/compose?document=${documents.join(',')}`}>
          Dispatch
        </Button>
      )}
      {destroys && <DestroyKeys documents={documents} titles={titles} onDone={onDone} />}
      <Button
        variant="text"
        onClick={() => {
          onDone();
        }}
      >
        Clear selection
      </Button>
      {said?.stops === true && (
        <span role="alert" className="magenta">
          {said.text}
        </span>
      )}
      <FilingImpact filing={filing} />
    </div>
  );
}
