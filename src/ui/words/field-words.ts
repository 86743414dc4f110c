import type { Field } from '@/core/message/fields';

/** What is filled in for each recipient. */
export const fieldWords: Record<Field, { readonly name: string; readonly hint: string }> = {
  recipient: { name: 'Recipient', hint: 'Their name, or their email address' },
  organisation: { name: 'Organisation', hint: 'The organisation of the recipient' },
  documents: { name: 'Documents', hint: 'The titles of what they get' },
  ends: { name: 'Access ends', hint: 'Reads after “until”' },
  sender: { name: 'Sender', hint: 'Your name' },
};
