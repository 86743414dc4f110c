'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { RuleChanged, RuleRow } from '@/contracts/rules';
import { LEAVES, type Leave } from '@/core/policy/rules';
import { ChipButton } from '@/ui/shell/chips';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';
import { Moment } from '@/ui/time/moment';
import { leaveWords, wayWords } from '@/ui/words/rule-words';

/** What may be handed out and how, as the organisation decided; for what is sent from now on. */
export function WaysPart({
  rules,
  mayChange,
  selected,
  onOpen,
}: {
  readonly rules: readonly RuleRow[];
  readonly mayChange: boolean;
  readonly selected: RuleRow | null;
  readonly onOpen: (rule: RuleRow) => void;
}) {
  return (
    <section className="part-head" aria-label="Ways of delivery">
      <div className="row">
        <h1 className="large">Ways of delivery</h1>
        <span className="quiet">what senders may do on their own</span>
      </div>
      <table className="list">
        <tbody>
          {rules.map((rule) => (
            <tr key={rule.way} aria-selected={selected?.way === rule.way}>
              <td style={{ paddingLeft: 0, width: '36%' }}>
                {mayChange ? (
                  <button
                    type="button"
                    className="row-button"
                    onClick={() => {
                      onOpen(rule);
                    }}
                  >
                    {wayWords[rule.way].name}
                  </button>
                ) : (
                  <b>{wayWords[rule.way].name}</b>
                )}
                <br />
                <span className="quiet small">
                  {wayWords[rule.way].hint}
                </span>
              </td>
              <td
                className={
                  rule.leave === 'forbidden' ? 'magenta' : rule.leave === 'agreed' ? 'lamp' : ''
                }
              >
                {leaveWords[rule.leave]}
                {rule.reason !== '' && (
                  <>
                    <br />
                    <span className="quiet small">
                      “{rule.reason}”
                    </span>
                  </>
                )}
              </td>
              <td>
                {rule.setAt === null ? (
                  <span className="quiet">initial setting</span>
                ) : (
                  <>
                    <Moment at={rule.setAt} /> <span className="quiet">by {rule.setByName}</span>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** One decision about a way of handing something out. */
export function WayForm({
  rule,
  attempt,
  busy,
  onDone,
}: { readonly rule: RuleRow; readonly onDone: (done: RuleDone) => void } & Pick<
  Attempt,
  'attempt' | 'busy'
>) {
  const [leave, setLeave] = useState<Leave>(rule.leave);
  const [reason, setReason] = useState(rule.reason);
  const put = (to: Pick<RuleRow, 'leave' | 'reason'>, seen: number | null) =>
    call<RuleChanged>('POST', '/api/v1/rules', { way: rule.way, ...to, seen });
  const set = () =>
    attempt(async () => {
      const { before, setAt } = await put({ leave, reason }, rule.setAt);
      onDone({
        text: `${wayWords[rule.way].name}: ${leaveWords[leave]}, from now on.`,
        undo: () => put(before, setAt),
      });
    });
  return (
    <form
      className="stack loose"
      onSubmit={(event) => {
        event.preventDefault();
        void set();
      }}
    >
      <h2>{wayWords[rule.way].name}</h2>
      <p className="quiet">{wayWords[rule.way].hint}.</p>
      <div className="row" role="group" aria-label="Who may">
        {LEAVES.map((each) => (
          <ChipButton
            key={each}
            aria-pressed={leave === each}
            onClick={() => {
              setLeave(each);
            }}
          >
            {leaveWords[each]}
          </ChipButton>
        ))}
      </div>
      <TextField
        label="Reason, shown to senders"
        value={reason}
        onChange={(event) => {
          setReason(event.target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 200 } }}
      />
      {rule.way !== 'lower-marking' && (
        <p>
          {rule.dispatches === 0
            ? 'Nothing was sent this way yet.'
            : `${String(rule.dispatches)} ${rule.dispatches === 1 ? 'dispatch' : 'dispatches'} went ` +
              'out so; they stay as they were sent.'}
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
