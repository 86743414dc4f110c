'use client';

import { useMemo, useState } from 'react';
import dynamic from 'next/dynamic';
import type { StaffList, StaffRow } from '@/contracts/staff';
import { counted } from '@/core/base/counted';
import type { StaffId } from '@/core/base/ids';
import { useAttempt } from '@/ui/http/use-attempt';
import { InviteForm } from '@/ui/settings/invite-form';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { StaffPanel } from '@/ui/settings/staff-panel';
import { Notice } from '@/ui/shell/notice';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';

const LimitsForm = dynamic(() =>
  import('@/ui/settings/limits-form').then((form) => form.LimitsForm),
);

const stateWords: Record<StaffRow['state'], string> = {
  active: 'can sign in',
  invited: 'invited',
  disabled: 'disabled',
};
const stateTone: Record<StaffRow['state'], string | undefined> = {
  active: undefined,
  invited: 'lamp',
  disabled: 'magenta',
};

function columnsOf(self: StaffId, onSelect: (id: StaffId) => void): readonly Column<StaffRow>[] {
  return [
    {
      id: 'name',
      header: 'Name',
      width: 140,
      orderBy: (row) => row.name,
      cell: (row) => (
        <>
          <RowButton
            onPress={() => {
              onSelect(row.id);
            }}
          >
            {row.name}
          </RowButton>
          {row.id === self && <span className="quiet"> you</span>}
        </>
      ),
    },
    {
      id: 'email',
      header: 'Email address',
      width: 200,
      kind: 'oneline',
      orderBy: (row) => row.email,
      cell: (row) => row.email,
    },
    { id: 'role', header: 'Role', width: 104, orderBy: (row) => row.role, cell: (row) => row.role },
    {
      id: 'factor',
      header: 'Signs in by',
      width: 100,
      orderBy: (row) => (row.factor ? 1 : 0),
      cell: (row) => (row.factor ? 'password and app' : 'password'),
    },
    {
      id: 'state',
      header: 'State',
      width: 92,
      orderBy: (row) => row.state,
      cell: (row) => <span className={stateTone[row.state]}>{stateWords[row.state]}</span>,
    },
    {
      id: 'invitedAt',
      header: 'Since',
      width: 158,
      orderBy: (row) => row.invitedAt,
      cell: (row) => <Moment at={row.invitedAt} />,
    },
  ];
}

/** Who works here, with which permissions. */
export function StaffView({ staff, folders, self, mail }: StaffList) {
  const [selected, setSelected] = useState<StaffId>(self);
  const { said, attempt } = useAttempt();
  const columns = useMemo(() => columnsOf(self, setSelected), [self]);
  const row = staff.find((each) => each.id === selected);
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Staff</h1>
            <span className="quiet">
              {staff.length === 1 ? 'you alone' : counted(staff.length, 'person', 'people')}
            </span>
            <span className="gap" />
            <SettingsPlaces here="staff" />
          </div>
          <InviteForm mail={mail} attempt={attempt} />
          <Notice said={said} />
        </div>
        <div className="scroll">
          <DataTable
            id="staff"
            label="Staff"
            columns={columns}
            rows={staff}
            keyOf={({ id }) => id}
            isSelected={({ id }) => id === selected}
          />
        </div>
      </div>
      <aside className="side" aria-label="The selected person">
        {row !== undefined && <StaffPanel row={row} self={self} attempt={attempt} />}
        {row?.role === 'sender' && row.state !== 'disabled' && (
          <>
            <hr />
            <LimitsForm
              key={`${row.id} ${String(row.limits?.setAt)}`}
              row={row}
              folders={folders}
            />
          </>
        )}
      </aside>
    </main>
  );
}
