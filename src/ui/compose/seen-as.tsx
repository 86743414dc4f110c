'use client';

import { useState, type ComponentProps } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { DocumentRow } from '@/contracts/document';
import type { Terms } from '@/core/policy/rights';
import type { Watermark } from '@/core/watermark/layers';
import { useAsked } from '@/ui/http/use-asked';
import { nameOf, organisationOf, type GridRow } from '@/ui/recipients/grid-view';
import { SeenReader } from '@/ui/seen/seen-reader';
import { Problem } from '@/ui/shell/notice';
import { PreviewPicture } from '@/ui/watermark/preview-picture';
import { NOW, WhatIf, type Case } from '@/ui/why/what-if';
import { given, RightsFound } from '@/ui/why/why-panel';
import { refusedWords } from '@/ui/why/why-words';

type Props = {
  /** The row it is seen as; where nobody is named yet, somebody. */
  readonly each: GridRow | null;
  readonly terms: Terms;
  readonly documents: readonly DocumentRow[];
  readonly watermark: Watermark;
};

/** Who is shown for a row that stands for many, or where nobody is named. */
export function seenAs(each: GridRow | null) {
  if (each?.row.kind === 'person')
    return {
      address: each.row.key,
      name: nameOf(each),
      organisation: organisationOf(each),
      title: nameOf(each) || each.row.key,
    };
  if (each?.row.kind === 'domain')
    return {
      address: `somebody${each.row.key}`,
      name: '',
      organisation: organisationOf(each),
      title: `somebody${each.row.key}`,
    };
  return { address: 'somebody', name: '', organisation: '', title: 'somebody' };
}

/** The first page of a document as a recipient would see it, and why each right is as it is. */
export function SeenAs({ each, terms, documents, watermark }: Props) {
  const [asked, setAsked] = useState<Case>(NOW);
  const [wanted, setWanted] = useState<string | null>(null);
  const theirs = documents.filter(({ id }) => each?.row.without.includes(id) !== true);
  const document = theirs.find(({ id }) => id === wanted) ?? theirs[0];
  const who = seenAs(each);
  const { answer, problem } = useAsked(
    'POST /api/v1/explain/supposed',
    document === undefined || each === null
      ? null
      : {
          document: document.id,
          address: who.address,
          name: who.name,
          terms,
          at: asked.at,
          network: given(asked.network),
          country: given(asked.country),
          device: given(asked.device),
        },
  );
  if (document === undefined) return null;
  return (
    <section className="stack" aria-label="As the recipient sees it">
      <h2>As {who.title}</h2>
      {theirs.length > 1 && (
        <TextField
          select
          label="Document"
          value={document.id}
          onChange={({ target }) => {
            setWanted(target.value);
          }}
        >
          {theirs.map(({ id, title }) => (
            <MenuItem key={id} value={id}>
              {title}
            </MenuItem>
          ))}
        </TextField>
      )}
      {answer?.opens === false ? (
        <p className="refused-page">
          They would be refused: {refusedWords[answer.reason ?? 'not-addressed']}.
        </p>
      ) : (
        <PreviewPicture
          key={document.id}
          request={{
            id: document.id,
            address: who.address,
            name: who.name,
            organisation: who.organisation,
            watermark,
            at: asked.at,
            network: given(asked.network),
          }}
          pages={document.pages}
          isHere={!document.isLocal}
          alt={`Page 1 of ${document.title}, as a preview`}
        />
      )}
      <Problem words={problem} />
      {answer !== null && (
        <Explained
          explained={answer}
          document={document}
          person={who}
          watermark={watermark}
          at={asked.at}
          network={given(asked.network)}
        />
      )}
      <WhatIf asked={asked} onAsk={setAsked} others={false} />
    </section>
  );
}

/** The reader, and each right with its reason; what was encrypted elsewhere is not drawn here. */
function Explained(
  props: Omit<ComponentProps<typeof SeenReader>, 'leave' | 'otherCase'> & {
    readonly document: DocumentRow;
  },
) {
  const { explained, document } = props;
  return (
    <>
      {document.isLocal ? (
        <p className="quiet">
          Encrypted on your machine: its pages are drawn on theirs, and not here.
        </p>
      ) : (
        <ReadAsThem {...props} />
      )}
      {explained.opens && <RightsFound found={explained} />}
    </>
  );
}

/** The reader, whole, as they would have it. */
function ReadAsThem(props: Omit<ComponentProps<typeof SeenReader>, 'leave' | 'otherCase'>) {
  const [isOpen, setOpen] = useState(false);
  const close = () => {
    setOpen(false);
  };
  return (
    <div>
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        Read as them
      </Button>
      {isOpen && (
        <Dialog
          open
          fullScreen
          onClose={close}
          transitionDuration={0}
          slotProps={{ paper: { 'aria-label': 'As they read' } }}
        >
          <SeenReader {...props} leave={<Button onClick={close}>Back</Button>} otherCase={null} />
        </Dialog>
      )}
    </div>
  );
}
