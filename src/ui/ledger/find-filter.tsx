'use client';

import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { LedgerInput, LedgerValue } from '@/contracts/ledger';
import { call, sentenceOf } from '@/ui/http/call';
import { addressOf, refusing, wanting } from '@/ui/ledger/ledger-address';
import { dimensionWords, valueText } from '@/ui/words/dimension-words';

/** How long somebody pauses before what they typed is looked for, in ms. */
const PAUSE = 180;

/** One box that finds whatever the ledger can be narrowed to, and lets it through or leaves it out. */
export function FindFilter({ filter }: { readonly filter: LedgerInput }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [leaves, setLeaves] = useState(false);
  const [found, setFound] = useState<readonly LedgerValue[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (text.trim() === '') return undefined;
    let stale = false;
    const timer = setTimeout(() => {
      call<{ readonly values: readonly LedgerValue[] }>(
        'GET',
        `/api/v1/ledger/values?text=${encodeURIComponent(text)}`,
      ).then(
        ({ values }) => {
          if (!stale) setFound(values);
          setProblem(null);
        },
        (error: unknown) => {
          if (!stale) setProblem(sentenceOf(error));
        },
      );
    }, PAUSE);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [text]);
  const choose = ({ dimension, value }: LedgerValue) => {
    setText('');
    router.push(addressOf('/ledger', (leaves ? refusing : wanting)(filter, dimension, value), {}), {
      scroll: false,
    });
  };
  return (
    <div className="row find-filter">
      <select
        className="plain"
        aria-label="With or without"
        value={leaves ? 'without' : 'with'}
        onChange={(event) => {
          setLeaves(event.target.value === 'without');
        }}
      >
        <option value="with">with</option>
        <option value="without">without</option>
      </select>
      <Autocomplete
        size="small"
        options={text.trim() === '' ? [] : found}
        value={null}
        inputValue={text}
        filterOptions={(all) => all}
        noOptionsText={problem ?? (text.trim() === '' ? 'Type a name' : 'Nothing has this name')}
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
        sx={{ width: 330, '& .MuiInputBase-root': { py: '2px !important', fontSize: 13.5 } }}
      />
    </div>
  );
}
