'use client';

import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import type { OpenResult } from '@/contracts/reader';
import Button from '@mui/material/Button';
import type { OwnRequest } from '@/contracts/requests';
import { isOpen } from '@/core/policy/requests';
import { OFFERED_RIGHTS, type Right } from '@/core/policy/rights';
import { withheldWords } from '@/ui/words/reason-words';
import { verbList } from '@/ui/words/rights-words';

type Props = {
  readonly rights: (OpenResult & { outcome: 'granted' })['rights'];
  readonly sender: string;
  readonly requests: readonly OwnRequest[];
  readonly onAsk: (right: Right) => void;
};

/** What was not given stays visible, dimmed, with its reason and a way to ask for it. */
export function RightsPanel({ rights, sender, requests, onAsk }: Props) {
  const isAsked = (right: Right): boolean =>
    requests.some((request) => request.right === right && isOpen(request.state));
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
        <div key={right} className="row one-row">
          <p className="quiet" aria-disabled="true">
            To {verbList([right])} {withheldWords[DEFAULT_LANGUAGE][why]}
            {why === 'not-given' ? ` by ${sender}` : ''}.
          </p>
          <span className="gap" />
          {right !== 'pass-on' && !isAsked(right) && (
            <Button
              size="small"
              aria-label={`Ask to ${verbList([right])}`}
              onClick={() => {
                onAsk(right);
              }}
            >
              Ask
            </Button>
          )}
          {isAsked(right) && <span className="quiet small">asked</span>}
        </div>
      ))}
    </>
  );
}
