import { ChoosePasswordForm } from '@/ui/entry/choose-password-form';

export default async function ChoosePasswordPage({
  params,
}: {
  readonly params: Promise<{ readonly token: string }>;
}) {
  return <ChoosePasswordForm token={(await params).token} />;
}
