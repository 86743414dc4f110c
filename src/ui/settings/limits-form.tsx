'use client';

import { bareDomain } from '@/core/policy/address';
import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { FolderRow } from '@/contracts/folder';
import type { SenderLimitsChanged, StaffRow } from '@/contracts/staff';
import { wayText } from '@/core/content/folders';
import { OFFERED_RIGHTS, RIGHTS } from '@/core/policy/rights';
import { NO_SENDER_LIMITS, limitsSender, type SenderLimits } from '@/core/policy/sender-limits';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { listIn } from '@/ui/words/list-words';

type Props = { readonly row: StaffRow; readonly folders: readonly FolderRow[] };

/** What a sender may send, to whom, and the most they may give; for what they do from now on. */
export function LimitsForm({ row, folders }: Props) {
  const { busy, said, attempt } = useAttempt();
  const [limits, setLimits] = useState<SenderLimits>(row.limits?.limits ?? NO_SENDER_LIMITS);
  const [domains, setDomains] = useState(limits.domains?.map(bareDomain).join('\n') ?? '');
  const [undo, setUndo] = useState<SenderLimitsChanged | null>(null);
  const put = (to: SenderLimits, seen: number | null) =>
    call<SenderLimitsChanged>('POST', `/api/v1/staff/${row.id}/limits`, { limits: to, seen });
  const wanted: SenderLimits = { ...limits, domains: listIn(domains) };
  const set = () =>
    attempt(
      async () => {
        setUndo(await put(wanted, row.limits?.setAt ?? null));
      },
      limitsSender(wanted)
        ? `${row.name} can give no more than this from now on. What they gave before stays.`
        : `${row.name} has no limits any more.`,
    );
  const allowed = limits.rights ?? OFFERED_RIGHTS;
  const toggle = (id: FolderRow['id'], on: boolean) => {
    const chosen = (limits.folders ?? []).filter((each) => each !== id);
    const next = on ? [...chosen, id] : chosen;
    setLimits({ ...limits, folders: next.length === 0 ? null : next });
  };
  return (
    <form
      className="stack loose"
      aria-label="Limits"
      onSubmit={(event) => {
        event.preventDefault();
        void set();
      }}
    >
      <h2>Limits</h2>
      {row.limits === null ? (
        <p className="quiet">No limits of their own; the ceilings still apply.</p>
      ) : (
        <p className="quiet">
          Set <Moment at={row.limits.setAt} /> by {row.limits.setBy}.
        </p>
      )}
      <TextField
        label="Only to people at"
        multiline
        value={domains}
        helperText={
          domains === '' ? 'Empty: to anybody. Otherwise domains such as yard.example' : ''
        }
        onChange={(event) => {
          setDomains(event.target.value);
        }}
      />
      <div>
        <span className="quiet">
          {limits.folders === null ? 'From any folder, or only from' : 'Only from'}
        </span>
        <div style={{ maxHeight: 150, overflow: 'auto' }}>
          {folders.map((folder) => (
            <div key={folder.id}>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={limits.folders?.includes(folder.id) === true}
                    onChange={(_event, on) => {
                      toggle(folder.id, on);
                    }}
                  />
                }
                label={wayText(folders, folder.id)}
              />
            </div>
          ))}
        </div>
      </div>
      <div>
        <span className="quiet">At most</span>
        <div className="row">
          {OFFERED_RIGHTS.map((right) => (
            <FormControlLabel
              key={right}
              control={
                <Checkbox
                  size="small"
                  checked={allowed.includes(right)}
                  disabled={right === 'read'}
                  onChange={(_event, on) => {
                    const next = RIGHTS.filter((each) =>
                      each === right ? on : allowed.includes(each),
                    );
                    setLimits({
                      ...limits,
                      rights: OFFERED_RIGHTS.every((each) => next.includes(each)) ? null : next,
                    });
                  }}
                />
              }
              label={right}
            />
          ))}
        </div>
      </div>
      <TextField
        label="Days at most"
        type="number"
        value={limits.days ?? ''}
        helperText={limits.days === null ? 'Empty: as long as the ceilings allow' : ''}
        onChange={(event) => {
          setLimits({
            ...limits,
            days: event.target.value === '' ? null : Math.floor(Number(event.target.value)),
          });
        }}
        slotProps={{ htmlInput: { min: 1, max: 3650 } }}
      />
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Save limits
        </Button>
        {undo !== null && (
          <Button
            variant="text"
            disabled={busy}
            onClick={() => {
              setUndo(null);
              void attempt(() => put(undo.before, undo.setAt), 'Undone.');
            }}
          >
            Undo
          </Button>
        )}
      </div>
      <Notice said={said} />
    </form>
  );
}
