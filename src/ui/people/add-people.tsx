'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { GroupRow } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import type { Row } from '@/core/compose/sheet';
import { GroupChoice, type ChosenGroup } from '@/ui/people/group-choice';
import { AddressBox } from '@/ui/recipients/address-box';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ChipButton } from '@/ui/shell/chips';
import { Notice } from '@/ui/shell/notice';

/** People typed, pasted or found, added together, and put into a group if one is wanted. */
export function AddToPeople({ groups }: { readonly groups: readonly GroupRow[] }) {
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [group, setGroup] = useState<ChosenGroup>(null);
  const { busy, said, attempt } = useAttempt();
  const people = rows.filter(({ kind }) => kind === 'person');
  const add = (added: readonly Row[]) => {
    setRows((before) => [...new Map([...before, ...added].map((row) => [row.key, row])).values()]);
  };
  const send = async () => {
    const well = await attempt(
      () =>
        api('POST /api/v1/people/add', {
          people: people.map(({ key, name, organisation }) => ({
            address: key,
            name,
            organisation,
          })),
          group,
        }),
      `${counted(people.length, 'person', 'people')} added${group === null ? '' : ', and in the group'}.`,
    );
    if (!well) return;
    setRows([]);
    setGroup(null);
  };
  return (
    <section className="stack above-12" aria-label="Add people">
      <div className="row one-row top">
        <AddressBox autoFocus onAdd={add} />
        <GroupChoice groups={groups} value={group} onChange={setGroup} />
        <Button
          variant="contained"
          className="nowrap"
          disabled={busy || people.length === 0}
          onClick={() => void send()}
        >
          Add {counted(people.length, 'person', 'people')}
        </Button>
      </div>
      {rows.length > people.length && (
        <p className="quiet">Groups and domains are left out: only people are added here.</p>
      )}
      <div className="row">
        {people.map(({ key, name }) => (
          <ChipButton
            key={key}
            aria-label={`Remove ${key}`}
            onClick={() => {
              setRows((before) => before.filter((row) => row.key !== key));
            }}
          >
            {name === '' ? key : `${name}, ${key}`} ×
          </ChipButton>
        ))}
      </div>
      <Notice said={said} />
    </section>
  );
}
