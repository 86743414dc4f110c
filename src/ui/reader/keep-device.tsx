'use client';

import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import { useWords } from '@/ui/words/use-words';

/** Whether this device is remembered: `kept`, or for this `visit` only. */
export function KeepDevice({
  kept,
  onKept,
}: {
  readonly kept: string;
  readonly onKept: (kept: string) => void;
}) {
  const { say } = useWords();
  return (
    <RadioGroup
      value={kept}
      onChange={(_event, value) => {
        onKept(value);
      }}
      aria-label={say('prove.device')}
    >
      <FormControlLabel value="visit" control={<Radio size="small" />} label={say('prove.visit')} />
      <FormControlLabel value="kept" control={<Radio size="small" />} label={say('prove.keep')} />
    </RadioGroup>
  );
}
