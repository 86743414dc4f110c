'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { Controller } from 'react-hook-form';
import type { FolderRow } from '@/contracts/folder';
import { senderLimitsInput, type SenderLimitsChanged, type StaffRow } from '@/contracts/staff';
import { wayText } from '@/core/content/folders';
import { bareDomain } from '@/core/policy/address';
import { NO_SENDER_LIMITS, limitsSender, type SenderLimits } from '@/core/policy/sender-limits';
import { AtMostRights } from '@/ui/forms/at-most-rights';
import { FormList, FormNumber } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { UndoBar } from '@/ui/shell/undo-bar';
import { Moment } from '@/ui/time/moment';

function fieldsOf({ rights, folders, domains, days }: SenderLimits) {
  return {
    rights: rights === null ? null : [...rights],
    folders: folders === null ? null : [...folders],
    domains: domains?.map(bareDomain) ?? null,
    days,
  };
}

/** What a sender may send, to whom, and the most they may give; for what they do from now on. */
export function LimitsForm({
  row,
  folders,
}: {
  readonly row: StaffRow;
  readonly folders: readonly FolderRow[];
}) {
  const { id, name } = row;
  const limits = row.limits?.limits ?? NO_SENDER_LIMITS;
  const undoing = useAttempt();
  const [done, setDone] = useState<(SenderLimitsChanged & { readonly text: string }) | null>(null);
  const { form, busy, said, onSubmit } = useContractForm({
    schema: senderLimitsInput,
    start: {
      id,
      limits: fieldsOf(limits),
      seen: row.limits?.setAt ?? null,
    },
    send: async (input) => ({
      ...(await api('POST /api/v1/staff/:id/limits', input)),
      text: limitsSender(input.limits)
        ? `${name} can give no more than this from now on. What they gave before stays.`
        : `${name} has no limits any more.`,
    }),
    onDone: setDone,
  });
  const { control } = form;
  return (
    <form className="stack loose" aria-label="Limits" noValidate onSubmit={onSubmit}>
      <h2>Limits</h2>
      {row.limits === null ? (
        <p className="quiet">No limits of their own; the ceilings still apply.</p>
      ) : (
        <p className="quiet">
          Set <Moment at={row.limits.setAt} /> by {row.limits.setBy}.
        </p>
      )}
      <FormList
        control={control}
        name="limits.domains"
        label="Only to people at"
        joint={'\n'}
        multiline
        hint="Empty: to anybody. Otherwise domains such as yard.example"
      />
      <Controller
        control={control}
        name="limits.folders"
        render={({ field }) => (
          <FolderTicks folders={folders} chosen={field.value ?? null} onChange={field.onChange} />
        )}
      />
      <Controller
        control={control}
        name="limits.rights"
        render={({ field, fieldState }) => (
          <AtMostRights
            words="At most"
            value={field.value ?? null}
            onChange={field.onChange}
            wrong={fieldState.error?.message}
          />
        )}
      />
      <FormNumber
        control={control}
        name="limits.days"
        label="Days at most"
        max={3650}
        hint="Empty: as long as the ceilings allow"
      />
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          Save limits
        </Button>
      </div>
      <Notice said={said} />
      <UndoBar
        text={done?.text ?? undoing.said?.text ?? null}
        stops={undoing.problem !== null}
        busy={undoing.busy}
        onUndo={
          done === null
            ? null
            : () => {
                setDone(null);
                void undoing.attempt(
                  () =>
                    api('POST /api/v1/staff/:id/limits', {
                      id,
                      limits: fieldsOf(done.before),
                      seen: done.setAt,
                    }),
                  'Undone.',
                );
              }
        }
        onClose={() => {
          setDone(null);
        }}
      />
    </form>
  );
}

function FolderTicks({
  folders,
  chosen,
  onChange,
}: {
  readonly folders: readonly FolderRow[];
  readonly chosen: readonly FolderRow['id'][] | null;
  readonly onChange: (chosen: readonly FolderRow['id'][] | null) => void;
}) {
  const toggle = (id: FolderRow['id'], on: boolean) => {
    const others = (chosen ?? []).filter((each) => each !== id);
    const next = on ? [...others, id] : others;
    onChange(next.length === 0 ? null : next);
  };
  return (
    <div role="group" aria-label="Folders">
      <span className="quiet">
        {chosen === null ? 'From any folder, or only from' : 'Only from'}
      </span>
      <div className="short-list">
        {folders.map((folder) => (
          <FormControlLabel
            key={folder.id}
            control={
              <Checkbox
                checked={chosen?.includes(folder.id) === true}
                onChange={(_event, on) => {
                  toggle(folder.id, on);
                }}
              />
            }
            label={wayText(folders, folder.id)}
          />
        ))}
      </div>
    </div>
  );
}
