'use client';

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { DocumentDetail } from '@/contracts/document-detail';
import { wayText } from '@/core/content/folders';
import { ChipButton } from '@/ui/shell/chips';
import { FilingImpact, useFiling } from '@/ui/documents/use-filing';
import { Notice } from '@/ui/shell/notice';

const NONE = 'none';

/** Where a document sits, what it is marked, who answers for it; each changed in place. */
export function FiledPanel({ detail }: { readonly detail: DocumentDetail }) {
  const filing = useFiling([detail.id]);
  const { file } = filing;
  const { filed, folders, markings, colleagues, mayChange } = detail;
  const field = (
    label: string,
    name: string,
    value: string | null,
    options: readonly { readonly id: string; readonly name: string }[],
    none: string | null,
  ) => (
    <TextField
      select
      label={label}
      value={value ?? NONE}
      disabled={!mayChange}
      onChange={(event) =>
        void file({ [name]: event.target.value === NONE ? null : event.target.value })
      }
    >
      {none !== null && <MenuItem value={NONE}>{none}</MenuItem>}
      {value !== null && !options.some((option) => option.id === value) && (
        <MenuItem value={value}>{label === 'Owner' ? detail.ownerName : 'no longer here'}</MenuItem>
      )}
      {options.map((option) => (
        <MenuItem key={option.id} value={option.id}>
          {option.name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <section className="stack loose" aria-label="Filing">
      <h2>Filed</h2>
      {field(
        'Folder',
        'folderId',
        filed.folderId,
        folders.map((folder) => ({ id: folder.id, name: wayText(folders, folder.id) })),
        'no folder',
      )}
      {field('Marking', 'markingId', filed.markingId, markings, 'none')}
      {field('Owner', 'ownerId', filed.ownerId, colleagues, null)}
      {field('Deputy', 'deputyId', filed.deputyId, colleagues, 'the administrators')}
      <Attributes
        attributes={filed.attributes}
        mayChange={mayChange}
        onChange={(attributes) => void file({ attributes })}
      />
      <FilingImpact filing={filing} />
      <Notice said={filing.said} />
    </section>
  );
}

function Attributes({
  attributes,
  mayChange,
  onChange,
}: {
  readonly attributes: Readonly<Record<string, string>>;
  readonly mayChange: boolean;
  readonly onChange: (attributes: Readonly<Record<string, string>>) => void;
}) {
  const add = (form: HTMLFormElement) => {
    const fields = new FormData(form);
    const [name, value] = [fields.get('name'), fields.get('value')];
    if (typeof name !== 'string' || typeof value !== 'string' || name.trim() === '') return;
    onChange({ ...attributes, [name.trim()]: value.trim() });
    form.reset();
  };
  return (
    <div className="stack tight">
      {Object.entries(attributes).map(([name, value]) => (
        <div key={name} className="row tight">
          <span className="quiet">{name}</span>
          <span className="gap">{value}</span>
          {mayChange && (
            <ChipButton
              aria-label={`Take off ${name}`}
              onClick={() => {
                onChange(
                  Object.fromEntries(
                    Object.entries(attributes).filter(([other]) => other !== name),
                  ),
                );
              }}
            >
              ✕
            </ChipButton>
          )}
        </div>
      ))}
      {mayChange && (
        <form
          className="row one-row"
          onSubmit={(event) => {
            event.preventDefault();
            add(event.currentTarget);
          }}
        >
          <input
            className="plain"
            name="name"
            aria-label="Attribute"
            placeholder="attribute"
            maxLength={40}
            required
          />
          <input
            className="plain"
            name="value"
            aria-label="Value"
            placeholder="value"
            maxLength={200}
            required
          />
          <Button type="submit" variant="text">
            Add
          </Button>
        </form>
      )}
    </div>
  );
}
