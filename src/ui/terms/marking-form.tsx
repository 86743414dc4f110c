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
    <form className="stack part" noValidate onSubmit={onSubmit}>
      <div className="row one-row top">
        <FormText
          control={form.control}
          name="name"
          label="Name of the marking"
          className="narrow"
          required
          autoFocus
        />
        <FormText control={form.control} name="meaning" label="What it means" />
      </div>
      <FormText
        control={form.control}
        name="mailWords"
        label="Said in mail"
        multiline
        hint="In every message that brings a document with this marking, to its recipients"
      />
      <div className="row one-row">
        <FormSwitch control={form.control} name="hidesTitles" label="Titles stay out of mail" />
        <span className="gap" />
        <Button type="submit" className="nowrap" disabled={busy}>
          Save marking
        </Button>
        <Button variant="text" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
