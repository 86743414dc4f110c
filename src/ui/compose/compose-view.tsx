'use client';

import { useEffect, useMemo, useState } from 'react';
import Button from '@mui/material/Button';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId, DraftId } from '@/core/base/ids';
import { counted } from '@/core/base/counted';
import { parsePasted } from '@/core/compose/pasted';
import { addRows } from '@/core/compose/sheet';
import { ComposeBar } from '@/ui/compose/compose-bar';
import { ComposeFoot } from '@/ui/compose/compose-foot';
import { Consequences } from '@/ui/compose/consequences';
import { folderMarking } from '@/core/content/folders';
import { EncryptHereButton } from '@/ui/protecting/encrypt-here-button';
import { DocumentStrip } from '@/ui/protecting/document-strip';
import { DraftLine, OtherDrafts } from '@/ui/compose/draft-line';
import { useComposed, type Composed } from '@/ui/compose/use-composed';
import { FolderChoice } from '@/ui/protecting/folder-choice';
import { PlainField } from '@/ui/forms/plain-field';
import { AddressBox } from '@/ui/recipients/address-box';
import { pastedRows } from '@/ui/recipients/pasted-rows';
import { GridTools, useGridTools } from '@/ui/recipients/grid-tools';
import type { GridRow } from '@/ui/recipients/grid-view';
import { RecipientsGrid } from '@/ui/recipients/recipients-grid';
import { Note, Problem } from '@/ui/shell/notice';
import { wayWords } from '@/ui/words/rule-words';

type PartProps = { readonly start: ComposeStart; readonly composed: Composed };

/** One page: documents, recipients and what each may do, and at the side what that means. */
export function ComposeView({
  start,
  chosen,
  to,
  onMade,
}: {
  readonly start: ComposeStart;
  readonly chosen: readonly DocumentId[];
  /** Email addresses of people it begins with. */
  readonly to: string;
  /** Told of a draft that is made of it. */
  readonly onMade: (id: DraftId) => void;
}) {
  const composed = useComposed(start, chosen, to, onMade);
  const [activeKey, setActiveKey] = useState<string | null>(null);
  const active = composed.rows.find(({ row }) => row.key === activeKey) ?? composed.rows[0] ?? null;
  return (
    <main
      className="work compose"
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
        event.preventDefault();
        document.querySelector<HTMLElement>('.send-button')?.click();
      }}
    >
      <div className="surface">
        <ComposeHead start={start} composed={composed} />
        <DocumentStrip
          first={start.documents}
          markings={start.markings}
          documents={composed.documents}
          files={composed.files}
          onPick={composed.pick}
        >
          <FolderChoice
            folders={start.folders}
            value={composed.folderId}
            onChange={composed.setFolderId}
          />
          <EncryptHereButton
            taken={start.documents.rows.map(({ reference }) => reference)}
            folderId={composed.folderId}
            folderMarking={folderMarking(start.folders, composed.folderId)}
            markings={start.markings}
            onDone={(document) => {
              composed.pick(document, true);
            }}
          />
        </DocumentStrip>
        <RecipientsPart start={start} composed={composed} active={active} onActive={setActiveKey} />
        <ComposeFoot composed={composed} />
      </div>
      <aside className="side" aria-label="Consequences">
        <Consequences start={start} composed={composed} active={active} />
      </aside>
    </main>
  );
}

function sendWords({ agreed, isClear, way }: Composed): string {
  if (agreed.length > 0) return 'Ask for approval';
  if (isClear) return 'Send unprotected';
  return way.delivery === 'mail' ? 'Encrypt and dispatch' : 'Encrypt for hand-over';
}

function ComposeHead({ start, composed }: PartProps) {
  const { subject, setSubject, draft, problem, agreed } = composed;
  return (
    <div className="head">
      <div className="row one-row">
        <h1 className="hidden-text">Compose</h1>
        <PlainField
          className="subject"
          label="Subject"
          placeholder="Subject"
          value={subject}
          onText={setSubject}
        />
        <DraftLine draft={draft} />
        {draft.state !== 'untouched' && (
          <Button
            onClick={() =>
              void draft.discard().then(() => {
                window.location.assign('/compose');
              })
            }
          >
            Discard
          </Button>
        )}
        <SendButton composed={composed} />
      </div>
      {draft.state === 'untouched' && <OtherDrafts drafts={start.drafts} />}
      {agreed.length > 0 && (
        <Note>
          {agreed.map((rule) => wayWords[rule.way].name).join(', ')}: it needs a second person.
          Until they approve, nobody is given anything.
        </Note>
      )}
      <Problem words={problem} />
    </div>
  );
}

/**
 * Sends it. Pressed while files are still being protected, or recipients looked up, it sends as soon
 * as that is done, unless something comes up by then.
 */
function SendButton({ composed }: { readonly composed: Composed }) {
  const { busy, problems, problem, concerns, coming, isChecking, send } = composed;
  const isWaiting = coming > 0 || isChecking;
  const [armed, setArmed] = useState(false);
  // What could not be sent is not tried again by itself.
  const isArmed = armed && problem === null;
  // The documents that come are not chosen yet, which is nothing to mend.
  const stops = concerns.filter(({ code }) => coming === 0 || code !== 'no-documents').length;
  const canSend = problems.length + stops === 0;
  const isReady = isArmed && !isWaiting && canSend && !busy;
  useEffect(() => {
    if (isReady) void send();
    // Sent once, as it is when the last file has come.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [isReady]);
  if (isArmed && canSend)
    return (
      <>
        <span role="status" className="lamp small nowrap">
          {coming > 0
            ? `leaves once ${counted(coming, 'file is', 'files are')} protected`
            : 'checking the recipients…'}
        </span>
        <Button
          onClick={() => {
            setArmed(false);
          }}
        >
          Cancel
        </Button>
      </>
    );
  return (
    <Button
      variant="contained"
      className="nowrap send-button"
      disabled={busy || !canSend}
      aria-keyshortcuts="Control+Enter"
      onClick={() => {
        if (isWaiting) setArmed(true);
        else void send();
      }}
    >
      {sendWords(composed)}
    </Button>
  );
}

function RecipientsPart({
  start,
  composed,
  active,
  onActive,
}: PartProps & {
  readonly active: GridRow | null;
  readonly onActive: (key: string) => void;
}) {
  const { work, rows, columns, documents, concernOf, common } = composed;
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const tools = useGridTools({ rows, columns, common, concernOf });
  const onPlace = useMemo(
    () => (place: { readonly key: string; readonly selected: ReadonlySet<string> }) => {
      onActive(place.key);
      setSelected(place.selected);
    },
    [onActive],
  );
  return (
    <>
      <div className="compose-row">
        <AddressBox
          onDown={() => {
            document.querySelector<HTMLElement>('.grid-frame')?.focus();
          }}
          onAdd={(added) => {
            work.change((sheet) => addRows(sheet, added));
          }}
        />
        <ComposeBar start={start} composed={composed} selected={selected} active={active} />
      </div>
      <GridTools tools={tools} work={work} selected={selected} total={rows.length} />
      <RecipientsGrid
        work={work}
        rows={tools.shown}
        columns={columns}
        documents={documents}
        now={start.now}
        order={tools.order}
        onOrder={tools.setOrder}
        concernOf={concernOf}
        onPaste={(text) => {
          work.change((sheet) => addRows(sheet, pastedRows(parsePasted(text))));
        }}
        onPlace={onPlace}
      />
    </>
  );
}
