'use client';

import { counted } from '@/core/base/counted';
import { isDoubt } from '@/core/compose/concerns';
import type { Right } from '@/core/policy/rights';
import { shutOutText } from '@/ui/compose/pulled-back';
import type { Composed } from '@/ui/compose/use-composed';

/** What stays readable although everybody was shut out. */
function exceptions({ rows, isClear }: Composed): string {
  if (isClear) return '';
  const gives = (right: Right): boolean => rows.some(({ terms }) => terms.rights.includes(right));
  if (gives('keep')) return ', kept copies excepted';
  return gives('print') ? ', prints excepted' : '';
}

/** How it stands, in a line: what stops it, what is to look at, how much of what to how many. */
export function ComposeFoot({ composed }: { readonly composed: Composed }) {
  const { concerns, problems, rows, documents, isClear } = composed;
  const asks = concerns.filter(({ code }) => isDoubt(code)).length;
  const stops = problems.length + concerns.length - asks;
  return (
    <div className="compose-foot" role="status">
      {stops > 0 && <b className="magenta">{stops} to fix</b>}
      {asks > 0 && <b className="lamp">{asks} to look at</b>}
      <span className="quiet">
        {counted(rows.length, 'recipient')}, {counted(documents.length, 'document')}
      </span>
      <span className="gap" />
      <span>
        {isClear ? (
          'Cannot be pulled back'
        ) : (
          <>
            Pulled back: all shut out <b>{shutOutText(rows.map(({ terms }) => terms))}</b>
            {exceptions(composed)}
          </>
        )}
      </span>
    </div>
  );
}
