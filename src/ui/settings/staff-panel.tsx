'use client';

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { StaffRow } from '@/contracts/staff';
import { ROLES, type Role } from '@/core/policy/permissions';
import type { StaffId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { roleHints } from '@/ui/words/role-words';

const stateWords: Record<StaffRow['state'], string> = {
  active: '.',
  invited: ', invited but not here yet.',
  disabled: ', disabled.',
};

type Props = {
  readonly row: StaffRow;
  readonly self: StaffId;
  readonly attempt: Attempt['attempt'];
};

/** One member of staff: what they may do, and what can be changed about it. */
export function StaffPanel({ row, self, attempt }: Props) {
  return (
    <div className="stack">
      <h2>{row.email}</h2>
      <p className="answer">
        {row.name}, {row.role}
        {stateWords[row.state]}
      </p>
      <p>{roleHints[row.role]}</p>
      <hr />
      {row.id === self ? (
        <p className="quiet">Only another administrator can change your role and access.</p>
      ) : (
        <StaffChanges row={row} attempt={attempt} />
      )}
    </div>
  );
}

function StaffChanges({ row, attempt }: Omit<Props, 'self'>) {
  const { id, name } = row;
  const change = (
    to: { readonly role?: Role; readonly disabled?: boolean; readonly factor?: false },
    done: string,
  ) => void attempt(() => api('POST /api/v1/staff/:id', { id, ...to }), done);
  return (
    <>
      <TextField
        select
        label="Role"
        value={row.role}
        disabled={row.state === 'disabled'}
        onChange={({ target }) => {
          const role = ROLES.find((each) => each === target.value);
          if (role !== undefined)
            change({ role }, `${name} is ${role} now, and has to sign in again.`);
        }}
      >
        {ROLES.map((role) => (
          <MenuItem key={role} value={role}>
            {role}
          </MenuItem>
        ))}
      </TextField>
      <p className="quiet">A change takes effect at once: they have to sign in again.</p>
      <div className="row">
        {row.state !== 'disabled' && (
          <Button
            onClick={() =>
              void attempt(
                () => api('POST /api/v1/staff/:id/invitation', { id }),
                `A new link is on its way to ${row.email}.`,
              )
            }
          >
            {row.state === 'invited' ? 'Invite again' : 'Send a password link'}
          </Button>
        )}
        {row.factor && (
          <Button
            onClick={() => {
              change(
                { factor: false },
                `${name} signs in by password alone until they set up a second factor again.`,
              );
            }}
          >
            Remove second factor
          </Button>
        )}
        {row.state === 'disabled' ? (
          <Button
            onClick={() => {
              change({ disabled: false }, `${name} can sign in again.`);
            }}
          >
            Enable
          </Button>
        ) : (
          <Button
            color="error"
            onClick={() => {
              change({ disabled: true }, `${name} is disabled and signed out everywhere.`);
            }}
          >
            Disable
          </Button>
        )}
      </div>
    </>
  );
}
