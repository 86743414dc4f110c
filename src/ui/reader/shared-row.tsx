'use client';

import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import type { SharedDocument } from '@/contracts/reader';
import { RefusalMoment } from '@/ui/reader/refusal-moment';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';
import { verbsIn } from '@/words/reader/verbs-in';

/** One document that somebody was sent: what they may do with it, or why it does not open. */
export function SharedRow({
  document,
  more = null,
  onOpen,
}: {
  readonly document: SharedDocument;
  /** What else is said of it. */
  readonly more?: ReactNode;
  readonly onOpen: () => void;
}) {
  const { say } = useWords();
  const { state, title, reference } = document;
  return (
    <li className="row">
      <div>
        <b dir="auto">{title}</b> <span className="figure quiet">{reference}</span>
        <br />
        {state.open ? (
          <Allowed document={document} state={state} />
        ) : (
          <span className="magenta">
            {say(`reasons.${state.reason}.title`)}
            {state.at !== null && (
              <>
                {' '}
                <RefusalMoment reason={state.reason} at={state.at} />
              </>
            )}
          </span>
        )}
        {more}
      </div>
      <Button onClick={onOpen}>
        {state.open || state.reason === 'passkey-needed'
          ? say('shared.read')
          : say('shared.askForIt')}
      </Button>
    </li>
  );
}

/** What may be done with it, until when, and how often it can still be opened, before one is spent. */
function Allowed({
  document,
  state,
}: {
  readonly document: SharedDocument;
  readonly state: SharedDocument['state'] & { readonly open: true };
}) {
  const { language, say } = useWords();
  const { until, opensLeft, printsLeft } = state;
  const verbs = verbsIn(language, say, state.rights);
  return (
    <span className="quiet">
      {until === null
        ? say('rights.may', { verbs })
        : say.rich('rights.mayUntil', { verbs, end: () => <Moment at={until} named /> })}{' '}
      · {say('shared.pages', { count: document.pages })}
      {opensLeft !== null && (
        <span className="lamp"> · {say('shared.opensLeft', { count: opensLeft })}</span>
      )}
      {printsLeft !== null && (
        <span className="lamp"> · {say('shared.printsLeft', { count: printsLeft })}</span>
      )}
    </span>
  );
}
