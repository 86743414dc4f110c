'use client';

import { useMemo } from 'react';
import { useRouter } from 'next/navigation';
import { splitOrder, type OrderBy } from '@/core/base/order';
import type { Order } from '@/ui/tables/column';
import { addressWith, type Query } from '@/ui/tables/use-address';

/** The order of a list that the server orders: it stands in the address, so that it can be linked. */
export function useOrderInAddress<C extends string>(
  path: string,
  query: Query & { readonly sort?: OrderBy<C> | undefined },
): Order {
  const router = useRouter();
  return useMemo(() => {
    const { by, down } =
      query.sort === undefined ? { by: null, down: false } : splitOrder<C>(query.sort);
    return {
      by,
      down,
      onOrder: (column, fromEnd) => {
        const sort = column === null ? undefined : `${fromEnd ? '-' : ''}${column}`;
        router.replace(addressWith(path, { ...query, sort }), { scroll: false });
      },
    };
  }, [router, path, query]);
}
