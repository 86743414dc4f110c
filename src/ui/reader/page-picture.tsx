'use client';

import { useEffect, useRef, useState } from 'react';
import type { LicenceId } from '@/core/base/ids';
import { sentenceOf } from '@/ui/http/call';
import { mayPass, useAnotherTry } from '@/ui/reader/use-another-try';
import { RefusedError, readerFetch, type OnRefused } from '@/ui/reader/reader-call';

type TextRun = {
  readonly text: string;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};
type Props = {
  readonly licence: LicenceId;
  readonly page: number;
  readonly copy: boolean;
  /** Width by height, until the page itself says: as those before it. */
  readonly ratio: string;
  readonly onRatio: (ratio: string) => void;
  readonly onRefused: OnRefused;
};

const PICTURE_WIDTHS = [800, 1275, 1900];

/** The smallest picture that is sharp at this width on this screen. */
function pictureWidth(element: HTMLElement): number {
  const wanted = element.clientWidth * Math.min(2, window.devicePixelRatio);
  return PICTURE_WIDTHS.find((width) => width >= wanted) ?? 1900;
}

/** One page, asked for once it comes near the view: what was never near was never shown. */
export function PagePicture({ licence, page, copy, ratio, onRatio, onRefused }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(page === 1);
  const [source, setSource] = useState<string | null>(null);
  // A picture has no height before it is decoded; until then the frame keeps its own, or all below would jump.
  const [drawn, setDrawn] = useState(false);
  const [runs, setRuns] = useState<readonly TextRun[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const { attempt, fail } = useAnotherTry();

  useEffect(() => {
    if (frame.current === null) return undefined;
    const observer = new IntersectionObserver(
      (entries) => {
        if (entries.some((entry) => entry.isIntersecting)) setNear(true);
      },
      { rootMargin: '120px' },
    );
    observer.observe(frame.current);
    return () => {
      observer.disconnect();
    };
  }, []);

  useEffect(() => {
    if (!near || frame.current === null) return undefined;
    const stop = new AbortController();
    let url: string | null = null;
    const base = `/api/v1/reader/licences/${licence}/pages/${String(page)}`;
    const load = async (width: number) => {
      const response = await readerFetch(
        'GET',
        `${base}?width=${String(width)}`,
        undefined,
        stop.signal,
      );
      url = URL.createObjectURL(await response.blob());
      if (stop.signal.aborted) return;
      setSource(url);
      if (!copy) return;
      const text = await readerFetch('GET', `${base}/text`, undefined, stop.signal);
      setRuns(((await text.json()) as { readonly runs: readonly TextRun[] }).runs);
    };
    load(pictureWidth(frame.current)).catch((error: unknown) => {
      if (stop.signal.aborted) return;
      if (error instanceof RefusedError) onRefused(error.reason, error.at);
      else {
        setProblem(sentenceOf(error));
        if (mayPass(error)) fail();
      }
    });
    return () => {
      stop.abort();
      if (url !== null) URL.revokeObjectURL(url);
    };
  }, [near, licence, page, copy, onRefused, attempt, fail]);

  return (
    <div
      ref={frame}
      className={drawn ? 'page' : 'page awaited'}
      style={drawn ? undefined : { aspectRatio: ratio }}
    >
      {source === null ? (
        <span role="status">{problem ?? `Page ${String(page)}`}</span>
      ) : (
        <img
          src={source}
          alt={`Page ${String(page)}`}
          draggable={false}
          onLoad={({ currentTarget }) => {
            setDrawn(true);
            onRatio(
              `${String(currentTarget.naturalWidth)} / ${String(currentTarget.naturalHeight)}`,
            );
          }}
          onContextMenu={(event) => {
            if (!copy) event.preventDefault();
          }}
        />
      )}
      {copy && runs.length > 0 && (
        <TextLayer
          runs={runs}
          onCopied={(characters) => {
            void readerFetch(
              'POST',
              `/api/v1/reader/licences/${licence}/pages/${String(page)}/copied`,
              { characters },
              null,
            ).catch(noteRefused(onRefused));
          }}
        />
      )}
      <span className="number">{page}</span>
    </div>
  );
}

/** What the server answers to a copy it is told of: nothing, but where the right has ended. */
function noteRefused(onRefused: OnRefused) {
  return (error: unknown) => {
    if (error instanceof RefusedError) onRefused(error.reason, error.at);
  };
}

/** Text that can be selected over the picture, each run stretched to its place. */
function TextLayer({
  runs,
  onCopied,
}: {
  readonly runs: readonly TextRun[];
  /** So many characters were copied. */ readonly onCopied: (characters: number) => void;
}) {
  const layer = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = layer.current;
    if (element === null) return;
    const { clientWidth, clientHeight } = element;
    element.querySelectorAll('span').forEach((span, i) => {
      const run = runs[i];
      if (run === undefined) return;
      span.style.fontSize = `${String((run.height / 10_000) * clientHeight)}px`;
      span.style.transform = `scaleX(${String(((run.width / 10_000) * clientWidth) / Math.max(1, span.offsetWidth))})`;
    });
  }, [runs]);
  return (
    <div
      className="text"
      ref={layer}
      data-testid="text-layer"
      onCopy={() => {
        const characters = window.getSelection()?.toString().length ?? 0;
        if (characters > 0) onCopied(characters);
      }}
    >
      {runs.map((run, i) => (
        <span
          key={i}
          style={{ left: `${String(run.left / 100)}%`, top: `${String(run.top / 100)}%` }}
        >
          {run.text}
        </span>
      ))}
    </div>
  );
}
