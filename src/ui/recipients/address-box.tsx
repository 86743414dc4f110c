'use client';

import { useState, type ClipboardEvent, type HTMLAttributes } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { Suggestion } from '@/contracts/recipients';
import { dayText } from '@/core/base/moment-text';
import { counted } from '@/core/base/counted';
import { parsePasted, type Pasted } from '@/core/compose/pasted';
import { rowOf, type Row } from '@/core/compose/sheet';
import { api } from '@/ui/http/api';
import { pastedRows } from '@/ui/recipients/pasted-rows';
import { useAsked } from '@/ui/http/use-asked';
import { usePaused } from '@/ui/http/use-paused';

type Option = Suggestion | { readonly kind: 'typed'; readonly text: string };

/** Who is meant by an option, one row for each. */
async function rowsOf(option: Option): Promise<Row[]> {
  switch (option.kind) {
    case 'typed':
      return pastedRows(parsePasted(option.text));
    case 'person':
      return [rowOf(option.address, 'person')];
    case 'group':
      return [rowOf(option.id, 'group', { name: option.name })];
    case 'organisation': {
      const { people } = await api('GET /api/v1/recipients/at', { organisation: option.name });
      return people.map(({ address }) => rowOf(address, 'person'));
    }
  }
}

const keyOf = (option: Option): string =>
  option.kind === 'person'
    ? option.address
    : option.kind === 'group'
      ? option.id
      : option.kind === 'typed'
        ? `+ ${option.text}`
        : `at ${option.name}`;

/** The longest text that is looked for. */
const LONGEST = 120;

/** Whether a suggestion holds the text. */
function matching(text: string): (each: Suggestion) => boolean {
  const wanted = text.trim().toLowerCase();
  return (each) => {
    const values =
      each.kind === 'person' ? [each.name, each.address, each.organisation] : [each.name];
    return values.some((value) => value.toLowerCase().includes(wanted));
  };
}

/** Takes recipients by name, address, organisation or group, as they are typed or pasted. */
export function AddressBox({
  onAdd,
  autoFocus = false,
  onDown,
}: {
  readonly onAdd: (rows: readonly Row[]) => void;
  readonly autoFocus?: boolean;
  /** Where the arrow leads down from the empty field. */
  readonly onDown?: () => void;
}) {
  const [text, setText] = useState('');
  const [unread, setUnread] = useState<readonly string[]>([]);
  const wanted = usePaused(text.trim());
  const { answer, busy } = useAsked(
    'GET /api/v1/recipients/suggest',
    wanted === '' || wanted.length > LONGEST ? null : { q: wanted },
  );
  const isSettled = !busy && wanted === text.trim();
  const typed = parsePasted(text);
  const isReadable = text.trim() !== '' && typed.unreadable.length === 0;
  // What was found for less is narrowed at once: nobody is chosen who does not match what stands here.
  const found = text.trim() === '' ? [] : (answer?.found ?? []).filter(matching(text));
  const isThere = found.some(
    (each) => each.kind === 'person' && each.address === typed.people[0]?.address,
  );
  const options: readonly Option[] = [
    ...(isReadable && !(isThere && typed.people.length === 1)
      ? [{ kind: 'typed' as const, text: text.trim() }]
      : []),
    ...found,
  ];
  /** Takes what can be read and leaves the rest to be put right. */
  const take = (pasted: Pasted) => {
    onAdd(pastedRows(pasted));
    setUnread(pasted.unreadable);
    setText(pasted.unreadable.join('; '));
  };
  const choose = (option: Option) => {
    setText('');
    setUnread([]);
    void rowsOf(option).then(onAdd, () => undefined);
  };
  /** Anyone who types fast presses enter before anything was found: it is looked for, and then chosen. */
  const onEnter = async () => {
    if (isReadable) {
      take(typed);
      return;
    }
    const { found: all } = await api('GET /api/v1/recipients/suggest', {
      q: text.trim().slice(0, LONGEST),
    });
    const [first] = all.filter(matching(text));
    if (first === undefined) take(typed);
    else choose(first);
  };
  const onType = (next: string) => {
    setUnread([]);
    // A separator ends an address; what comes after it is still being typed.
    const end = Math.max(next.lastIndexOf(','), next.lastIndexOf(';'));
    const whole = end < 0 ? null : parsePasted(next.slice(0, end));
    if (whole !== null && whole.people.length + whole.domains.length > 0) {
      onAdd(pastedRows(whole));
      setUnread(whole.unreadable);
      setText([...whole.unreadable, next.slice(end + 1).trimStart()].join('; '));
    } else setText(next);
  };
  const onPaste = (event: ClipboardEvent) => {
    const pasted = parsePasted(event.clipboardData.getData('text'));
    if (pasted.people.length + pasted.domains.length === 0) return;
    event.preventDefault();
    take(pasted);
  };
  return (
    <Autocomplete<Option>
      autoHighlight
      forcePopupIcon={false}
      noOptionsText="Nobody is called so. Type a whole email address to add somebody new."
      clearOnBlur={false}
      className="address-box"
      options={options}
      filterOptions={(all) => all}
      value={null}
      inputValue={text}
      getOptionLabel={labelOf}
      getOptionKey={keyOf}
      onInputChange={(_event, next, reason) => {
        if (reason === 'input') onType(next);
      }}
      onChange={(_event, option) => {
        if (option !== null) choose(option);
      }}
      onBlur={() => {
        if (isReadable) take(typed);
      }}
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown' && text === '') {
          event.defaultMuiPrevented = true;
          onDown?.();
        }
        if (event.key !== 'Enter' || text.trim() === '') return;
        if (isSettled && options.length > 0) return;
        event.preventDefault();
        event.defaultMuiPrevented = true;
        void onEnter().catch(() => undefined);
      }}
      slotProps={{ popper: { className: 'wide-options', placement: 'bottom-start' } }}
      renderOption={({ key, ...props }, option) => (
        <SuggestionLine key={key} option={option} {...props} />
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Recipients"
          autoFocus={autoFocus}
          placeholder="Type or paste people, groups, organisations, @domains"
          error={unread.length > 0}
          helperText={unread.length > 0 ? unreadText(unread) : undefined}
          slotProps={{
            ...params.slotProps,
            inputLabel: { ...params.slotProps.inputLabel, shrink: true },
            htmlInput: { ...params.slotProps.htmlInput, onPaste },
          }}
        />
      )}
    />
  );
}

const MOST_NAMED = 3;

function unreadText(unread: readonly string[]): string {
  const more = unread.length - MOST_NAMED;
  const named = unread.slice(0, MOST_NAMED).join(', ');
  return `Not an email address: ${named}${more > 0 ? ` and ${String(more)} more` : ''}`;
}

function labelOf(option: Option): string {
  return option.kind === 'typed'
    ? option.text
    : option.kind === 'person'
      ? option.name || option.address
      : option.name;
}

function SuggestionLine({
  option,
  ...props
}: { readonly option: Option } & HTMLAttributes<HTMLLIElement>) {
  const [title, below] = suggestionWords(option);
  return (
    <li {...props}>
      <span className="suggestion">
        <b>{title}</b> <span className="quiet">{below}</span>
      </span>
    </li>
  );
}

function suggestionWords(option: Option): readonly [string, string] {
  switch (option.kind) {
    case 'typed':
      return [`Add ${option.text}`, ''];
    case 'organisation':
      return [
        `Everybody at ${option.name}`,
        `${counted(option.people, 'person', 'people')} known here`,
      ];
    case 'group':
      return [option.name, `group of ${counted(option.people, 'person', 'people')}`];
    case 'person': {
      const { name, address, organisation, inside, blocked, lastSentAt } = option;
      const where = [
        name === '' ? '' : address,
        organisation,
        inside ? 'inside' : 'outside',
        blocked ? 'blocked' : '',
        lastSentAt === null
          ? 'never sent to'
          : `last sent to on ${dayText(new Date(lastSentAt).toISOString().slice(0, 10))}`,
      ];
      return [name === '' ? address : name, where.filter((part) => part !== '').join(' · ')];
    }
  }
}
