'use client';

import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { Controller } from 'react-hook-form';
import { putRuleInput, type RuleRow } from '@/contracts/rules';
import { counted } from '@/core/base/counted';
import { LEAVES, type Leave } from '@/core/policy/rules';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';
import { leaveWords, wayWords } from '@/ui/words/rule-words';

/** One decision about a way of handing something out. */
export function WayForm({
  rule,
  attempt,
  onDone,
}: {
  readonly rule: RuleRow;
  readonly attempt: Attempt['attempt'];
  readonly onDone: (done: RuleDone) => void;
}) {
  const { way } = rule;
  const { form, busy, onSubmit } = useContractForm({
    schema: putRuleInput,
    start: { way, leave: rule.leave, reason: rule.reason, seen: rule.setAt },
    send: async (input) => {
      const { before, setAt } = await api('POST /api/v1/rules', input);
      return {
        text: `${wayWords[way].name}: ${leaveWords[input.leave]}, from now on.`,
        undo: () => api('POST /api/v1/rules', { way, ...before, seen: setAt }),
      };
    },
    onDone,
    attempt,
  });
  return (
    <form className="stack loose" noValidate onSubmit={onSubmit}>
      <h2>{wayWords[way].name}</h2>
      <p className="quiet">{wayWords[way].hint}.</p>
      <Controller
        control={form.control}
        name="leave"
        render={({ field }) => (
          <ToggleButtonGroup
            exclusive
            orientation="vertical"
            aria-label="Who may"
            value={field.value}
            onChange={(_event, leave: Leave | null) => {
              if (leave !== null) field.onChange(leave);
            }}
          >
            {LEAVES.map((leave) => (
              <ToggleButton key={leave} value={leave}>
                {leaveWords[leave]}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        )}
      />
      <FormText control={form.control} name="reason" label="Reason, shown to senders" />
      {way !== 'lower-marking' && (
        <p>
          {rule.dispatches === 0
            ? 'Nothing was sent this way yet.'
            : `${counted(rule.dispatches, 'dispatch', 'dispatches')} went out so; they stay as they were sent.`}
        </p>
      )}
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Save
        </Button>
      </div>
    </form>
  );
}
