'use client';

import { keepViewInput } from '@/contracts/ledger';
import { NameForm } from '@/ui/forms/name-form';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** Saves what stands in the address under a name. */
export function SaveView({
  query,
  onClose,
}: {
  readonly query: string;
  readonly onClose: () => void;
}) {
  const save = useContractForm({
    schema: keepViewInput,
    start: { name: '', query },
    send: (input) => api('POST /api/v1/ledger/views', input),
    onDone: onClose,
  });
  return (
    <NameForm of={save} name="name" label="Name of the view" action="Save" onClose={onClose} />
  );
}
