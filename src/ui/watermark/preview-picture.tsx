'use client';

import { useEffect, useState } from 'react';
import { mayPass, useAnotherTry } from '@/ui/pages/use-another-try';
import { NOT_SHOWN } from '@/ui/words/pages-words';
import { pagePreview } from '@/ui/watermark/page-preview';

const WAIT = 350;

/** The picture of a page, drawn anew a moment after what stands on it changed. */
export function PreviewPicture({
  request,
  pages,
  isHere = true,
  alt,
}: {
  readonly request: Parameters<typeof pagePreview>[0];
  /** How many the document has; 0: it is only kept, and has none to be drawn. */
  readonly pages: number;
  /** Whether its content is at the service: else there is nothing to be drawn, and no words for it. */
  readonly isHere?: boolean;
  readonly alt: string;
}) {
  const [picture, setPicture] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const { attempt, fail } = useAnotherTry();
  const asked = JSON.stringify(request);
  useEffect(() => {
    if (pages === 0 || !isHere) return undefined;
    let current = true;
    let address: string | null = null;
    const timer = setTimeout(() => {
      pagePreview(JSON.parse(asked) as typeof request).then(
        (made) => {
          address = made;
          if (current) {
            setPicture(made);
            setFailed(false);
          } else URL.revokeObjectURL(made);
        },
        (error: unknown) => {
          if (!current) return;
          setFailed(true);
          if (mayPass(error)) fail();
        },
      );
    }, WAIT);
    return () => {
      current = false;
      clearTimeout(timer);
      if (address !== null) URL.revokeObjectURL(address);
    };
  }, [asked, pages, isHere, attempt, fail]);
  if (!isHere) return null;
  if (pages === 0) return <p className="quiet">{NOT_SHOWN}</p>;
  if (failed) return <p className="quiet">The page cannot be shown here.</p>;
  return (
    <div className="first-page">
      {picture === null ? (
        <span className="quiet small">drawing…</span>
      ) : (
        <img src={picture} alt={alt} draggable={false} />
      )}
    </div>
  );
}
