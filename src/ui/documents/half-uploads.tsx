'use client';

import { useCallback, useEffect, useState } from 'react';
import Button from '@mui/material/Button';
import type { HalfUpload } from '@/contracts/document';
import { api } from '@/ui/http/api';
import type { UploadId } from '@/core/base/ids';
import { sizeText } from '@/ui/words/size-words';
import { Moment } from '@/ui/time/moment';

/** Uploads that were begun and not finished, asked for once and after each change. */
export function useHalfUploads(): {
  readonly halves: readonly HalfUpload[];
  readonly look: () => void;
} {
  const [halves, setHalves] = useState<readonly HalfUpload[]>([]);
  const look = useCallback(() => {
    api('GET /api/v1/uploads', {}).then(setHalves, () => undefined);
  }, []);
  useEffect(look, [look]);
  return { halves, look };
}

/** The half upload that a chosen file goes on with, if there is one. */
export function halfOf(halves: readonly HalfUpload[], file: File): HalfUpload | null {
  return halves.find((half) => half.fileName === file.name && half.bytes === file.size) ?? null;
}

/** What was cut off: choosing the same file again goes on with it. */
export function HalfUploads({
  halves,
  onDropped,
}: {
  readonly halves: readonly HalfUpload[];
  readonly onDropped: () => void;
}) {
  if (halves.length === 0) return null;
  const drop = async (id: UploadId) => {
    await api('DELETE /api/v1/uploads/:id', { id: id }).catch(() => undefined);
    onDropped();
  };
  return (
    <section className="stack" aria-label="Unfinished uploads">
      <h3>Unfinished uploads</h3>
      <p className="quiet">Choose the same file again to continue.</p>
      {halves.map((half) => (
        <div key={half.id} className="row">
          <b>{half.fileName}</b>
          <span className="figure quiet">
            {sizeText(half.receivedBytes)} of {sizeText(half.bytes)}
          </span>
          <span className="quiet">
            <Moment at={half.updatedAt} />
          </span>
          <span className="gap" />
          <Button onClick={() => void drop(half.id)}>Remove</Button>
        </div>
      ))}
    </section>
  );
}
