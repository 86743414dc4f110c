'use client';

import { useLinkStatus } from 'next/link';
import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import { holds, type Permission, type Role } from '@/core/policy/permissions';
import { api } from '@/ui/http/api';
import { QueryProvider } from '@/ui/http/query-provider';
import type { DemoBar } from '@/contracts/demo';
import { DemoStrip } from '@/ui/shell/demo-strip';
import { Emblem } from '@/ui/shell/emblem';
import { FindBox } from '@/ui/shell/find-box';
import { AskReason } from '@/ui/shell/ask-reason';
import { ReasonsAskedProvider } from '@/ui/shell/reason-field';
import { PlaceLink } from '@/ui/shell/place-link';
import { ProveAgain } from '@/ui/shell/prove-again';
import { RoleProvider } from '@/ui/shell/permissions';

type Place = { readonly name: string; readonly href: string; readonly needs: Permission };
const places: readonly Place[] = [
  { name: 'Today', href: '/today', needs: 'look' },
  { name: 'Dispatches', href: '/dispatches', needs: 'look' },
  { name: 'Compose', href: '/compose', needs: 'dispatch' },
  { name: 'Documents', href: '/documents', needs: 'look' },
  { name: 'People', href: '/people', needs: 'look' },
  { name: 'Ledger', href: '/ledger', needs: 'read-own-record' },
  { name: 'Terms', href: '/terms', needs: 'look' },
  { name: 'Settings', href: '/settings', needs: 'manage-staff' },
];
const demoPlaces: readonly Place[] = [
  { name: 'Mailroom', href: '/mailroom', needs: 'read-mailroom' },
];

/** The column of places; work surface and side panel stand beside it. */
export function Shell({
  name,
  role,
  organisation,
  demo,
  reasonsAsked,
  bar,
  children,
}: {
  readonly reasonsAsked: boolean;
  readonly name: string;
  readonly role: Role;
  readonly organisation: string;
  readonly demo: boolean;
  readonly bar: DemoBar | null;
  readonly children: ReactNode;
}) {
  return (
    <QueryProvider>
      <div className="app">
        <nav className="places" aria-label="Places">
          <div className="name">
            <Emblem />
            Embargo
          </div>
          <FindBox />
          {[...places, ...(demo ? demoPlaces : [])]
            .filter((place) => holds(role, place.needs))
            .map((place) => (
              <PlaceLink key={place.href} href={place.href}>
                {place.name}
                <Pending />
              </PlaceLink>
            ))}
          <div className="gap" />
          <div className="stack who">
            <div className="self">
              <PlaceLink href="/you">{name}</PlaceLink>
              <span className="quiet small">
                {role} · {organisation}
              </span>
            </div>
            <SchemeSwitch />
            <SignOut />
          </div>
        </nav>
        <RoleProvider value={role}>
          <ReasonsAskedProvider value={reasonsAsked}>{children}</ReasonsAskedProvider>
        </RoleProvider>
        {bar !== null && <DemoStrip bar={bar} />}
        <ProveAgain />
        <AskReason />
      </div>
    </QueryProvider>
  );
}

/** Shows on a link that its page is being fetched, once that takes longer than a moment. */
function Pending() {
  const { pending } = useLinkStatus();
  return pending ? <span role="status" aria-label="Fetching" className="pending" /> : null;
}

function SchemeSwitch() {
  const { mode, setMode } = useColorScheme();
  const next = mode === 'light' ? 'dark' : mode === 'dark' ? 'system' : 'light';
  return (
    <Button
      variant="text"
      sx={{ justifyContent: 'flex-start', px: 0 }}
      onClick={() => {
        setMode(next);
      }}
    >
      Scheme: {mode ?? 'system'}
    </Button>
  );
}

function SignOut() {
  const leave = async () => {
    await api('POST /api/v1/sign-out', {}).catch(() => undefined);
    window.location.assign('/sign-in');
  };
  return (
    <Button
      variant="text"
      sx={{ justifyContent: 'flex-start', px: 0 }}
      onClick={() => void leave()}
    >
      Sign out
    </Button>
  );
}
