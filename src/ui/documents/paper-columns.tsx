import type { PaperCopy } from '@/contracts/paper';
import { paperWords } from '@/core/insight/paper-facts';
import { PAPER_STATES } from '@/core/paper/paper-copy';
import type { Column } from '@/ui/tables/column';
import { Moment } from '@/ui/time/moment';

function pagesOf({ from, to }: PaperCopy): string {
  return from === to ? String(from) : `${String(from)} to ${String(to)}`;
}

export const paperColumns: readonly Column<PaperCopy>[] = [
  {
    id: 'number',
    header: 'Copy',
    width: 70,
    kind: 'number',
    orderBy: ({ number }) => number,
    cell: ({ number }) => number,
  },
  {
    id: 'person',
    header: 'Printed by',
    width: 260,
    orderBy: ({ name, address }) => (name === '' ? address : name),
    cell: ({ name, address }) => (
      <>
        <b>{name === '' ? address : name}</b>
        {name !== '' && <span className="under">{address}</span>}
      </>
    ),
  },
  {
    id: 'pages',
    header: 'Pages',
    width: 110,
    orderBy: ({ from }) => from,
    cell: (copy) => (
      <>
        {pagesOf(copy)}
        {copy.version > 1 && <span className="under">version {copy.version}</span>}
      </>
    ),
  },
  {
    id: 'made',
    header: 'Made',
    width: 190,
    orderBy: ({ madeAt }) => madeAt,
    cell: ({ madeAt, dispatchReference }) => (
      <>
        <Moment at={madeAt} />
        <span className="under figure">{dispatchReference}</span>
      </>
    ),
  },
  {
    id: 'state',
    header: 'Paper',
    width: 240,
    orderBy: ({ state }) => PAPER_STATES.indexOf(state),
    cell: ({ state, note }) => (
      <>
        <span className={state === 'out' ? undefined : 'quiet'}>{paperWords[state]}</span>
        {note !== '' && <span className="under">“{note}”</span>}
      </>
    ),
  },
  {
    id: 'noted',
    header: 'Noted',
    width: 200,
    orderBy: ({ notedAt }) => notedAt,
    cell: ({ notedAt, notedBy }) =>
      notedAt !== null && (
        <>
          <Moment at={notedAt} />
          <span className="under">
            {notedBy === null ? 'nothing could be made' : `by ${notedBy}`}
          </span>
        </>
      ),
  },
];
