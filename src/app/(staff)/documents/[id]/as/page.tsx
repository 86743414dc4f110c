import { seenPageInput } from '@/contracts/explain';
import { SeenPage } from '@/ui/seen/seen-page';

export default async function SeenAsPage({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly id: string }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}) {
  const { id, recipient } = seenPageInput.parse({ ...(await searchParams), ...(await params) });
  return <SeenPage document={id} recipient={recipient} />;
}
