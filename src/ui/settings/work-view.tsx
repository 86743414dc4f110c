'use client';

import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { NoticeView } from '@/contracts/reader-notice';
import type { WorkSettings } from '@/contracts/settings';
import { counted } from '@/core/base/counted';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { MailPart } from '@/ui/settings/mail-part';
import { NoticePart } from '@/ui/settings/notice-part';
import { SendingPart } from '@/ui/settings/sending-part';
import { KeepersPart } from '@/ui/settings/keepers-part';
import { SettingsPlaces } from '@/ui/settings/settings-places';
import { Notice } from '@/ui/shell/notice';

const DAYS_AHEAD = [0, 1, 3, 7] as const;

/** How work is done in this organisation. */
export function WorkView({
  settings,
  notice,
}: {
  readonly settings: WorkSettings;
  readonly notice: NoticeView;
}) {
  const { busy, said, attempt } = useAttempt();
  const put = (change: Partial<WorkSettings>, done: string) =>
    void attempt(() => api('POST /api/v1/settings/work', change), done);
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Work</h1>
            <span className="gap" />
            <SettingsPlaces here="work" />
          </div>
          <Notice said={said} />
        </div>
        <div className="scroll">
          <section className="stack part" aria-label="Reasons">
            <h2>Reasons</h2>
            <FormControlLabel
              control={
                <Checkbox
                  checked={settings.reasonsAsked}
                  disabled={busy}
                  onChange={(_event, on) => {
                    put(
                      { reasonsAsked: on },
                      on
                        ? 'A reason is asked for from now on.'
                        : 'A reason is no longer asked for.',
                    );
                  }}
                />
              }
              label="Ask for a reason when access is revoked, reduced or reinstated, and when keys are destroyed"
            />
            <p className="quiet">
              A reason can always be given. It is kept in the ledger, where it can be erased without
              breaking the chain.
            </p>
          </section>
          <section className="stack part-form" aria-label="Access ending soon">
            <h2>Access ending soon</h2>
            <TextField
              select
              size="small"
              label="Tell recipients before their access ends"
              value={String(settings.endsTold)}
              disabled={busy}
              onChange={(event) => {
                const days = DAYS_AHEAD.find((each) => String(each) === event.target.value);
                if (days !== undefined)
                  put(
                    { endsTold: days },
                    days === 0
                      ? 'Recipients are no longer told.'
                      : `Recipients are told ${counted(days, 'day')} ahead from now on.`,
                  );
              }}
              helperText="Those who were mailed a link, in their own zone, unless they can read longer another way"
              sx={{ maxWidth: 420 }}
            >
              {DAYS_AHEAD.map((days) => (
                <MenuItem key={days} value={String(days)}>
                  {days === 0 ? 'not told' : `${counted(days, 'day')} ahead`}
                </MenuItem>
              ))}
            </TextField>
          </section>
          <SendingPart settings={settings} busy={busy} put={put} attempt={attempt} />
          <MailPart
            key={`${settings.mailColour} ${settings.mailSignature}`}
            settings={settings}
            attempt={attempt}
          />
          <NoticePart key={`notice ${String(notice.version)}`} notice={notice} attempt={attempt} />
          <KeepersPart
            key={settings.checkpointsTo.join(' ')}
            settings={settings}
            attempt={attempt}
            busy={busy}
            put={put}
          />
        </div>
      </div>
    </main>
  );
}
