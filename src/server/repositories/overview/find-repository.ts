import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import type { Reading } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { holding } from '@/server/repositories/access/holding';

export async function findByText(db: Reading, text: string, limit: number) {
  return Promise.all([
    db
      .select({ id: documents.id, title: documents.title, reference: documents.reference })
      .from(documents)
      .where(holding(text, documents.title, documents.reference))
      .orderBy(documents.title)
      .limit(limit),
    db
      .select({
        id: recipients.id,
        name: recipients.name,
        address: recipients.address,
        organisation: recipients.organisation,
      })
      .from(recipients)
      .where(
        and(
          eq(recipients.kind, 'person'),
          holding(text, recipients.name, recipients.address, recipients.organisation),
        ),
      )
      .orderBy(recipients.organisation, recipients.name)
      .limit(limit),
    db
      .select({ id: dispatches.id, subject: dispatches.subject, reference: dispatches.reference })
      .from(dispatches)
      .where(holding(text, dispatches.subject, dispatches.reference))
      .orderBy(desc(dispatches.sentAt))
      .limit(limit),
  ]);
}
