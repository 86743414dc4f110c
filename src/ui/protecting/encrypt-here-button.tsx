'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { DocumentRow } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { named } from '@/ui/protecting/use-files';

/** Fetched when it is opened. */
const EncryptHere = dynamic(() =>
  import('@/ui/protecting/encrypt-here').then((panel) => panel.EncryptHere),
);

/** Leads to encrypting a file on this machine, whose content is never sent here. */
export function EncryptHereButton({
  taken,
  folderId,
  folderMarking,
  markings,
  onDone,
}: {
  /** References that are not free, as far as they are known here. */
  readonly taken: readonly string[];
  readonly folderId: FolderId | null;
  readonly folderMarking: MarkingId | null;
  readonly markings: readonly MarkingRow[];
  readonly onDone: (document: DocumentRow) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const close = () => {
    setOpen(false);
  };
  const done = async (reference: string) => {
    const document = (await named(reference)).find((each) => each.reference === reference);
    if (document !== undefined) onDone(document);
  };
  return (
    <>
      <Button
        className="nowrap"
        onClick={() => {
          setOpen(true);
        }}
      >
        Encrypt on this machine…
      </Button>
      <Dialog open={isOpen} fullWidth maxWidth="sm">
        <DialogTitle>Encrypt on this machine</DialogTitle>
        <DialogContent>
          {isOpen && (
            <EncryptHere
              taken={taken}
              folderId={folderId}
              folderMarking={folderMarking}
              markings={markings}
              onProtected={(reference) => void done(reference)}
            />
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
