'use client';

import { useEffect, useEffectEvent, useRef, useState } from 'react';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { FileDrop } from '@/ui/files/file-drop';
import { useSealHere, type SealState } from '@/ui/protecting/use-seal-here';
import { Note, Problem } from '@/ui/shell/notice';
import { sizeText } from '@/ui/words/size-words';

type Props = {
  /** References that are not free. */
  readonly taken: readonly string[];
  readonly folderId: FolderId | null;
  readonly folderMarking: MarkingId | null;
  readonly markings: readonly MarkingRow[];
  readonly onProtected: (reference: string) => void;
};

/** Encrypts one file on this machine: the document is never sent to the service, only its key is there. */
export function EncryptHere({ taken, folderId, folderMarking, markings, onProtected }: Props) {
  const { state, choose, name, go, stop, again } = useSealHere(taken, folderId, onProtected);
  return (
    <div className="stack">
      <p className="quiet">
        The document is not sent here: only its key is, with its name, size and number of pages. It
        is read on people’s own machines alone, from the protected file that is saved here and that
        you hand over. Pages are never drawn here, so copying, printing and keeping are held by the
        reader alone.
      </p>
      {(state.kind === 'empty' || state.kind === 'looking') && (
        <FileDrop
          words="Drop a file to encrypt here"
          busy={state.kind === 'looking'}
          onFile={choose}
        />
      )}
      {state.kind === 'chosen' && (
        <NameIt
          state={state}
          markings={markings}
          folderMarking={folderMarking}
          onName={name}
          onGo={go}
          onStop={again}
        />
      )}
      {state.kind === 'sealing' && <Sealing state={state} onStop={stop} />}
      {state.kind === 'done' && <Save state={state} onAgain={again} />}
      {state.kind === 'empty' && <Problem words={state.problem} />}
    </div>
  );
}

function NameIt({
  state: { title, reference, file, found, problem },
  markings,
  folderMarking,
  onName,
  onGo,
  onStop,
}: Pick<Props, 'markings' | 'folderMarking'> & {
  readonly state: SealState & { readonly kind: 'chosen' };
  readonly onName: (named: { readonly title?: string; readonly reference?: string }) => void;
  readonly onGo: (marking: MarkingId | null) => void;
  readonly onStop: () => void;
}) {
  const [marking, setMarking] = useState<MarkingId | 'none' | null>(folderMarking);
  const isUnchosen = marking === null && markings.length > 0;
  const shown = found.pages === 0 ? 'not shown as pages there' : `${String(found.pages)} pages`;
  return (
    <>
      <p className="quiet">
        {file.name} · {sizeText(file.size)} · {shown}
      </p>
      {found.pages === 0 && (
        <Note>
          Only a PDF can be read on people’s own machines. Save it as one and choose that.
        </Note>
      )}
      <div className="fields">
        <TextField
          label="Title"
          value={title}
          onChange={({ target }) => {
            onName({ title: target.value });
          }}
        />
        <TextField
          label="Reference"
          value={reference}
          onChange={({ target }) => {
            onName({ reference: target.value });
          }}
        />
        {markings.length > 0 && (
          <TextField
            select
            label="Marking"
            value={marking ?? ''}
            onChange={({ target }) => {
              const known = markings.find(({ id }) => id === target.value);
              setMarking(known?.id ?? 'none');
            }}
          >
            <MenuItem value="none">none</MenuItem>
            {markings.map(({ id, name: words }) => (
              <MenuItem key={id} value={id}>
                {words}
              </MenuItem>
            ))}
          </TextField>
        )}
      </div>
      <Problem words={problem} />
      <div className="row">
        <Button
          variant="contained"
          disabled={
            isUnchosen || title.trim() === '' || reference.trim() === '' || found.pages === 0
          }
          onClick={() => {
            onGo(marking === 'none' ? null : marking);
          }}
        >
          Encrypt on this machine
        </Button>
        <Button onClick={onStop}>Choose another file</Button>
      </div>
    </>
  );
}

function Sealing({
  state: { file, sealed },
  onStop,
}: {
  readonly state: SealState & { readonly kind: 'sealing' };
  readonly onStop: () => void;
}) {
  return (
    <div className="stack" role="status">
      <p>
        Encrypting {file.name}: {sizeText(sealed)} of {sizeText(file.size)}
      </p>
      <LinearProgress
        variant="determinate"
        aria-label="Encrypted so far"
        value={(100 * sealed) / Math.max(1, file.size)}
      />
      <div className="row">
        <Button onClick={onStop}>Cancel</Button>
      </div>
    </div>
  );
}

function Save({
  state: { reference, made },
  onAgain,
}: {
  readonly state: SealState & { readonly kind: 'done' };
  readonly onAgain: () => void;
}) {
  const link = useRef<HTMLAnchorElement>(null);
  const save = () => {
    const { current } = link;
    if (current === null) return;
    const url = URL.createObjectURL(made);
    current.href = url;
    current.click();
    // A large file is still being copied when this returns.
    setTimeout(() => {
      URL.revokeObjectURL(url);
    }, 60_000);
  };
  const saving = useEffectEvent(save);
  useEffect(() => {
    saving();
  }, []);
  return (
    <div className="stack" role="status">
      <p>
        <b className="figure">{reference}</b> is encrypted. Keep its protected file, which is being
        saved: it is nowhere else, and what is lost is made again from your original alone.
      </p>
      <a ref={link} hidden download={made.name} aria-hidden="true" tabIndex={-1}>
        {made.name}
      </a>
      <div className="row">
        <Button variant="contained" onClick={save}>
          Save it again
        </Button>
        <Button onClick={onAgain}>Encrypt another</Button>
      </div>
      <p className="quiet">
        {made.name} · {sizeText(made.size)}. Hand it over by any means; it opens for those to whom
        you dispatch the document.
      </p>
    </div>
  );
}
