'use client';

import { OfflineTail } from '@/ui/reach/reach-row';

/** What the shapes on the lines stand for. */
export function ReachLegend() {
  return (
    <span className="row quiet small">
      <span>
        <svg width="10" height="10" aria-hidden="true">
          <circle cx="5" cy="5" r="3.8" fill="var(--current)" />
        </svg>{' '}
        opened
      </span>
      <span>
        <svg width="14" height="13" aria-hidden="true">
          <path
            d="M7 1l5.5 5.5L7 12 1.5 6.5ZM5 4.5l4 4m0-4l-4 4"
            fill="none"
            stroke="var(--magenta)"
            strokeWidth="1.2"
          />
        </svg>{' '}
        refused
      </span>
      <span>
        <svg width="10" height="10" aria-hidden="true">
          <rect
            x="1"
            y="1"
            width="8"
            height="8"
            fill="none"
            stroke="var(--current)"
            strokeWidth="1.4"
          />
        </svg>{' '}
        printed
      </span>
      <span>
        <svg width="10" height="10" aria-hidden="true">
          <path d="M1 1h8l-4 7Z" fill="none" stroke="var(--ink)" strokeWidth="1.2" />
        </svg>{' '}
        changed
      </span>
      <span>
        <svg width="6" height="13" aria-hidden="true">
          <path d="M3 0v13" stroke="var(--ink)" strokeWidth="2" />
        </svg>{' '}
        ends
      </span>
      <span>
        <svg width="10" height="13" aria-hidden="true">
          <path d="M1 1l8 11" stroke="var(--magenta)" strokeWidth="1.8" />
        </svg>{' '}
        revoked
      </span>
      <span>
        <svg width="20" height="13" aria-hidden="true">
          <OfflineTail x1={1} x2={19} middle={6.5} />
        </svg>{' '}
        offline
      </span>
    </span>
  );
}
