import { redirect } from 'next/navigation';
import { loadForAnyone } from '@/server/http/handle';
import { isSetUp } from '@/server/services/staff/set-up-organisation';
import { demoSignIn } from '@/server/services/demo/demo-sign-in';
import { SignInForm } from '@/ui/entry/sign-in-form';

export default async function SignInPage() {
  const { ready, hint } = await loadForAnyone(async (deps) => ({
    ready: await isSetUp(deps),
    hint: await demoSignIn(deps),
  }));
  if (!ready) redirect('/set-up');
  return <SignInForm hint={hint} />;
}
