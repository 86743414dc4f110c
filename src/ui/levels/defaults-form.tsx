'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import {
  MAX_LEVEL_WATERMARK,
  type DefaultsChanged,
  type DefaultsImpact,
  type DefaultsRow,
} from '@/contracts/defaults';
import type { TermsPage } from '@/contracts/saved-terms';
import { NO_DEFAULTS, setsAnything, type Defaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import { RightsFields } from '@/ui/terms-fields/rights-fields';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';
import { LevelChooser } from '@/ui/levels/level-chooser';
import type { RuleDone } from '@/ui/levels/rule-done';
import { levelOf } from '@/ui/words/limit-words';

type Props = {
  /** Whose; null: it is chosen here. */ readonly of: Pick<
    DefaultsRow,
    'level' | 'subject' | 'name'
  > | null;
  readonly page: Pick<TermsPage, 'defaults' | 'markings' | 'folders'>;
  readonly mayChange: boolean;
  readonly onDone: (done: RuleDone) => void;
} & Pick<Attempt, 'attempt' | 'busy'>;

/**
 * What dispatches below a level begin with, and what stands on every page there; whom the latter
 * touches is read before it is made.
 */
export function DefaultsForm({ of, page, mayChange, attempt, busy, onDone }: Props) {
  const [level, setLevel] = useState<Level>(of?.level ?? 'organisation');
  const [subject, setSubject] = useState(of?.subject ?? '');
  const knownAt = (at: Level, id: string) =>
    page.defaults.find((each) => each.level === at && each.subject === id) ?? null;
  const known = knownAt(level, subject);
  const [defaults, setDefaults] = useState<Defaults>(known?.defaults ?? NO_DEFAULTS);
  const [watermark, setWatermark] = useState(known?.watermark ?? '');
  const [impact, setImpact] = useState<DefaultsImpact | null>(null);
  const choose = (next: Level, id: string) => {
    const there = knownAt(next, id);
    setLevel(next);
    setSubject(id);
    setDefaults(there?.defaults ?? NO_DEFAULTS);
    setWatermark(there?.watermark ?? '');
    setImpact(null);
  };
  const change = (part: Partial<Defaults>) => {
    setDefaults({ ...defaults, ...part });
    setImpact(null);
  };
  const put = (to: Pick<DefaultsRow, 'defaults' | 'watermark'>, seen: number | null) =>
    call<DefaultsChanged>('POST', '/api/v1/defaults', { level, subject, ...to, seen });
  const set = () =>
    attempt(async () => {
      const { before, setAt } = await put({ defaults, watermark }, known?.setAt ?? null);
      onDone({
        text: setsAnything({ defaults, watermark })
          ? 'Saved. The next dispatch starts with these, and the next open shows the watermark.'
          : 'The defaults are removed.',
        undo: () => put(before, setAt),
      });
    });
  const look = () =>
    attempt(async () => {
      setImpact(
        await call<DefaultsImpact>('POST', '/api/v1/defaults/preview', {
          level,
          subject,
          defaults,
          watermark,
          seen: null,
        }),
      );
    });
  return (
    <form
      className="stack loose"
      onSubmit={(event) => {
        event.preventDefault();
        void look();
      }}
    >
      <h2>{of === null ? 'Defaults of a level' : `What ${levelOf(of)} sets`}</h2>
      {of === null && (
        <LevelChooser level={level} subject={subject} page={page} onChoose={choose} />
      )}
      <div>
        <FormControlLabel
          control={
            <Checkbox
              checked={defaults.rights !== null}
              disabled={!mayChange}
              onChange={(_event, on) => {
                change(on ? { rights: ['read'] } : { rights: null, prints: null });
              }}
            />
          }
          label="Set rights for new dispatches"
        />
        {defaults.rights !== null && (
          <RightsFields
            value={{ rights: defaults.rights, prints: defaults.prints }}
            disabled={!mayChange}
            onChange={change}
          />
        )}
      </div>
      <div className="row top">
        <TextField
          label="Days"
          type="number"
          disabled={!mayChange || defaults.days === 'no-end'}
          value={typeof defaults.days === 'number' ? defaults.days : ''}
          helperText={defaults.days === null ? 'Empty: as the level above says' : ''}
          onChange={(event) => {
            change({
              days: event.target.value === '' ? null : Math.floor(Number(event.target.value)),
            });
          }}
          slotProps={{ htmlInput: { min: 1, max: 3650 } }}
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={defaults.days === 'no-end'}
              disabled={!mayChange}
              onChange={(_event, on) => {
                change({ days: on ? 'no-end' : null });
              }}
            />
          }
          label="No end"
        />
      </div>
      <TextField
        label="Also on every page"
        disabled={!mayChange}
        value={watermark}
        helperText="Shown before the dispatch’s own watermark. A lower level can add to it, never remove it."
        onChange={(event) => {
          setWatermark(event.target.value);
          setImpact(null);
        }}
        slotProps={{ htmlInput: { maxLength: MAX_LEVEL_WATERMARK } }}
      />
      {mayChange && impact === null && (
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            Show who is affected
          </Button>
        </div>
      )}
      {impact !== null && (
        <ImpactWords
          impact={impact}
          idle={impact.idle}
          other="will have another watermark from their next open"
          untouched="Nobody with access will see a different watermark. Earlier dispatches keep their rights."
        />
      )}
      {impact !== null && mayChange && (
        <div className="row">
          <Button variant="contained" disabled={busy} onClick={() => void set()}>
            Save defaults
          </Button>
          <Button
            variant="text"
            onClick={() => {
              setImpact(null);
            }}
          >
            Cancel
          </Button>
        </div>
      )}
    </form>
  );
}
