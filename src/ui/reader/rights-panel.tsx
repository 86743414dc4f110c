'use client';

import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import type { OpenResult } from '@/contracts/reader';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { withheldWords } from '@/ui/words/reason-words';
import { verbList } from '@/ui/words/rights-words';

/** What was not given stays visible, dimmed, with its reason. */
export function RightsPanel({
  rights,
  sender,
}: {
  readonly rights: (OpenResult & { outcome: 'granted' })['rights'];
  readonly sender: string;
}) {
  const withheld = OFFERED_RIGHTS.flatMap((right) => {
    const verdict = rights[right];
    return verdict.granted ? [] : [{ right, why: verdict.why }];
  });
  if (withheld.length === 0) return null;
  return (
    <>
      <hr />
      <h2>Not allowed</h2>
      {withheld.map(({ right, why }) => (
        <p key={right} className="quiet" aria-disabled="true">
          To {verbList([right])} {withheldWords[DEFAULT_LANGUAGE][why]}
          {why === 'not-given' ? ` by ${sender}` : ''}.
        </p>
      ))}
    </>
  );
}
