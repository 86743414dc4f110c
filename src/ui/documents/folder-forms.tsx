'use client';

import { changeFolderInput, makeFolderInput, type FolderRow } from '@/contracts/folder';
import { NameForm } from '@/ui/forms/name-form';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** A folder made below another. */
export function NewFolder({
  parent,
  onClose,
}: {
  readonly parent: FolderRow | null;
  readonly onClose: () => void;
}) {
  const make = useContractForm({
    schema: makeFolderInput,
    start: { name: '', parentId: parent?.id ?? null },
    send: (input) => api('POST /api/v1/folders', input),
    onDone: onClose,
  });
  return (
    <NameForm
      of={make}
      name="name"
      label="Name of the folder"
      action="Create folder"
      onClose={onClose}
    />
  );
}

/** A folder named otherwise. */
export function RenameFolder({
  of,
  onClose,
}: {
  readonly of: FolderRow;
  readonly onClose: () => void;
}) {
  const rename = useContractForm({
    schema: changeFolderInput,
    start: { id: of.id, name: of.name },
    send: (input) => api('POST /api/v1/folders/:id', input),
    onDone: onClose,
  });
  return (
    <NameForm of={rename} name="name" label="Name of the folder" action="Save" onClose={onClose} />
  );
}
