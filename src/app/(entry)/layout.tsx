import type { ReactNode } from 'react';
import { QueryProvider } from '@/ui/http/query-provider';

/** Pages before anybody is signed in. */
export default function EntryLayout({ children }: { readonly children: ReactNode }) {
  return <QueryProvider>{children}</QueryProvider>;
}
