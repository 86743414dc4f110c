'use client';

import type { OpenResult } from '@/contracts/reader';
import Button from '@mui/material/Button';
import type { OwnRequest } from '@/contracts/requests';
import { isOpen } from '@/core/policy/requests';
import { OFFERED_RIGHTS, type Right } from '@/core/policy/rights';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly rights: (OpenResult & { outcome: 'granted' })['rights'];
  readonly sender: string;
  readonly requests: readonly OwnRequest[];
  readonly onAsk: (right: Right) => void;
};

/** What was not given stays visible, dimmed, with its reason and a way to ask for it. */
export function RightsPanel({ rights, sender, requests, onAsk }: Props) {
  const { say } = useWords();
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
      <h2>{say('withheld.heading')}</h2>
      {withheld.map(({ right, why }) => (
        <div key={right} className="row one-row">
          <p className="quiet" aria-disabled="true">
            {say(`withheld.right.${why}`, { verb: say(`rights.verbs.${right}`), sender })}
          </p>
          <span className="gap" />
          {right !== 'pass-on' && !isAsked(right) && (
            <Button
              size="small"
              aria-label={say('withheld.askTo', { verb: say(`rights.verbs.${right}`) })}
              onClick={() => {
                onAsk(right);
              }}
            >
              {say('withheld.ask')}
            </Button>
          )}
          {isAsked(right) && <span className="quiet small">{say('withheld.asked')}</span>}
        </div>
      ))}
    </>
  );
}
