'use client';

import FormHelperText from '@mui/material/FormHelperText';
import {
  useWatch,
  type FieldPath,
  type FieldPathValue,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import type { Right } from '@/core/policy/rights';
import { sentence } from '@/ui/forms/form-fields';
import { RightsFields } from '@/ui/terms-fields/rights-fields';

/** Rights and prints of a form, which go together: no rights, no prints. */
export function FormRights<T extends FieldValues, O>({
  form: { control, setValue, getFieldState, formState },
  rights,
  prints,
  disabled = false,
}: {
  readonly form: UseFormReturn<T, unknown, O>;
  readonly rights: FieldPath<T>;
  readonly prints: FieldPath<T>;
  readonly disabled?: boolean;
}) {
  const [given, each] = useWatch({ control, name: [rights, prints] }) as [
    readonly Right[],
    number | null,
  ];
  const wrong = getFieldState(rights, formState).error?.message;
  return (
    <div>
      <RightsFields
        value={{ rights: given, prints: each }}
        disabled={disabled}
        onChange={(value) => {
          setValue(rights, [...value.rights] as FieldPathValue<T, FieldPath<T>>, {
            shouldValidate: formState.isSubmitted,
          });
          setValue(prints, value.prints as FieldPathValue<T, FieldPath<T>>);
        }}
      />
      {wrong !== undefined && <FormHelperText error>{sentence(wrong)}</FormHelperText>}
    </div>
  );
}
