'use client';

import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import type { DispatchDetail } from '@/contracts/dispatch';
import { SECOND } from '@/core/base/time';
import { handedTo, type Handed } from '@/ui/dispatches/handed-to';
import { api } from '@/ui/http/api';

const PAUSE = 2 * SECOND;

/** Everybody with a link and where their message is, followed while anything is on its way. */
export function useHanded(detail: DispatchDetail): readonly Handed[] {
  const { id, mail: begun, grants } = detail;
  const { data } = useQuery({
    queryKey: ['mail of a dispatch', id, begun],
    queryFn: () => api('GET /api/v1/dispatches/:id/mail', { id }),
    initialData: { mail: begun },
    initialDataUpdatedAt: 0,
    enabled: begun.some(({ state }) => state === 'waiting'),
    refetchInterval: ({ state: { data: now } }) =>
      now?.mail.some(({ state }) => state === 'waiting') === true ? PAUSE : false,
  });
  const { mail } = data;
  return useMemo(() => handedTo({ grants, mail }), [grants, mail]);
}
