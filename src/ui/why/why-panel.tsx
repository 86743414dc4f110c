'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Explained } from '@/contracts/explain';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { momentText } from '@/core/base/moment-text';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { useAsked } from '@/ui/http/use-asked';
import { Problem } from '@/ui/shell/notice';
import { useZone } from '@/ui/time/use-zone';
import { NOW, WhatIf, type Case } from '@/ui/why/what-if';
import { Rule, Ways } from '@/ui/why/why-parts';
import { differences, refusedWords, rightRule, verdictWords } from '@/ui/why/why-words';

/** An empty text asks about nothing. */
export function given<T extends string>(text: T | ''): T | null {
  return text === '' ? null : text;
}

/**
 * Why a person can or cannot open a document, right by right, with what would change it; now, or at
 * another time, place or device.
 */
export function WhyPanel({
  recipient,
  document,
}: {
  readonly recipient: RecipientId;
  readonly document: DocumentId;
}) {
  const [asked, setAsked] = useState<Case>(NOW);
  const zone = useZone();
  const of = ({ at, network, country, device, address }: Case) => ({
    recipient,
    document,
    at,
    network: given(network),
    country: given(country),
    device: given(device),
    address: given(address),
  });
  const { answer: found, problem } = useAsked('POST /api/v1/explain', of(asked));
  /** The answer for now, which the others are compared with. */
  const { answer: plain } = useAsked('POST /api/v1/explain', of(NOW));
  if (found === null) return problem === null ? <Looking /> : <Problem words={problem} />;
  return (
    <section aria-label="Why" className="stack">
      <p className="answer">{answerText(found)}</p>
      <p className="quiet">
        <Rule reason={found.why} past={found.past} />
      </p>
      {found.opens && <RightsFound found={found} />}
      {plain !== null && asked !== NOW && (
        <Compared lines={differences(plain, found, (moment) => momentText(moment, zone))} />
      )}
      <Ways found={found} />
      <Button component={Link} href={`/documents/${document}/as?recipient=${recipient}`}>
        See it as they do
      </Button>
      <WhatIf asked={asked} onAsk={setAsked} />
      <Problem words={problem} />
    </section>
  );
}

/** Stands where the answer will. */
function Looking() {
  return (
    <div role="status" aria-label="Looking">
      <Skeleton height={28} />
      <Skeleton height={18} width="70%" />
      <Skeleton height={18} width="80%" />
    </div>
  );
}

function answerText({ opens, past, person, document, reason }: Explained): string {
  const why = refusedWords[reason ?? 'not-addressed'];
  if (past)
    return opens
      ? `${person} could open “${document}” then.`
      : `${person} could not open “${document}” then: ${why}.`;
  return opens
    ? `${person} can open “${document}”.`
    : `${person} cannot open “${document}”: ${why}.`;
}

/** Each right, and the rule that gives or withholds it. */
export function RightsFound({ found }: { readonly found: Explained }) {
  const { rights, past, readingAids } = found;
  const offered = rights.filter(({ right }) => OFFERED_RIGHTS.some((each) => each === right));
  return (
    <>
      {readingAids && (
        <p className="quiet">
          Reading aids are on: the text comes for a screen reader, and the reader alone holds that
          it is not copied.
        </p>
      )}
      <Table className="list flush">
        <TableBody>
          {offered.map(({ right, verdict, reason }) => (
            <TableRow key={right}>
              <TableCell width="46%" className={verdict?.granted === true ? '' : 'magenta'}>
                {verdictWords(right, verdict)}
              </TableCell>
              <TableCell className="quiet">
                {rightRule(verdict, reason) ?? <Rule reason={reason} past={past} />}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  );
}

function Compared({ lines }: { readonly lines: readonly string[] }) {
  return (
    <section aria-label="Compared with now">
      <h2>Compared with now</h2>
      {lines.length === 0 ? (
        <p className="quiet">The same.</p>
      ) : (
        lines.map((line) => <p key={line}>{line}</p>)
      )}
    </section>
  );
}
