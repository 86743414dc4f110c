'use client';

import Button from '@mui/material/Button';
import type { FieldPath, FieldValues } from 'react-hook-form';
import { FormText } from '@/ui/forms/form-fields';
import type { ContractForm } from '@/ui/forms/use-contract-form';

/** A form of one field in a line: a name, and the button that takes it. Escape leaves it. */
export function NameForm<I extends FieldValues, O>({
  of: { form, busy, problem, onSubmit },
  name,
  label,
  action,
  onClose,
}: {
  readonly of: ContractForm<I, O>;
  readonly name: FieldPath<I>;
  readonly label: string;
  readonly action: string;
  readonly onClose: () => void;
}) {
  return (
    <form
      className="row one-row top name-form"
      noValidate
      onSubmit={onSubmit}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      <FormText
        control={form.control}
        name={name}
        label={label}
        hint={problem}
        required
        autoFocus
      />
      <Button type="submit" className="nowrap" disabled={busy}>
        {action}
      </Button>
      <Button variant="text" onClick={onClose}>
        Cancel
      </Button>
    </form>
  );
}
