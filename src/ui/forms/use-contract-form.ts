'use client';

import { useEffect, useEffectEvent, type SubmitEvent } from 'react';
import {
  useForm,
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import { zodResolver } from '@hookform/resolvers/zod';
import type { Frozen } from '@/contracts/api';
import type { FormSchema } from '@/contracts/form';
import { CallError } from '@/ui/http/call';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';

type Options<I extends FieldValues, O, R> = {
  /** What the route takes, as its contract says. */
  readonly schema: FormSchema<I, O>;
  /** What the fields begin with, and stand at again after `form.reset()`. */
  readonly start: Frozen<Partial<I>>;
  /** Sends what was filled in. @throws CallError */
  readonly send: (input: O) => Promise<R>;
  readonly done?: string | ((result: R) => string | undefined);
  readonly onDone?: (result: R) => void;
  /** What carries it out, where the screen around the form says what came of it. */
  readonly attempt?: Attempt['attempt'];
  /** Told when a value changes: what was looked at with the others is not about this form any more. */
  readonly onEdit?: () => void;
};

export type ContractForm<I extends FieldValues, O> = Pick<Attempt, 'busy' | 'said' | 'problem'> & {
  readonly form: UseFormReturn<I, unknown, O>;
  readonly onSubmit: (event: SubmitEvent<HTMLFormElement>) => void;
};

/**
 * A form over a contract's own schema: what is wrong is said at its field before anything is sent,
 * what the server finds wrong at the field as well, and what was typed stays until it is saved.
 */
export function useContractForm<I extends FieldValues, O extends object, R>({
  schema,
  start,
  send,
  done,
  onDone,
  attempt,
  onEdit,
}: Options<I, O, R>): ContractForm<I, O> {
  const own = useAttempt();
  const form = useForm<I, unknown, O>({
    resolver: zodResolver(schema),
    defaultValues: start as DefaultValues<I>,
    reValidateMode: 'onChange',
  });
  const { handleSubmit, setError, getValues, subscribe } = form;
  const edited = useEffectEvent(() => onEdit?.());
  useEffect(
    () => subscribe({ formState: { values: true }, callback: () => edited() }),
    [subscribe],
  );
  const submit = handleSubmit(async (input) => {
    let result: R | undefined;
    const well = await (attempt ?? own.attempt)(async () => {
      try {
        result = await send(input);
        return result;
      } catch (error) {
        if (error instanceof CallError)
          for (const [name, message] of Object.entries(error.fields))
            if ((name.split('.')[0] ?? '') in getValues())
              setError(name as FieldPath<I>, { message });
        throw error;
      }
    }, done);
    if (well) onDone?.(result as R);
  });
  return {
    form,
    busy: own.busy || form.formState.isSubmitting,
    said: own.said,
    problem: own.problem,
    onSubmit: (event) => {
      event.preventDefault();
      event.stopPropagation();
      void submit(event);
    },
  };
}
