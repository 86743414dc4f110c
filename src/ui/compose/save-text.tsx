'use client';

import { putTextInput, type SavedText } from '@/contracts/saved-texts';
import { NameForm } from '@/ui/forms/name-form';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';

/** Saves a message under a name, for everybody who sends. */
export function SaveText({
  subject,
  note,
  onSaved,
  onClose,
}: Pick<SavedText, 'subject' | 'note'> & {
  readonly onSaved: (texts: readonly SavedText[]) => void;
  readonly onClose: () => void;
}) {
  const save = useContractForm({
    schema: putTextInput,
    start: { name: '', subject, note },
    send: async (input) => {
      onSaved((await api('POST /api/v1/texts', input)).texts);
    },
    onDone: onClose,
  });
  return (
    <NameForm of={save} name="name" label="Name of the text" action="Save" onClose={onClose} />
  );
}
