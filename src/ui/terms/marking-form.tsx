'use client';

import Button from '@mui/material/Button';
import { putMarkingInput, type MarkingRow } from '@/contracts/marking';
import { FormSwitch, FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

/** A marking made or changed. */
export function MarkingForm({
  of,
  attempt,
  onClose,
}: {
  readonly of: MarkingRow | null;
  readonly attempt: Attempt['attempt'];
  readonly onClose: () => void;
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: putMarkingInput,
    start: {
      id: of?.id ?? null,
      name: of?.name ?? '',
      meaning: of?.meaning ?? '',
      hidesTitles: of?.hidesTitles ?? false,
      mailWords: of?.mailWords ?? '',
    },
    send: async (input) => {
      await api('POST /api/v1/markings', input);
      return input.name;
    },
    done: (name) => `“${name}” is saved.`,
    onDone: onClose,
    attempt,
  });
  return (
    <form className="row one-row top part" noValidate onSubmit={onSubmit}>
      <FormText
        control={form.control}
        name="name"
        label="Name of the marking"
        className="narrow"
        required
        autoFocus
      />
      <FormText control={form.control} name="meaning" label="What it means" />
      <FormText control={form.control} name="mailWords" label="Said in mail" multiline />
      <FormSwitch control={form.control} name="hidesTitles" label="Titles stay out of mail" />
      <Button type="submit" className="nowrap" disabled={busy}>
        Save marking
      </Button>
      <Button variant="text" onClick={onClose}>
        Cancel
      </Button>
    </form>
  );
}
