'use client';

import type { KeysPage } from '@/contracts/keys';
import { counted } from '@/core/base/counted';
import { ConsentRows } from '@/ui/consents/consent-rows';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { RecoveryDrill } from '@/ui/settings/drill';
import { RecoveryKeyPart } from '@/ui/settings/recovery-key-part';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import Button from '@mui/material/Button';

/** Keys, recovery, and what needs two people. */
export function KeysView({ page }: { readonly page: KeysPage }) {
  const work = useAttempt();
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Keys and recovery</h1>
            <span className="gap" />
            <SettingsPlaces here="keys" />
          </div>
          <Notice said={work.said} />
        </div>
        <div className="scroll part sections">
          {page.consents.length > 0 && (
            <section className="stack" aria-label="Waits for a second person">
              <h2>Waits for a second person</h2>
              <ConsentRows consents={page.consents} />
            </section>
          )}
          <RecoveryKeyPart page={page} attempt={work.attempt} />
          <DrillPart page={page} />
          <TwoPeoplePart twoPeople={page.twoPeople} work={work} />
        </div>
      </div>
      <KeysAside page={page} />
    </main>
  );
}

function DrillPart({ page: { lastTried, recoveryKey } }: { readonly page: KeysPage }) {
  return (
    <section className="stack" aria-label="Drill">
      <h2>Drill</h2>
      <p>
        A drill shows that the recovery key works. It opens the beginning of one stored file in this
        page, with the key you stored and nothing else.
      </p>
      {lastTried === null ? (
        <p className="lamp">No drill yet.</p>
      ) : (
        <p className={lastTried.opened ? 'current' : 'magenta'}>
          Last tried <Moment at={lastTried.at} /> by {lastTried.who}:{' '}
          {lastTried.opened ? 'it opened.' : 'it did not open.'}
        </p>
      )}
      {recoveryKey !== null && <RecoveryDrill />}
    </section>
  );
}

function TwoPeoplePart({
  twoPeople,
  work: { busy, attempt },
}: {
  readonly twoPeople: boolean;
  readonly work: Attempt;
}) {
  const change = () =>
    attempt(
      () => api('POST /api/v1/settings/two-people', { on: !twoPeople }),
      twoPeople ? 'A second administrator was asked.' : 'From now on it needs two people.',
    );
  return (
    <section className="stack" aria-label="Two people">
      <h2>Two people</h2>
      <p>
        {twoPeople
          ? 'Destroying several keys at once needs a second person, and a new recovery key is kept by two people.'
          : 'One administrator alone can destroy many keys and keep the recovery key.'}
      </p>
      <div className="row">
        <Button disabled={busy} onClick={() => void change()}>
          {twoPeople ? 'Ask to need only one person' : 'Require two people'}
        </Button>
      </div>
    </section>
  );
}

function KeysAside({ page: { generation, lastBackup, destroyed } }: { readonly page: KeysPage }) {
  return (
    <aside className="side" aria-label="Overview">
      <div className="stack">
        <h2>Master key</h2>
        <p>
          Generation <b className="figure">{generation}</b>. It wraps the key of every version.
        </p>
        <p className="quiet">Rotate it on the server while it runs:</p>
        <code className="key-text">npm run embargo -- key rotate</code>
        <hr />
        <h2>Backup</h2>
        <p>
          {lastBackup === null ? (
            <span className="lamp">No backup yet.</span>
          ) : (
            <>
              Last made <Moment at={lastBackup} />.
            </>
          )}
        </p>
        <p className="quiet">
          One file with database, contents and keys, opened only by the recovery key:
        </p>
        <code className="key-text">npm run embargo -- backup</code>
        <hr />
        <h2>Destroyed</h2>
        <p>
          {destroyed === 0
            ? 'No key was destroyed.'
            : `${counted(destroyed, 'version')} without a key.`}
        </p>
      </div>
    </aside>
  );
}
