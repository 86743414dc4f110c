'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { WorkSettings } from '@/contracts/settings';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { Notice } from '@/ui/shell/notice';

/** How work is done in this organisation. */
export function WorkView({ settings }: { readonly settings: WorkSettings }) {
  const { busy, said, attempt } = useAttempt();
  const put = (change: Partial<WorkSettings>, done: string) => void attempt(() => call('POST', '/api/v1/settings/work', { ...settings, ...change }), done);
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row"><h1>Work</h1><span className="gap" /><SettingsPlaces here="work" /></div>
          <Notice said={said} />
        </div>
        <div className="scroll">
          <section className="stack" aria-label="Reasons" style={{ padding: '14px 22px' }}>
            <h2>Reasons</h2>
            <FormControlLabel
              control={<Checkbox checked={settings.reasonsAsked} disabled={busy} onChange={(_event, on) => { put({ reasonsAsked: on }, on ? 'A reason is asked for from now on.' : 'A reason is no longer asked for.'); }} />}
              label="Ask for a reason when access is revoked, narrowed or given back, and when keys are destroyed"
            />
            <p className="quiet">A reason can always be given. It is kept in the ledger, where it can be erased without breaking the chain.</p>
          </section>
        </div>
      </div>
    </main>
  );
}
