import 'server-only';
import { languageOf } from '@/core/base/languages';
import type { MailPreview, PreviewMailInput } from '@/contracts/message';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { partText } from '@/server/mail/html';
import { mailMaker } from '@/server/services/dispatching/mail-links';

/** The message as somebody would get it now. Nothing is kept of it, and its link leads nowhere yet. */
export async function previewMail(
  deps: Deps,
  actor: StaffActor,
  { recipient, terms, form = 'link', noteInMail = true, ...input }: PreviewMailInput,
): Promise<MailPreview> {
  const db = deps.db.read;
  const [known] = await findRecipients(db, [recipient.address]);
  const documents = await findDocuments(db, input.documents);
  const now = deps.clock.now();
  const mailOf = await mailMaker(deps, db, actor, { ...input, form, noteInMail, documents }, now);
  const named = known === undefined || known.name === '' ? recipient : known;
  const { subject, parts } = mailOf(
    {
      ...named,
      address: recipient.address,
      zone: known?.zone ?? null,
      language: known?.language ?? null,
      terms,
    },
    '…',
  );
  return {
    language: languageOf(known?.language ?? null),
    subject,
    parts: parts.map((part) => ({
      text: partText(part),
      note: typeof part === 'object' && 'note' in part,
    })),
  };
}
