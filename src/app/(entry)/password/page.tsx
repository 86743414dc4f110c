import { ForgottenForm } from '@/ui/entry/forgotten-form';

export default function ForgottenPage() {
  return <ForgottenForm />;
}
