'use client';

import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import {
  NOTICE_KINDS,
  RHYTHMS,
  type NoticeChoices,
  type NoticeKind,
  type Rhythm,
} from '@/core/insight/notices';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';

const kindNames: Record<NoticeKind, { readonly name: string; readonly hint: string }> = {
  'first-open': {
    name: 'First open',
    hint: 'somebody opens one of your documents for the first time',
  },
  refused: { name: 'Refusal', hint: 'somebody tries to open one and is refused' },
  'new-place': {
    name: 'New place',
    hint: 'somebody opens one from where nobody of their organisation was before',
  },
  'new-device': {
    name: 'New device',
    hint: 'somebody who had opened one before opens one on another device',
  },
  ending: { name: 'Access ending soon', hint: 'what you dispatched ends within three days' },
};
const rhythmNames: Record<Rhythm, string> = {
  never: 'not told',
  'at-once': 'at once',
  daily: 'in one mail a day',
};

/** Of what, and when, one is told by mail: what one owns, stands in for or dispatched. */
export function NoticesPart({ choices }: { readonly choices: NoticeChoices }) {
  const { busy, said, attempt } = useAttempt();
  const choose = (kind: NoticeKind, rhythm: Rhythm) =>
    void attempt(
      () => api('POST /api/v1/you/notices', { [kind]: rhythm }),
      rhythm === 'never'
        ? `${kindNames[kind].name}: you are no longer told.`
        : `${kindNames[kind].name}: you are told ${rhythmNames[rhythm]}, from now on.`,
    );
  return (
    <section className="stack loose" aria-label="Notices">
      <h2 className="above-12">Notices</h2>
      <p className="quiet">
        Mailed to you, about the documents you own or stand in for and what you dispatched. What
        comes within ten minutes comes together; the daily mail goes out at seven by the
        organisation’s clock.
      </p>
      {NOTICE_KINDS.map((kind) => (
        <TextField
          key={kind}
          select
          size="small"
          label={kindNames[kind].name}
          helperText={kindNames[kind].hint}
          value={choices[kind]}
          disabled={busy}
          onChange={(event) => {
            const rhythm = RHYTHMS.find((each) => each === event.target.value);
            if (rhythm !== undefined) choose(kind, rhythm);
          }}
          sx={{ maxWidth: 420 }}
        >
          {RHYTHMS.map((rhythm) => (
            <MenuItem key={rhythm} value={rhythm}>
              {rhythmNames[rhythm]}
            </MenuItem>
          ))}
        </TextField>
      ))}
      <Notice said={said} />
    </section>
  );
}
