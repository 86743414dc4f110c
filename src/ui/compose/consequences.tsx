'use client';

import Button from '@mui/material/Button';
import type { ComposeStart } from '@/contracts/draft';
import { bareDomain } from '@/core/policy/address';
import { counted } from '@/core/base/counted';
import { distanceText, momentText, zoneName } from '@/core/base/moment-text';
import { isDoubt, type Concern } from '@/core/compose/concerns';
import { sameTerms, type SameTerms } from '@/core/compose/sets';
import { conditionLines } from '@/core/policy/condition-lines';
import { NO_MAIL } from '@/ui/compose/compose-problems';
import { ceilingWarnings } from '@/ui/compose/ceiling-warnings';
import { SeenAs } from '@/ui/compose/seen-as';
import type { Composed } from '@/ui/compose/use-composed';
import { useSettled } from '@/ui/compose/use-settled';
import { nameOf, type GridRow } from '@/ui/recipients/grid-view';
import { WhatHolds } from '@/ui/compose/what-holds';
import { Note } from '@/ui/shell/notice';
import { useZone } from '@/ui/time/use-zone';
import { concernText, mendText, type ConcernNames } from '@/ui/words/concern-words';
import { verbList } from '@/ui/words/rights-words';

type Props = {
  readonly start: ComposeStart;
  readonly composed: Composed;
  /** The row that is looked at. */
  readonly active: GridRow | null;
};

/** Most sets of terms that are told one by one. */
const MOST_SETS = 4;
const MOST_NAMED = 3;

/** The name of a row in a sentence. */
function titleOf({ row, known }: GridRow): string {
  if (row.kind === 'domain') return `everyone at ${bareDomain(row.key)}`;
  if (row.kind === 'link') return 'anyone with the link';
  return nameOf({ row, known }) || row.key;
}

/** What comes of what was composed so far: what stops it, what to look at, and what each would get. */
export function Consequences(props: Props) {
  const composed = useSettled(props.composed);
  const { start, active } = props;
  const shown = { start, composed, active };
  return (
    <div className="stack loose">
      <Fixes {...shown} />
      {composed.isClear ? (
        <InTheClear composed={composed} />
      ) : (
        <>
          <WhatTheyGet {...shown} />
          <SeenAs
            each={active}
            terms={active?.terms ?? composed.common}
            documents={composed.documents}
            watermark={composed.watermark}
          />
          <GetLess {...shown} />
          <WhatHolds composed={composed} active={active} />
        </>
      )}
    </div>
  );
}

/** What has to be mended, and what to look at once more, each with what to do about it. */
function Fixes({ start, composed }: Props) {
  const zone = useZone();
  const { concerns, problems, rows, documents } = composed;
  const byKey = new Map(rows.map((each) => [each.row.key, each]));
  const names: ConcernNames = {
    nameOf: (key) => {
      const each = byKey.get(key);
      return each === undefined ? key : titleOf(each);
    },
    titleOf: (id) => documents.find((document) => document.id === id)?.title ?? '',
    rows: rows.length,
    zone,
  };
  const stops = concerns.filter(({ code }) => !isDoubt(code));
  const asks = concerns.filter(({ code }) => isDoubt(code));
  const isEmpty = start.draft === null && rows.length + documents.length === 0;
  if (isEmpty)
    return (
      <>
        <p className="answer">Choose documents and recipients.</p>
        {!start.mail && <p className="magenta">{NO_MAIL}</p>}
      </>
    );
  const lines = { composed, names };
  return (
    <>
      {stops.length + problems.length > 0 && (
        <section className="stack" aria-label="Fix before sending">
          <h2>Fix before sending</h2>
          <ConcernLines concerns={stops} {...lines} />
          {problems.map((problem) => (
            <p key={problem} className="magenta">
              {problem}
            </p>
          ))}
        </section>
      )}
      {asks.length > 0 && (
        <section className="stack" aria-label="To look at">
          <h2>To look at</h2>
          <ConcernLines concerns={asks} {...lines} />
        </section>
      )}
    </>
  );
}

type LineProps = { readonly composed: Composed; readonly names: ConcernNames };

/** Concerns that are told at once; the next ones come as these are settled. */
const MOST_TOLD = 12;

function ConcernLines({
  concerns,
  ...lines
}: LineProps & { readonly concerns: readonly Concern[] }) {
  const more = concerns.length - MOST_TOLD;
  return (
    <>
      {concerns.slice(0, MOST_TOLD).map((each) => (
        <ConcernLine key={`${each.code} ${each.rows.join()}`} concern={each} {...lines} />
      ))}
      {more > 0 && <p className="quiet">And {more} more.</p>}
    </>
  );
}

function ConcernLine({ concern, composed, names }: LineProps & { readonly concern: Concern }) {
  const isAsk = isDoubt(concern.code);
  return (
    <div className="stack tight">
      <p className={isAsk ? '' : 'magenta'}>{concernText(concern, names)}</p>
      <div className="row tight-row">
        {concern.mends.map((mend) => (
          <Button
            key={mend.kind}
            onClick={() => {
              composed.mend(mend);
            }}
          >
            {mendText(mend, names)}
          </Button>
        ))}
        {isAsk && (
          <Button
            variant="text"
            onClick={() => {
              composed.wave(concern);
            }}
          >
            Send it as it is
          </Button>
        )}
      </div>
    </div>
  );
}

function whomOf({ rows }: SameTerms, all: readonly GridRow[]): string {
  if (rows.length > MOST_NAMED) return counted(rows.length, 'recipient');
  const byKey = new Map(all.map((each) => [each.row.key, each]));
  return rows
    .map(({ key }) => byKey.get(key))
    .flatMap((each) => (each === undefined ? [] : [titleOf(each)]))
    .join(', ');
}

/** With a capital letter, where it begins with a word and not with an address. */
function capital(text: string): string {
  return /^\S*@/.test(text) ? text : text.replace(/^./, (letter) => letter.toUpperCase());
}

/** What each may do with how much and until when, those together who get the same. */
function WhatTheyGet({ start, composed: { rows, documents } }: Props) {
  const sets = sameTerms(rows);
  return (
    <section className="stack" aria-label="What they get">
      <h2>What they get</h2>
      {sets.length === 0 && <p>No recipients yet.</p>}
      {sets.slice(0, MOST_SETS).map((set) => (
        <SetLines
          key={set.rows[0]?.key}
          set={set}
          whom={whomOf(set, rows)}
          documents={documents.length - set.without.length}
          now={start.now}
        />
      ))}
      {sets.length > MOST_SETS && (
        <p className="quiet">
          {counted(sets.length - MOST_SETS, 'more kind')} of terms in the grid.
        </p>
      )}
    </section>
  );
}

function SetLines({
  set: { terms },
  whom,
  documents,
  now,
}: {
  readonly set: SameTerms;
  readonly whom: string;
  readonly documents: number;
  readonly now: number;
}) {
  const zone = useZone();
  const conditions = conditionLines(terms.conditions, 'their zone');
  return (
    <p>
      <b>
        {capital(whom)} may {verbList(terms.rights)}
        {documents > 0 && ` ${counted(documents, 'document')}`}
      </b>
      {terms.until === null ? (
        <span className="lamp"> with no end.</span>
      ) : (
        <>
          {' '}
          until {momentText(terms.until, zone)} {zoneName(terms.until, zone)},{' '}
          {distanceText(terms.until, now)}.
        </>
      )}
      {conditions.length > 0 &&
        ` It opens ${conditions.map((line) => line.replace(/^opens /, '')).join('; ')}.`}
    </p>
  );
}

/** What ceilings take from it. */
function GetLess({ start, composed: { rows, documents, parents, common } }: Props) {
  const zone = useZone();
  const sets = sameTerms(rows);
  const judged = sets.length === 0 ? [{ terms: common }] : sets;
  const taken = [
    ...new Set(
      judged.flatMap(({ terms }) =>
        ceilingWarnings(documents, terms, start.now, { rows: start.ceilings, parents }, (moment) =>
          momentText(moment, zone),
        ),
      ),
    ),
  ];
  if (taken.length === 0) return null;
  return (
    <Note>
      <b>They get less than this.</b>
      {taken.slice(0, 6).map((text) => (
        <p key={text}>{text}</p>
      ))}
      {taken.length > 6 && <p>And {counted(taken.length - 6, 'more limit')}.</p>}
      <p className="quiet">
        The rest is given and takes effect when the ceiling is raised. Ceilings are under Terms.
      </p>
    </Note>
  );
}

/** What leaves in the clear has no end, no conditions and no watermark, so none is shown. */
function InTheClear({ composed: { rows, documents } }: Pick<Props, 'composed'>) {
  const what = documents.length === 0 ? '' : ` ${counted(documents.length, 'document')}`;
  return (
    <>
      <p className="answer">
        {rows.length === 0
          ? 'No recipients yet.'
          : `${counted(rows.length, 'person gets', 'people get')}${what} in the clear.`}
      </p>
      <Note>
        It leaves in the clear. No end, revocation or watermark reaches it, and anyone who has it
        can copy, print and pass it on. The ledger says to whom it went and why.
      </Note>
    </>
  );
}
