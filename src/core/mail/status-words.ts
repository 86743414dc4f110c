/** What the commonest enhanced status codes say (RFC 3463 §3), for the staff. */
const DETAILS: Readonly<Record<string, string>> = {
  '1.0': 'There is something wrong with the email address.',
  '1.1': 'There is no such mailbox.',
  '1.2': 'The domain of the email address takes no mail.',
  '1.3': 'The email address is not written correctly.',
  '1.6': 'The mailbox has moved.',
  '1.10': 'The domain of the email address takes no mail.',
  '2.1': 'The mailbox is switched off.',
  '2.2': 'The mailbox is full.',
  '2.3': 'The message is too large for the mailbox.',
  '3.4': 'The message is too large for their mail server.',
  '4.1': 'Their mail server does not answer.',
  '4.4': 'No mail server was found for the domain.',
  '4.7': 'It was tried for too long and given up.',
  '7.1': 'Their mail server does not take it from this sender.',
};

/** What the subject of a code says where its detail is not known (RFC 3463 §3). */
const SUBJECTS: Readonly<Record<string, string>> = {
  '1': 'There is something wrong with the email address.',
  '2': 'There is something wrong with the mailbox.',
  '3': 'Their mail server could not take it.',
  '4': 'It could not be passed on.',
  '5': 'Their mail server and the one before it did not understand each other.',
  '6': 'Their mail server does not take what is in the message.',
  '7': 'Their mail server refuses it.',
};

/** An enhanced status code in words; for one that says nothing, that it came back. */
export function statusWords(status: string): string {
  const [, subject = '', detail = ''] = status.split('.');
  return (
    DETAILS[`${subject}.${detail}`] ??
    SUBJECTS[subject] ??
    'It came back. Their mail server gave no reason that could be read.'
  );
}
