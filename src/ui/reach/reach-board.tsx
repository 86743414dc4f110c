'use client';

import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import type { RecipientId } from '@/core/base/ids';
import { reachSpan, type ReachLine } from '@/core/reach/lines';
import { ReachAxis } from '@/ui/reach/reach-axis';
import { ReachRow } from '@/ui/reach/reach-row';
import { reachScale } from '@/ui/reach/reach-scale';
import { momentText } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';

export type BoardLine = ReachLine & {
  readonly name: string;
  readonly under: string;
  readonly may: string;
  /** What else must hold, in words. */
  readonly conditions: readonly string[];
  readonly mayChange: boolean;
};

type Props = {
  readonly lines: readonly BoardLine[];
  readonly now: number;
  readonly selected: ReadonlySet<RecipientId>;
  readonly onSelect: (selected: ReadonlySet<RecipientId>) => void;
  /** The end that the selected lines would get, before it is made so. */
  readonly proposed: number | null | undefined;
  readonly onPropose: (recipient: RecipientId, until: number) => void;
};

/** Follows the width that an element is given. */
function useWidth(): readonly [React.RefObject<HTMLDivElement | null>, number] {
  const element = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(460);
  useEffect(() => {
    if (element.current === null) return undefined;
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.max(200, Math.floor(entry.contentRect.width)));
    });
    observer.observe(element.current);
    return () => {
      observer.disconnect();
    };
  }, []);
  return [element, width];
}

/**
 * The reach lines of several people, one below the other on one scale. Rows are picked like rows of
 * a list, by pointer or keys.
 */
export function ReachBoard({ lines, now, selected, onSelect, proposed, onPropose }: Props) {
  const zone = useZone();
  const [measured, width] = useWidth();
  const [anchor, setAnchor] = useState(0);
  const board = useRef<HTMLDivElement>(null);
  const scale = useMemo(
    () => reachScale(reachSpan(lines, now), width, zone),
    [lines, now, width, zone],
  );

  const pick = (index: number, range: boolean, toggle: boolean) => {
    const ids = lines.map((line) => line.recipientId);
    const id = ids[index];
    if (id === undefined) return;
    if (range) onSelect(new Set(ids.slice(Math.min(anchor, index), Math.max(anchor, index) + 1)));
    else if (toggle)
      onSelect(
        new Set(selected.has(id) ? [...selected].filter((each) => each !== id) : [...selected, id]),
      );
    else onSelect(new Set([id]));
    if (!range) setAnchor(index);
  };
  const key = (event: KeyboardEvent, index: number) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined && event.key !== ' ') return;
    event.preventDefault();
    const next = Math.max(0, Math.min(lines.length - 1, index + (step ?? 0)));
    pick(next, event.shiftKey && step !== undefined, event.key === ' ');
    board.current?.querySelectorAll<HTMLElement>('.reach-row').item(next).focus();
  };

  return (
    <div
      className="reach"
      role="grid"
      aria-label="Access over time"
      aria-multiselectable="true"
      ref={board}
    >
      <div className="reach-head">
        <span />
        <span />
        <div ref={measured}>
          <ReachAxis
            scale={scale}
            now={now}
            nowLabel={momentText(now, zone).split(' ').slice(0, 2).join(' ')}
          />
        </div>
      </div>
      {lines.map((line, i) => {
        const picked = selected.has(line.recipientId);
        return (
          <Row
            key={line.recipientId}
            line={line}
            picked={picked}
            focusable={i === anchor}
            onClick={(event) => {
              pick(i, event.shiftKey, event.ctrlKey || event.metaKey);
            }}
            onKeyDown={(event) => {
              key(event, i);
            }}
          >
            <ReachRow
              line={line}
              scale={scale}
              now={now}
              proposed={picked ? proposed : undefined}
              name={line.name}
              endText={line.end === null ? 'no end' : momentText(line.end, zone)}
              onPropose={
                line.mayChange && line.revokedAt === null
                  ? (until) => {
                      onPropose(line.recipientId, until);
                    }
                  : undefined
              }
            />
          </Row>
        );
      })}
    </div>
  );
}

/** What a line says, for those who do not see it. */
function wordsOf(line: BoardLine): string {
  const allowed = [line.may, ...line.conditions].join('; ');
  const count = (kind: 'opened' | 'refused') =>
    line.marks.filter((mark) => mark.kind === kind).length;
  return (
    `${line.name}, ${line.under}: ${allowed}; opened ${String(count('opened'))} times, ` +
    `refused ${String(count('refused'))} times${line.revokedAt === null ? '' : '; revoked'}`
  );
}

function Row({
  line,
  picked,
  focusable,
  onClick,
  onKeyDown,
  children,
}: {
  readonly line: BoardLine;
  readonly picked: boolean;
  readonly focusable: boolean;
  readonly onClick: (event: MouseEvent) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly children: ReactNode;
}) {
  return (
    <div
      className="reach-row"
      role="row"
      aria-selected={picked}
      aria-label={wordsOf(line)}
      tabIndex={focusable ? 0 : -1}
      onClick={onClick}
      onKeyDown={onKeyDown}
    >
      <div role="gridcell">
        <b>{line.name}</b>
        <br />
        <span className="quiet">{line.under}</span>
      </div>
      <div role="gridcell" className="quiet">
        {line.may}
        {line.conditions.length > 0 && (
          <span className="under oneline" title={line.conditions.join('; ')}>
            {line.conditions.join('; ')}
          </span>
        )}
      </div>
      <div role="gridcell">{children}</div>
    </div>
  );
}
