'use client';

import type { ReactNode } from 'react';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';

/** One thing to look at: whom or what it is about, what, how, when, and where it is dealt with. */
export type TodayRow = {
  readonly key: string;
  readonly cells: readonly ReactNode[];
};

/** The things of one kind that need somebody, or a word that there are none. */
export function TodaySection({
  title,
  none,
  rows,
}: {
  readonly title: string;
  readonly none: string;
  readonly rows: readonly TodayRow[];
}) {
  return (
    <section aria-label={title} className="today">
      <h2>
        {title}
        {rows.length > 0 && <span className="figure"> {rows.length}</span>}
      </h2>
      {rows.length === 0 ? (
        <p className="quiet">{none}</p>
      ) : (
        <Table className="list fixed flush" aria-label={title}>
          <TableBody>
            {rows.map(({ key, cells }) => (
              <TableRow key={key} hover>
                {cells.map((cell, i) => (
                  <TableCell key={i}>{cell}</TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </section>
  );
}
