'use client';

import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';

const keys: readonly (readonly [string, string])[] = [
  ['/', 'find a document, person or dispatch'],
  ['?', 'this list'],
  ['Tab', 'to the next control'],
  ['↑ ↓', 'on reach lines: the next person'],
  ['Shift ↑ ↓', 'select several'],
  ['Space', 'select or clear one'],
  ['← →', 'on the end of a line: a day earlier or later'],
  ['Shift ← →', 'a week'],
  ['Arrows', 'in the grid of Compose: the next cell; with Shift: select rows'],
  ['Space', 'in the grid: switch a right; a digit sets a number'],
  ['Enter', 'in the grid: open a cell; on a page field: go to that page'],
  ['Delete', 'in the grid: the common value; with Ctrl: remove the rows'],
  ['Ctrl D', 'in the grid: fill down'],
  ['Ctrl C, Ctrl V', 'in the grid: copy a cell, or by the name all of a row'],
  ['Ctrl Z, Ctrl Y', 'in the grid: undo, redo'],
  ['Ctrl Enter', 'in Compose: send'],
  ['Esc', 'cancel'],
];

/** The keys, for those who would rather not point. */
export function Keys({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title" maxWidth="sm" fullWidth>
      <div className="part">
        <h1 id="keys-title">Keys</h1>
        <dl className="keys">
          {keys.map(([key, does]) => (
            <div key={key} className="row loose">
              <dt className="figure">{key}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <div className="row">
          <span className="gap" />
          <Button onClick={onClose}>Close</Button>
        </div>
      </div>
    </Dialog>
  );
}
