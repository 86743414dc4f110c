'use client';

import { levelNames } from '@/ui/words/limit-words';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { TermsPage } from '@/contracts/saved-terms';
import { wayText } from '@/core/content/folders';
import type { Level } from '@/core/policy/levels';

/** Chooses a level and what on it a rule is to belong to. Documents have theirs on their own page. */
export function LevelChooser({
  level,
  subject,
  page,
  onChoose,
}: {
  readonly level: Level;
  readonly subject: string;
  readonly page: Pick<TermsPage, 'markings' | 'folders'>;
  readonly onChoose: (level: Level, subject: string) => void;
}) {
  const firstOf = (next: Level): string =>
    next === 'organisation'
      ? ''
      : ((next === 'marking' ? page.markings : page.folders)[0]?.id ?? '');
  const subjects =
    level === 'marking'
      ? page.markings.map(({ id, name }) => ({ id, name }))
      : page.folders.map(({ id }) => ({ id, name: wayText(page.folders, id) }));
  return (
    <div className="row">
      <TextField
        select
        label="Level"
        value={level}
        sx={{ minWidth: 130 }}
        onChange={(event) => {
          const next = event.target.value as Level;
          onChoose(next, firstOf(next));
        }}
      >
        <MenuItem value="organisation">Organisation</MenuItem>
        <MenuItem value="marking" disabled={page.markings.length === 0}>
          Marking
        </MenuItem>
        <MenuItem value="folder" disabled={page.folders.length === 0}>
          Folder
        </MenuItem>
      </TextField>
      {level !== 'organisation' && (
        <TextField
          select
          label={levelNames[level]}
          value={subject}
          sx={{ minWidth: 190 }}
          onChange={(event) => {
            onChoose(level, event.target.value);
          }}
        >
          {subjects.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
    </div>
  );
}
