'use client';

import { Fragment, useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import type { LedgerInput } from '@/contracts/ledger';
import { clockText } from '@/core/base/moment-text';
import { addressOf } from '@/ui/ledger/ledger-address';
import { ClockField, DayField } from '@/ui/time/moment-field';

/** One edge of a period: a day, and a time of it where one is given. */
type Edge = { readonly day: string | null; readonly time: string };

function edgeOf(text: string | undefined): Edge {
  return { day: text?.slice(0, 10) ?? null, time: text?.slice(11) ?? '' };
}

/** A day or, with a time, a moment; undefined where neither is given. */
function edgeText({ day, time }: Edge): string | undefined {
  if (day === null) return undefined;
  return time === '' ? day : `${day}T${time}`;
}

function minuteOf(time: string): number | null {
  return time === '' ? null : Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
}

/** From when to when, typed: by days, or to the minute. */
export function SpanForm({
  filter,
  first,
  last,
}: {
  readonly filter: LedgerInput;
  readonly first: string;
  readonly last: string;
}) {
  const router = useRouter();
  const [edges, setEdges] = useState({ from: edgeOf(filter.from), to: edgeOf(filter.to) });
  const [timed, setTimed] = useState(edges.from.time !== '' || edges.to.time !== '');
  const set = (name: 'from' | 'to', change: Partial<Edge>) => {
    setEdges((before) => ({ ...before, [name]: { ...before[name], ...change } }));
  };
  return (
    <form
      className="row top days"
      onSubmit={(event) => {
        event.preventDefault();
        router.push(
          addressOf('/ledger', filter, {
            from: edgeText(edges.from),
            to: edgeText(edges.to),
          }),
        );
      }}
    >
      {(['from', 'to'] as const).map((name) => (
        <Fragment key={name}>
          <DayField
            label={name === 'from' ? 'From' : 'To'}
            value={edges[name].day}
            onChange={(day) => {
              set(name, { day });
            }}
            first={first}
            last={last}
          />
          {timed && (
            <ClockField
              label={name === 'from' ? 'From what time' : 'Until what time'}
              minute={minuteOf(edges[name].time)}
              onChange={(minute) => {
                set(name, { time: minute === null ? '' : clockText(minute) });
              }}
            />
          )}
        </Fragment>
      ))}
      <Button type="submit" title="You can also draw over the bars">
        Show this period
      </Button>
      {!timed && (
        <Button
          variant="text"
          onClick={() => {
            setTimed(true);
          }}
        >
          Exact times
        </Button>
      )}
    </form>
  );
}
