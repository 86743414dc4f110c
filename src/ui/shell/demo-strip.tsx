'use client';

import { useRouter } from 'next/navigation';
import NativeSelect from '@mui/material/NativeSelect';
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
      <StripChoice
        before="Mailbox of"
        label="Mailbox"
        none="choose…"
        value={null}
        options={bar.mailboxes.map(({ address, name }) => [
          address,
          name === '' ? address : `${name}, ${address}`,
        ])}
        onChange={(address) => {
          if (address !== null) router.push(`/mailroom?address=${encodeURIComponent(address)}`);
        }}
      />
      <StripChoice
        before="open from"
        label="Place"
        none="this machine"
        value={bar.pretence.network}
        disabled={busy}
        options={bar.places.map(({ network, name }) => [network, `${name} (${network})`])}
        onChange={(network) => void change({ network })}
      />
      <StripChoice
        before="on"
        label="Device"
        none="this browser"
        value={bar.pretence.agent}
        disabled={busy}
        options={bar.devices.map(({ agent, name }) => [agent, name])}
        onChange={(agent) => void change({ agent })}
      />
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

/** One of several, or none. */
function StripChoice({
  before,
  label,
  none,
  value,
  options,
  disabled = false,
  onChange,
}: {
  /** What is read before the choice. */
  readonly before: string;
  readonly label: string;
  /** What stands for none. */
  readonly none: string;
  readonly value: string | null;
  readonly options: readonly (readonly [value: string, name: string])[];
  readonly disabled?: boolean;
  readonly onChange: (value: string | null) => void;
}) {
  return (
    <label>
      {before}{' '}
      <NativeSelect
        disableUnderline
        disabled={disabled}
        value={value ?? OWN}
        inputProps={{ 'aria-label': label }}
        onChange={({ target }) => {
          onChange(target.value === OWN ? null : target.value);
        }}
      >
        <option value={OWN}>{none}</option>
        {options.map(([each, name]) => (
          <option key={each} value={each}>
            {name}
          </option>
        ))}
      </NativeSelect>
    </label>
  );
}
