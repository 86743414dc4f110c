'use client';

import dynamic from 'next/dynamic';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { RuleRow } from '@/contracts/rules';
import type { SavedTermsRow, TermsPage } from '@/contracts/saved-terms';
import type { Attempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';

/** Each form is fetched when something of its kind is chosen. */
const CeilingForm = dynamic(() =>
  import('@/ui/levels/ceiling-form').then((form) => form.CeilingForm),
);
const DefaultsForm = dynamic(() =>
  import('@/ui/levels/defaults-form').then((form) => form.DefaultsForm),
);
const SavedTermsForm = dynamic(() =>
  import('@/ui/terms/saved-terms-form').then((form) => form.SavedTermsForm),
);
const WayForm = dynamic(() => import('@/ui/terms/way-form').then((form) => form.WayForm));

/** What is looked at beside the lists. */
export type OpenRule =
  | { readonly kind: 'terms'; readonly row: SavedTermsRow | 'new' }
  | { readonly kind: 'ceiling'; readonly row: CeilingRow | 'new' }
  | { readonly kind: 'defaults'; readonly row: DefaultsRow | 'new' }
  | { readonly kind: 'way'; readonly row: RuleRow };

type Props = {
  readonly open: OpenRule | null;
  readonly page: TermsPage;
  readonly mayChange: boolean;
  readonly work: Attempt;
  readonly onDone: (done: RuleDone | null) => void;
};

function levelKey(row: CeilingRow | DefaultsRow | 'new'): string {
  return row === 'new' ? row : `${row.level} ${row.subject}`;
}

/** The terms or the rule that was chosen, to look at or to change. */
export function TermsSide(props: Props) {
  return (
    <aside className="side" aria-label="The selected terms">
      <Chosen {...props} />
    </aside>
  );
}

function Chosen({ open, page, mayChange, work, onDone }: Props) {
  const { attempt, busy } = work;
  if (open === null)
    return (
      <p className="quiet">
        Select terms or a rule to see its details.
        {mayChange ? '' : ' An administrator changes them.'}
      </p>
    );
  const given = { page, mayChange, attempt, busy, onDone };
  switch (open.kind) {
    case 'terms':
      return (
        <SavedTermsForm
          key={open.row === 'new' ? 'new' : open.row.id}
          row={open.row === 'new' ? null : open.row}
          mayChange={mayChange}
          attempt={attempt}
          onDone={onDone}
        />
      );
    case 'ceiling':
      return (
        <CeilingForm
          key={levelKey(open.row)}
          of={open.row === 'new' ? null : open.row}
          {...given}
        />
      );
    case 'defaults':
      return (
        <DefaultsForm
          key={levelKey(open.row)}
          of={open.row === 'new' ? null : open.row}
          {...given}
        />
      );
    case 'way':
      return (
        <WayForm
          key={`${open.row.way} ${String(open.row.setAt)}`}
          rule={open.row}
          attempt={attempt}
          onDone={onDone}
        />
      );
  }
}
