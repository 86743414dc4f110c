import { mailroomInput } from '@/contracts/mailroom';
import { loadForStaff } from '@/server/http/handle';
import { viewMailroom } from '@/server/services/demo/read-mailroom';
import { MailroomView } from '@/ui/mailroom/mailroom-view';

export default async function MailroomPage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  return (
    <MailroomView
      {...await loadForStaff('read-mailroom', (deps) =>
        viewMailroom(deps, mailroomInput.parse(given)),
      )}
    />
  );
}
