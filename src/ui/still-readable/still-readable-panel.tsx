'use client';

import { counted } from '@/core/base/counted';
import type { StillReadable, StillReadableInput } from '@/contracts/still-readable';
import { useAsked } from '@/ui/http/use-asked';
import { Curve } from '@/ui/still-readable/curve';
import { Moment } from '@/ui/time/moment';

/** So many are named; of more, the number is told. */
const NAMED = 12;

/** Who may read on their own machine without asking, until when, and who has held a key at all. */
export function StillReadablePanel({ of }: { readonly of: StillReadableInput }) {
  const { answer } = useAsked('GET /api/v1/still-readable', of);
  // Where nobody was ever given a key there is nothing to tell.
  if (answer === null || answer.held.length === 0) return null;
  return (
    <section className="stack tight" aria-label="Still readable">
      <h2>Still readable</h2>
      <Running answer={answer} />
      <Held answer={answer} />
    </section>
  );
}

function Running({ answer: { running, curve } }: { readonly answer: StillReadable }) {
  const [last] = running;
  if (last === undefined) return <p>Nobody may read on their own machine without asking now.</p>;
  const people = new Set(running.map(({ recipient }) => recipient)).size;
  return (
    <>
      <p>
        Were access cut off now, {counted(people, 'person', 'people')} could read on, the last until{' '}
        <Moment at={last.until} />.
      </p>
      <Curve curve={curve} />
      <ul className="plain-list small">
        {running.slice(0, NAMED).map((each, index) => (
          <li key={index}>
            {nameOf(each)} <span className="quiet">{each.reference}</span>
            <br />
            <span className="quiet">
              {each.device}, until <Moment at={each.until} />
            </span>
          </li>
        ))}
      </ul>
      {running.length > NAMED && (
        <p className="quiet small">and {running.length - NAMED} more licences</p>
      )}
      <p className="quiet small">
        Each ends by itself, or sooner where its device has a connection and says that it forgot it.
      </p>
    </>
  );
}

function Held({ answer: { held } }: { readonly answer: StillReadable }) {
  const people = new Map(held.map((each) => [each.recipient, each]));
  return (
    <details>
      <summary>Could have kept it: {counted(people.size, 'person', 'people')}</summary>
      <p className="quiet small">
        Their own machine was given the key. Whatever ends, a determined person could have kept it.
      </p>
      <ul className="plain-list small">
        {[...people.values()].slice(0, NAMED).map((each) => (
          <li key={each.recipient}>
            {nameOf(each)}{' '}
            <span className="quiet">
              last <Moment at={each.lastGivenAt} />
            </span>
          </li>
        ))}
      </ul>
      {people.size > NAMED && <p className="quiet small">and {people.size - NAMED} more</p>}
    </details>
  );
}

function nameOf({ name, address }: { readonly name: string; readonly address: string }): string {
  return name === '' ? address : name;
}
