'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { KeysPage } from '@/contracts/keys';
import { Note, Notice } from '@/ui/shell/notice';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { MakeRecovery } from '@/ui/recovery/make-recovery';
import { ConsentRows } from '@/ui/consents/consent-rows';
import { RecoveryDrill } from '@/ui/settings/drill';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { Moment } from '@/ui/time/moment';

/** Keys, recovery, and what needs two people. */
export function KeysView({ page }: { readonly page: KeysPage }) {
  const { said, attempt, busy } = useAttempt();
  const [making, setMaking] = useState(false);
  const { recoveryKey, versions, recoverable, destroyed, twoPeople, lastTried, lastBackup } = page;
  const keep = (publicKey: string) =>
    attempt(
      () => api('POST /api/v1/settings/recovery', { recoveryKey: publicKey }),
      'From now on every file is encrypted to this recovery key.',
    ).then((well) => {
      if (well) setMaking(false);
    });
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Keys and recovery</h1>
            <span className="gap" />
            <SettingsPlaces here="keys" />
          </div>
          <Notice said={said} />
        </div>
        <div
          className="scroll"
          style={{
            padding: '16px 22px 40px',
            display: 'grid',
            gap: 26,
            alignContent: 'start',
            maxWidth: 860,
          }}
        >
          {page.consents.length > 0 && (
            <section className="stack" aria-label="Waits for a second person">
              <h2>Waits for a second person</h2>
              <ConsentRows consents={page.consents} />
            </section>
          )}
          <section className="stack" aria-label="Recovery key">
            <h2>Recovery key</h2>
            {recoveryKey === null ? (
              <Note tone="stops">
                There is none. If this server is lost, every document is lost.
              </Note>
            ) : (
              <>
                <p>Its public half, to which every file is also encrypted:</p>
                <code className="key-text">{recoveryKey}</code>
              </>
            )}
            <p>
              It opens {recoverable} of {versions} stored versions
              {recoverable < versions
                ? '. The others were left out, or are encrypted to an earlier key: keep that one as well'
                : ''}
              .
            </p>
            {making ? (
              <MakeRecovery twoPeople={twoPeople} onKept={(publicKey) => void keep(publicKey)} />
            ) : (
              <div className="row">
                <Button
                  onClick={() => {
                    setMaking(true);
                  }}
                >
                  {recoveryKey === null ? 'Make a recovery key' : 'Replace the recovery key'}
                </Button>
              </div>
            )}
          </section>
          <section className="stack" aria-label="Drill">
            <h2>Drill</h2>
            <p>
              A drill shows that the recovery key works. It opens the beginning of one stored file
              in this page, with the key you stored and nothing else.
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
          <section className="stack" aria-label="Two people">
            <h2>Two people</h2>
            <p>
              {twoPeople
                ? 'Destroying several keys at once needs a second person, and ' +
                  'a new recovery key is kept by two people.'
                : 'One administrator alone can destroy many keys and keep the recovery key.'}
            </p>
            <div className="row">
              <Button
                disabled={busy}
                onClick={() =>
                  void attempt(
                    () => api('POST /api/v1/settings/two-people', { on: !twoPeople }),
                    twoPeople
                      ? 'A second administrator was asked.'
                      : 'From now on it needs two people.',
                  )
                }
              >
                {twoPeople ? 'Ask to need only one person' : 'Require two people'}
              </Button>
            </div>
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Overview">
        <div className="stack">
          <h2>Master key</h2>
          <p>
            Generation <b className="figure">{page.generation}</b>. It wraps the key of every
            version.
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
              : `${String(destroyed)} ${destroyed === 1 ? 'version' : 'versions'} without a key.`}
          </p>
        </div>
      </aside>
    </main>
  );
}
