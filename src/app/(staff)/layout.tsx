import type { ReactNode } from 'react';
import { loadForStaff } from '@/server/http/handle';
import { viewShell } from '@/server/services/overview/view-shell';
import { Shell } from '@/ui/shell/shell';

export default async function StaffLayout({ children }: { readonly children: ReactNode }) {
  const shell = await loadForStaff('staff', viewShell);
  return <Shell {...shell}>{children}</Shell>;
}
