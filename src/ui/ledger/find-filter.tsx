'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { LedgerInput, LedgerValue } from '@/contracts/ledger';
import { useAsked } from '@/ui/http/use-asked';
import { usePaused } from '@/ui/http/use-paused';
import { addressOf, refusing, wanting } from '@/ui/ledger/ledger-address';
import { dimensionWords, valueText } from '@/ui/words/dimension-words';

/** One box that finds whatever the ledger can be narrowed to, and lets it through or leaves it out. */
export function FindFilter({ filter }: { readonly filter: LedgerInput }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [leaves, setLeaves] = useState(false);
  const wanted = usePaused(text.trim());
  const { answer, problem } = useAsked(
    'GET /api/v1/ledger/values',
    wanted === '' ? null : { text: wanted },
  );
  const isTyped = text.trim() !== '';
  const choose = ({ dimension, value }: LedgerValue) => {
    setText('');
    router.push(addressOf('/ledger', (leaves ? refusing : wanting)(filter, dimension, value), {}), {
      scroll: false,
    });
  };
  return (
    <div className="row find-filter">
      <ToggleButtonGroup
        exclusive
        aria-label="With or without"
        value={leaves ? 'without' : 'with'}
        onChange={(_event, value: string | null) => {
          if (value !== null) setLeaves(value === 'without');
        }}
      >
        <ToggleButton value="with">with</ToggleButton>
        <ToggleButton value="without">without</ToggleButton>
      </ToggleButtonGroup>
      <Autocomplete
        size="small"
        className="filter-box"
        options={isTyped ? (answer?.values ?? []) : []}
        value={null}
        inputValue={text}
        filterOptions={(all) => all}
        noOptionsText={problem ?? (isTyped ? 'Nothing has this name' : 'Type a name')}
        getOptionLabel={({ name }) => name}
        getOptionKey={({ dimension, value }) => `${dimension} ${value}`}
        groupBy={({ dimension }) => dimensionWords[dimension]}
        onInputChange={(_event, value, why) => {
          if (why !== 'reset') setText(value);
        }}
        onChange={(_event, value) => {
          if (value !== null) choose(value);
        }}
        renderOption={({ key, ...props }, { dimension, value, name, under }) => (
          <li key={key} {...props}>
            <span>
              {name === value ? valueText(dimension, value) : name}{' '}
              <span className="quiet">{under}</span>
            </span>
          </li>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            placeholder="person, document, dispatch, colleague, device, place…"
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps.htmlInput, 'aria-label': 'Add a filter' },
            }}
          />
        )}
      />
    </div>
  );
}
