'use client';

import { keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import type { Api, ApiRoute } from '@/contracts/api';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';

export type Asked<T> = {
  readonly answer: T | null;
  readonly busy: boolean;
  /** Why there is no newer answer, in a sentence. */
  readonly problem: string | null;
};

/** What a route answers to an input, asked anew after every change; nothing is asked where it is null. */
export function useAsked<R extends ApiRoute>(
  route: R,
  input: Api[R]['takes'] | null,
): Asked<Api[R]['gives']> {
  const { data, error, isFetching } = useQuery({
    queryKey: [route, input],
    queryFn: input === null ? skipToken : () => api(route, input),
    placeholderData: keepPreviousData,
  });
  return {
    answer: data ?? null,
    busy: isFetching,
    problem: error === null ? null : sentenceOf(error),
  };
}
