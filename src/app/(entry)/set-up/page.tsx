import { redirect } from 'next/navigation';
import { loadForAnyone } from '@/server/http/handle';
import { isSetUp } from '@/server/services/staff/set-up-organisation';
import { SetUpForm } from '@/ui/entry/set-up-form';

export default async function SetUpPage({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly token?: string }>;
}) {
  if (await loadForAnyone(isSetUp)) redirect('/sign-in');
  return <SetUpForm token={(await searchParams).token ?? ''} />;
}
