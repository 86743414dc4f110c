'use client';

import { keepViewInput, type ViewPlace } from '@/contracts/views';
import { NameForm } from '@/ui/forms/name-form';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** Saves what stands in the address under a name. */
export function SaveView({
  place,
  query,
  onClose,
}: {
  readonly place: ViewPlace;
  readonly query: string;
  readonly onClose: () => void;
}) {
  const save = useContractForm({
    schema: keepViewInput,
    start: { place, name: '', query },
    send: (input) => api('POST /api/v1/views', input),
    onDone: onClose,
  });
  return (
    <NameForm of={save} name="name" label="Name of the view" action="Save" onClose={onClose} />
  );
}
