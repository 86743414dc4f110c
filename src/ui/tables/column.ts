import type { ReactNode } from 'react';

/** What a row is ordered by in a column; `null` stands last, whichever way round. */
export type OrderKey = string | number | null;

/** One column of a list. */
export type Column<R> = {
  readonly id: string;
  readonly header: string;
  /** Pixels it begins with; room that is left over is shared out in proportion. */
  readonly width: number;
  readonly cell: (row: R) => ReactNode;
  /** What rows are ordered by; `server` where the list comes in parts. Absent: it has no order. */
  readonly orderBy?: ((row: R) => OrderKey) | 'server';
  /** Numbers stand at the right and begin with the largest; figures are set in the figures' font. */
  readonly kind?: 'number' | 'figure' | 'oneline';
  /** What stands at the head in place of the header's words. */
  readonly head?: ReactNode;
};

/** The order of a list that the server orders: by which column, and whether from the end. */
export type Order = {
  readonly by: string | null;
  readonly down: boolean;
  readonly onOrder: (by: string | null, down: boolean) => void;
};
