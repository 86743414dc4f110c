'use client';

import { useEffect, useState } from 'react';
import { mayPass, useAnotherTry } from '@/ui/pages/use-another-try';
import { pagePreview } from '@/ui/watermark/page-preview';

const WAIT = 350;

/** The picture of a page, drawn anew a moment after what stands on it changed. */
export function PreviewPicture({
  request,
  alt,
}: {
  readonly request: Parameters<typeof pagePreview>[0];
  readonly alt: string;
}) {
  const [picture, setPicture] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const { attempt, fail } = useAnotherTry();
  const asked = JSON.stringify(request);
  useEffect(() => {
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
  }, [asked, attempt, fail]);
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
