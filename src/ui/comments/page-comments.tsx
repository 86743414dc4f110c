'use client';

import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { boxesOf, WHOLE_PAGE, type CommentBox, type CommentPlace } from '@/core/comments/comment';
import type { Comments } from '@/ui/comments/comments-state';
import { useWords } from '@/ui/words/use-words';

/** From so far on a drag marks an area, in hundredths of a percent of the page. */
const DRAGGED = 60;

type At = { readonly left: number; readonly top: number };

function within(value: number): number {
  return Math.max(0, Math.min(WHOLE_PAGE, Math.round(value)));
}

function boxOf(from: At, to: At): CommentBox {
  return {
    left: Math.min(from.left, to.left),
    top: Math.min(from.top, to.top),
    width: Math.abs(from.left - to.left),
    height: Math.abs(from.top - to.top),
  };
}

function placeOf(from: At, to: At): CommentPlace {
  const box = boxOf(from, to);
  return box.width < DRAGGED && box.height < DRAGGED
    ? { kind: 'point', ...to }
    : { kind: 'area', box };
}

/** The text of a page that is selected, as boxes on it; null: none. */
function selectedPlace(layer: HTMLElement): CommentPlace | null {
  const selection = window.getSelection();
  if (selection === null || selection.isCollapsed || selection.rangeCount === 0) return null;
  const sheet = layer.getBoundingClientRect();
  const boxes = [...selection.getRangeAt(0).getClientRects()]
    .filter(({ width, height, left, top }) => {
      const isOnPage = left < sheet.right && top < sheet.bottom && left >= sheet.left - 1;
      return width > 1 && height > 1 && isOnPage;
    })
    .slice(0, 100)
    .map(({ left, top, width, height }) => ({
      left: within(((left - sheet.left) / sheet.width) * WHOLE_PAGE),
      top: within(((top - sheet.top) / sheet.height) * WHOLE_PAGE),
      width: within((width / sheet.width) * WHOLE_PAGE),
      height: within((height / sheet.height) * WHOLE_PAGE),
    }));
  return boxes.length === 0 ? null : { kind: 'text', boxes };
}

/** What stands on one page of comments, and where the next one is put. */
export function PageComments({
  page,
  comments,
}: {
  readonly page: number;
  readonly comments: Comments;
}) {
  const { say } = useWords();
  const { threads, draft, isPlacing, active, setActive } = comments;
  const numberOf = (id: string): number => threads.findIndex(({ first }) => first.id === id) + 1;
  const here = threads.filter(({ first }) => first.page === page);
  return (
    <div className="comments">
      {here.map(({ first }) => (
        <Mark
          key={first.id}
          place={first.place}
          label={String(numberOf(first.id))}
          name={say(first.resolvedAt === null ? 'comments.numbered' : 'comments.numberedResolved', {
            number: String(numberOf(first.id)),
          })}
          isActive={active === first.id}
          isResolved={first.resolvedAt !== null}
          onPick={() => {
            setActive(first.id);
          }}
        />
      ))}
      {draft?.page === page && <NewMark place={draft.place} />}
      {isPlacing && <Placing page={page} comments={comments} />}
    </div>
  );
}

function percent(share: number): string {
  return `${String(share / 100)}%`;
}

/** Where the comment that is being written will stand. */
function NewMark({ place }: { readonly place: CommentPlace }) {
  const { say } = useWords();
  const label = say('comments.new');
  return (
    <Mark place={place} label={label} name={label} isActive isResolved={false} onPick={null} />
  );
}

function Mark({
  place,
  label,
  name,
  isActive,
  isResolved,
  onPick,
}: {
  readonly place: CommentPlace;
  readonly label: string;
  /** The same in full, for a screen reader. */
  readonly name: string;
  readonly isActive: boolean;
  readonly isResolved: boolean;
  readonly onPick: (() => void) | null;
}) {
  const boxes = boxesOf(place);
  const at = place.kind === 'point' ? place : (boxes[0] ?? { left: 0, top: 0 });
  const state = `${isActive ? ' current' : ''}${isResolved ? ' resolved' : ''}`;
  return (
    <>
      {boxes.map(({ left, top, width, height }, i) => (
        <span
          key={i}
          className={`comment-box ${place.kind}${state}`}
          style={{
            left: percent(left),
            top: percent(top),
            width: percent(width),
            height: percent(height),
          }}
        />
      ))}
      <button
        type="button"
        className={`comment-mark${state}`}
        aria-label={name}
        style={{ left: percent(at.left), top: percent(at.top) }}
        disabled={onPick === null}
        onClick={onPick ?? undefined}
      >
        {label}
      </button>
    </>
  );
}

/** Takes the next click as a point of the page, and a drag as an area; selected text stands for itself. */
function Placing({ page, comments }: { readonly page: number; readonly comments: Comments }) {
  const layer = useRef<HTMLDivElement>(null);
  const [from, setFrom] = useState<At | null>(null);
  const [to, setTo] = useState<At | null>(null);
  const { setDraft, setPlacing, draft } = comments;
  const text = draft?.text ?? '';
  useEffect(() => {
    const element = layer.current;
    const place = element === null ? null : selectedPlace(element);
    if (place === null) return;
    setDraft({ page, place, text });
    setPlacing(false);
    window.getSelection()?.removeAllRanges();
  }, [page, text, setDraft, setPlacing]);
  const at = (event: PointerEvent<HTMLDivElement>): At => {
    // Where on the page itself, however it is turned.
    const { offsetX, offsetY } = event.nativeEvent;
    const { clientWidth, clientHeight } = event.currentTarget;
    return {
      left: within((offsetX / clientWidth) * WHOLE_PAGE),
      top: within((offsetY / clientHeight) * WHOLE_PAGE),
    };
  };
  return (
    <div
      ref={layer}
      className="placing"
      data-testid="placing"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setFrom(at(event));
        setTo(at(event));
      }}
      onPointerMove={(event) => {
        if (from !== null) setTo(at(event));
      }}
      onPointerUp={(event) => {
        if (from !== null) setDraft({ page, place: placeOf(from, at(event)), text });
        setPlacing(false);
      }}
    >
      {from !== null && to !== null && <NewMark place={placeOf(from, to)} />}
    </div>
  );
}
