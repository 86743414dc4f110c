'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { StaffList, StaffRow } from '@/contracts/staff';
import { ROLES, type Role } from '@/core/policy/permissions';
import type { StaffId } from '@/core/base/ids';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { LimitsForm } from '@/ui/settings/limits-form';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { roleHints } from '@/ui/words/role-words';

/** Who works here, with which powers. */
export function StaffView({ staff, folders, self, mail }: StaffList) {
  const [selected, setSelected] = useState<StaffId>(self);
  const { said, attempt } = useAttempt();
  const act = (path: string, body: unknown, done: string) =>
    attempt(() => call('POST', path, body), done);
  const row = staff.find((each) => each.id === selected);
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Staff</h1>
            <span className="quiet">
              {staff.length === 1 ? 'you alone' : `${String(staff.length)} people`}
            </span>
            <span className="gap" />
            <SettingsPlaces here="staff" />
          </div>
          <Invite
            mail={mail}
            onInvite={(fields) => act('/api/v1/staff', fields, `${fields.name} was invited.`)}
          />
          <Notice said={said} />
        </div>
        <div className="scroll">
          <table className="list">
            <thead>
              <tr>
                <th>Name</th>
                <th>Address</th>
                <th>Role</th>
                <th>Signs in by</th>
                <th>State</th>
                <th>Since</th>
              </tr>
            </thead>
            <tbody>
              {staff.map((each) => (
                <tr key={each.id} aria-selected={each.id === selected}>
                  <td>
                    <button
                      type="button"
                      className="row-button"
                      onClick={() => {
                        setSelected(each.id);
                      }}
                    >
                      {each.name}
                    </button>
                    {each.id === self && <span className="quiet"> you</span>}
                  </td>
                  <td>{each.email}</td>
                  <td>{each.role}</td>
                  <td>{each.factor ? 'password and app' : 'password'}</td>
                  <td
                    className={
                      each.state === 'disabled' ? 'magenta' : each.state === 'invited' ? 'lamp' : ''
                    }
                  >
                    {each.state === 'active' ? 'can sign in' : each.state}
                  </td>
                  <td>
                    <Moment at={each.invitedAt} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
      <aside className="side" aria-label="The selected person">
        {row !== undefined && (
          <>
            <StaffPanel
              row={row}
              self={self}
              onChange={(change, done) => void act(`/api/v1/staff/${row.id}`, change, done)}
              onMail={() =>
                void act(
                  `/api/v1/staff/${row.id}/invitation`,
                  {},
                  `A new link is on its way to ${row.email}.`,
                )
              }
            />
            {row.role === 'sender' && row.state !== 'disabled' && (
              <>
                <hr />
                <LimitsForm
                  key={`${row.id} ${String(row.limits?.setAt)}`}
                  row={row}
                  folders={folders}
                />
              </>
            )}
          </>
        )}
      </aside>
    </main>
  );
}

type InviteFields = { readonly name: string; readonly email: string; readonly role: Role };

function Invite({
  mail,
  onInvite,
}: {
  readonly mail: boolean;
  readonly onInvite: (fields: InviteFields) => Promise<boolean>;
}) {
  const [fields, setFields] = useState<InviteFields>({ name: '', email: '', role: 'sender' });
  if (!mail)
    return (
      <p className="notice above-10">
        Nobody can be invited because no mail server is set up. Set MAIL_URL and MAIL_FROM and start
        again.
      </p>
    );
  const send = async () => {
    if (await onInvite(fields)) setFields({ name: '', email: '', role: 'sender' });
  };
  return (
    <form
      className="row"
      style={{ marginTop: 12, flexWrap: 'nowrap' }}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <TextField
        label="Name"
        required
        value={fields.name}
        onChange={(event) => {
          setFields({ ...fields, name: event.target.value });
        }}
      />
      <TextField
        label="Email address"
        type="email"
        required
        value={fields.email}
        onChange={(event) => {
          setFields({ ...fields, email: event.target.value });
        }}
      />
      <RoleField
        value={fields.role}
        onChange={(role) => {
          setFields({ ...fields, role });
        }}
      />
      <Button type="submit" sx={{ whiteSpace: 'nowrap' }}>
        Invite
      </Button>
    </form>
  );
}

function RoleField({
  value,
  onChange,
  disabled = false,
}: {
  readonly value: Role;
  readonly onChange: (role: Role) => void;
  readonly disabled?: boolean;
}) {
  return (
    <TextField
      select
      label="Role"
      value={value}
      disabled={disabled}
      sx={{ minWidth: 140 }}
      onChange={(event) => {
        const role = ROLES.find((each) => each === event.target.value);
        if (role !== undefined) onChange(role);
      }}
    >
      {ROLES.map((role) => (
        <MenuItem key={role} value={role}>
          {role}
        </MenuItem>
      ))}
    </TextField>
  );
}

function StaffPanel({
  row,
  self,
  onChange,
  onMail,
}: {
  readonly row: StaffRow;
  readonly self: StaffId;
  readonly onChange: (
    change: { readonly role?: Role; readonly disabled?: boolean; readonly factor?: false },
    done: string,
  ) => void;
  readonly onMail: () => void;
}) {
  const isSelf = row.id === self;
  return (
    <div className="stack">
      <h2>{row.email}</h2>
      <p className="answer">
        {row.name}, {row.role}
        {row.state === 'active'
          ? '.'
          : row.state === 'invited'
            ? ', invited but not here yet.'
            : ', disabled.'}
      </p>
      <p>{roleHints[row.role]}</p>
      <hr />
      {isSelf ? (
        <p className="quiet">Only another administrator can change your role and access.</p>
      ) : (
        <>
          <RoleField
            value={row.role}
            disabled={row.state === 'disabled'}
            onChange={(role) => {
              onChange({ role }, `${row.name} is ${role} now, and has to sign in again.`);
            }}
          />
          <p className="quiet">A change takes effect at once: they have to sign in again.</p>
          <div className="row">
            {row.state !== 'disabled' && (
              <Button onClick={onMail}>
                {row.state === 'invited' ? 'Invite again' : 'Send a password link'}
              </Button>
            )}
            {row.factor && (
              <Button
                onClick={() => {
                  onChange(
                    { factor: false },
                    `${row.name} signs in by password alone until they set up a second factor again.`,
                  );
                }}
              >
                Remove second factor
              </Button>
            )}
            {row.state === 'disabled' ? (
              <Button
                onClick={() => {
                  onChange({ disabled: false }, `${row.name} can sign in again.`);
                }}
              >
                Enable
              </Button>
            ) : (
              <Button
                color="error"
                onClick={() => {
                  onChange(
                    { disabled: true },
                    `${row.name} is disabled and signed out everywhere.`,
                  );
                }}
              >
                Disable
              </Button>
            )}
          </div>
        </>
      )}
    </div>
  );
}
