'use client';

import { useState } from 'react';
import TextField from '@mui/material/TextField';
import type { Watermark } from '@/core/watermark/layers';
import type { DocumentRow } from '@/contracts/document';
import { useAsked } from '@/ui/http/use-asked';
import { DocumentBox } from '@/ui/protecting/document-box';
import { PreviewPicture } from '@/ui/watermark/preview-picture';

/** Whose pages are shown while a watermark is designed. */
export type ShownAs = {
  readonly document: Pick<DocumentRow, 'id' | 'title' | 'pages'> | null;
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
};

type Props = { readonly layers: Watermark; readonly shownAs: ShownAs };

/** Somebody else than was given is known by nothing but their address. */
function personAt(address: string, given: ShownAs) {
  const { name, organisation } = given;
  return address === given.address
    ? { address, name, organisation }
    : { address: address.trim() || 'somebody', name: '', organisation: '' };
}

/** The first page of a real document with the watermark on it: read, on dark ground, and printed. */
export function MarkPreview({ layers, shownAs }: Props) {
  const [picked, setPicked] = useState<DocumentRow | null>(null);
  const [address, setAddress] = useState(shownAs.address);
  const { answer } = useAsked('GET /api/v1/documents', { own: 'true' });
  // Of what is only kept, there is no page that a mark could be seen on.
  const withPages = [shownAs.document, ...(answer?.rows ?? [])].find(
    (each) => (each?.pages ?? 0) > 0,
  );
  const document = picked ?? withPages ?? null;
  const request = {
    ...personAt(address, shownAs),
    id: document?.id ?? '',
    watermark: layers,
    at: null,
    network: null,
  };
  return (
    <div className="stack">
      <div className="row tight-row">
        {answer !== null && (
          <DocumentBox
            label={document === null ? 'Page of' : `Page of ${document.title}; another one`}
            first={answer}
            chosen={[]}
            onPick={setPicked}
          />
        )}
        <TextField
          label="As"
          value={address}
          onChange={({ target }) => {
            setAddress(target.value);
          }}
        />
      </div>
      {document === null ? (
        <p className="quiet">Protect a document first, to see the watermark on its page.</p>
      ) : (
        <div className="mark-pages">
          <Shown name="As it is read" of={document} request={{ ...request, medium: 'screen' }} />
          <Shown name="As it is printed" of={document} request={{ ...request, medium: 'paper' }} />
          <Shown
            name="On a dark page"
            of={document}
            request={{ ...request, medium: 'screen', ground: 'dark' }}
          />
        </div>
      )}
    </div>
  );
}

function Shown({
  name,
  of: { title, pages },
  request,
}: {
  readonly name: string;
  readonly of: Pick<DocumentRow, 'title' | 'pages'>;
  readonly request: Parameters<typeof PreviewPicture>[0]['request'];
}) {
  return (
    <figure>
      <figcaption className="small quiet">{name}</figcaption>
      <PreviewPicture
        request={request}
        pages={pages}
        alt={`Page 1 of ${title}: ${name.toLowerCase()}`}
      />
    </figure>
  );
}
