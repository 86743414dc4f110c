'use client';

import { useRouter } from 'next/navigation';
import type { DemoBar } from '@/contracts/demo';
import { DAY, HOUR } from '@/core/base/time';
import { ChipButton } from '@/ui/shell/chips';
import type { Api } from '@/contracts/api';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Moment } from '@/ui/time/moment';

const STEPS = [
  { name: '+ 1 hour', span: HOUR },
  { name: '+ 1 day', span: DAY },
  { name: '+ 1 week', span: 7 * DAY },
];
const OWN = '';

/** In a demo alone: whose mailbox to look into, from where and on what to open, and the clock. */
export function DemoStrip({ bar }: { readonly bar: DemoBar }) {
  const router = useRouter();
  // One change after another: each answers with the cookie that the next one builds on.
  const { busy, problem, attempt } = useAttempt();
  const change = (body: Api['POST /api/v1/demo']['takes']) =>
    attempt(() => api('POST /api/v1/demo', body));
  return (
    <aside className="demo-strip" aria-label="Demo">
      <b>Demo</b>
      <label>
        Mailbox of{' '}
        <select
          aria-label="Mailbox"
          value={OWN}
          onChange={(event) => {
            if (event.target.value !== OWN)
              router.push(`/mailroom?address=${encodeURIComponent(event.target.value)}`);
          }}
        >
          <option value={OWN}>choose…</option>
          {bar.mailboxes.map(({ address, name }) => (
            <option key={address} value={address}>
              {name === '' ? address : `${name}, ${address}`}
            </option>
          ))}
        </select>
      </label>
      <label>
        open from{' '}
        <select
          aria-label="Place"
          disabled={busy}
          value={bar.pretence.network ?? OWN}
          onChange={(event) =>
            void change({ network: event.target.value === OWN ? null : event.target.value })
          }
        >
          <option value={OWN}>this machine</option>
          {bar.places.map(({ network, name }) => (
            <option key={network} value={network}>
              {name} ({network})
            </option>
          ))}
        </select>
      </label>
      <label>
        on{' '}
        <select
          aria-label="Device"
          disabled={busy}
          value={bar.pretence.agent ?? OWN}
          onChange={(event) =>
            void change({ agent: event.target.value === OWN ? null : event.target.value })
          }
        >
          <option value={OWN}>this browser</option>
          {bar.devices.map(({ agent, name }) => (
            <option key={agent} value={agent}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <span className="gap" />
      <span>
        <Moment at={bar.now} named />
        {bar.ahead > 0 && <span className="lamp"> put forward</span>}
      </span>
      {STEPS.map(({ name, span }) => (
        <ChipButton key={name} disabled={busy} onClick={() => void change({ forward: span })}>
          {name}
        </ChipButton>
      ))}
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
    </aside>
  );
}
