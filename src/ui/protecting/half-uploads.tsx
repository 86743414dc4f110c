'use client';

import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import type { HalfUpload } from '@/contracts/document';
import { api } from '@/ui/http/api';
import { useAsked } from '@/ui/http/use-asked';
import { useAttempt } from '@/ui/http/use-attempt';
import { Moment } from '@/ui/time/moment';
import { sizeText } from '@/ui/words/size-words';

const ROUTE = 'GET /api/v1/uploads';

export type HalfUploadsFound = {
  readonly found: readonly HalfUpload[];
  readonly look: () => void;
};

/** Uploads that were begun and not finished, asked for once and after each change. */
export function useHalfUploads(): HalfUploadsFound {
  const client = useQueryClient();
  const { answer } = useAsked(ROUTE, {});
  return {
    found: answer ?? [],
    look: () => void client.invalidateQueries({ queryKey: [ROUTE] }),
  };
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
  const { busy, attempt } = useAttempt();
  if (halves.length === 0) return null;
  return (
    <section className="stack" aria-label="Unfinished uploads">
      <h3>Unfinished uploads</h3>
      <p className="quiet">Choose the same file again to continue.</p>
      {halves.map(({ id, fileName, receivedBytes, bytes, updatedAt }) => (
        <div key={id} className="row">
          <b>{fileName}</b>
          <span className="figure quiet">
            {sizeText(receivedBytes)} of {sizeText(bytes)}
          </span>
          <span className="quiet">
            <Moment at={updatedAt} />
          </span>
          <span className="gap" />
          <Button
            disabled={busy}
            onClick={() =>
              void attempt(() => api('DELETE /api/v1/uploads/:id', { id })).then(onDropped)
            }
          >
            Remove
          </Button>
        </div>
      ))}
    </section>
  );
}
