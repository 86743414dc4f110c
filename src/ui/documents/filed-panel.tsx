'use client';

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { attributeInput } from '@/contracts/document';
import type { DocumentDetail } from '@/contracts/document-detail';
import { wayText } from '@/core/content/folders';
import { ChipButton } from '@/ui/shell/chips';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
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
      <AttributesPart
        attributes={filed.attributes}
        mayChange={mayChange}
        onChange={(attributes) => file({ attributes })}
      />
      <FilingImpact filing={filing} />
      <Notice said={filing.said} />
    </section>
  );
}

type Attributes = Readonly<Record<string, string>>;

function AttributesPart({
  attributes,
  mayChange,
  onChange,
}: {
  readonly attributes: Attributes;
  readonly mayChange: boolean;
  readonly onChange: (attributes: Attributes) => Promise<void>;
}) {
  const without = (name: string): Attributes =>
    Object.fromEntries(Object.entries(attributes).filter(([other]) => other !== name));
  return (
    <div className="stack tight">
      {Object.entries(attributes).map(([name, value]) => (
        <div key={name} className="row tight">
          <span className="quiet">{name}</span>
          <span className="gap">{value}</span>
          {mayChange && (
            <ChipButton aria-label={`Remove ${name}`} onClick={() => void onChange(without(name))}>
              ✕
            </ChipButton>
          )}
        </div>
      ))}
      {mayChange && (
        <AddAttribute onAdd={(name, value) => onChange({ ...attributes, [name]: value })} />
      )}
    </div>
  );
}

function AddAttribute({
  onAdd,
}: {
  readonly onAdd: (name: string, value: string) => Promise<void>;
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: attributeInput,
    start: { name: '', value: '' },
    send: ({ name, value }) => onAdd(name, value),
    onDone: () => {
      form.reset();
    },
  });
  return (
    <form className="row one-row top" noValidate onSubmit={onSubmit}>
      <FormText control={form.control} name="name" label="Attribute" />
      <FormText control={form.control} name="value" label="Value" />
      <Button type="submit" variant="text" disabled={busy}>
        Add
      </Button>
    </form>
  );
}
