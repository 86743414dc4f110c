'use client';

import type { LedgerInput, LedgerRow } from '@/contracts/ledger';
import { didWords } from '@/core/insight/did-words';
import { factsOf } from '@/core/insight/entry-facts';
import type { Words } from '@/core/insight/fact-words';
import { ChipLink } from '@/ui/shell/chips';
import { EntryActs } from '@/ui/ledger/entry-acts';
import { addressOf, wanting } from '@/ui/ledger/ledger-address';
import { Moment } from '@/ui/time/moment';

/** By what of an entry the ledger can be narrowed. */
function narrowing({ document, recipient, dispatch, actor, device, version }: LedgerRow) {
  const given = [
    ['document', document, 'this document'],
    ['version', version, 'this version'],
    ['recipient', recipient, 'this person'],
    ['dispatch', dispatch, 'this dispatch'],
    ['actor', actor.id, 'what they did'],
    ['device', device, 'this device'],
  ] as const;
  return given.flatMap(([dimension, value, label]) =>
    value === null ? [] : [{ dimension, value, label }],
  );
}

/**
 * One entry explained: who did what, to whom and what changed, why it was answered so, from where,
 * and what proves it.
 */
export function EntryPanel({
  row,
  words,
  filter,
}: {
  readonly row: LedgerRow;
  readonly words: Words;
  readonly filter: LedgerInput;
}) {
  const facts = factsOf(row, words);
  return (
    <div className="stack">
      <h2>Entry {row.sequence.toLocaleString('en-GB')}</h2>
      <p className="answer">
        {row.who} {didWords(row)}
        {row.what === '' ? '' : `, ${row.what}`}.
      </p>
      <p>
        <Moment at={Date.parse(row.occurredAt)} named />
        {row.receivedAt !== row.occurredAt && (
          <>
            , received <Moment at={Date.parse(row.receivedAt)} />
          </>
        )}
      </p>
      {facts.length > 0 && (
        <dl className="facts">
          {facts.map(({ label, before, after }, i) => (
            <div key={i}>
              <dt>{label}</dt>
              <dd>
                {before !== null && (
                  <>
                    <span className="quiet">{before}</span> →{' '}
                  </>
                )}
                {after}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {row.rule !== null && (
        <p className="quiet">
          Decided by{' '}
          {words.nameOf(row.rule) === row.rule
            ? row.rule.replaceAll('-', ' ')
            : `what was given to ${words.nameOf(row.rule)}`}
        </p>
      )}
      <EntryActs key={row.sequence} row={row} words={words} />
      <hr />
      <h2>From</h2>
      <p className="figure">
        {row.network === '' ? 'not recorded' : row.network}
        {row.place !== '' && (
          <>
            <br />
            {row.place}
          </>
        )}
        {row.browser !== '' && (
          <>
            <br />
            <span className="quiet break">{row.browser}</span>
          </>
        )}
      </p>
      <hr />
      <h2>Filter by</h2>
      <div className="row">
        {narrowing(row).map(({ dimension, value, label }) => (
          <ChipLink
            key={dimension}
            href={addressOf('/ledger', wanting(filter, dimension, value), {})}
          >
            {label}
          </ChipLink>
        ))}
        {narrowing(row).length === 0 && (
          <span className="quiet">This entry names no document and no person.</span>
        )}
      </div>
      <hr />
      <h2>Proof</h2>
      <p className="figure break">
        sha-256 {row.hash}
        <br />
        <span className="quiet">
          follows {row.sequence === 1 ? 'nothing' : `${row.previous.slice(0, 16)}…`}
        </span>
      </p>
    </div>
  );
}
