import { momentWords } from '@/server/mail/moment-words';

/** What a colleague is told who is to choose a password. */
export type PasswordMailFacts = {
  readonly purpose: 'invitation' | 'reset';
  readonly by: string;
  readonly name: string;
  readonly organisation: string;
  readonly zone: string;
  readonly until: number;
  readonly link: string;
};

/** The message with the one link that sets a password. */
export function passwordMail({
  purpose,
  by,
  name,
  organisation,
  zone,
  until,
  link,
}: PasswordMailFacts): { readonly subject: string; readonly body: string } {
  const end = momentWords(until, zone);
  const why =
    purpose === 'invitation'
      ? `${by} has invited you to Embargo at ${organisation}.`
      : `Somebody requested a new password for your account in Embargo at ${organisation}.`;
  return {
    subject:
      purpose === 'invitation'
        ? `Your account in Embargo at ${organisation}`
        : 'Choose a new password',
    body: [
      `${name},`,
      why,
      'Choose your password here:',
      link,
      `The link works once, until ${end}.`,
      purpose === 'invitation'
        ? 'If you did not expect this, do nothing.'
        : 'If that was not you, do nothing: your password does not change.',
    ].join('\n\n'),
  };
}

type NewAdministratorFacts = {
  readonly by: string;
  readonly name: string;
  readonly email: string;
  readonly organisation: string;
  readonly zone: string;
  readonly from: number;
  readonly link: string;
};

/** What every administrator is told when there is to be another one. */
export function newAdministratorMail({
  by,
  name,
  email,
  organisation,
  zone,
  from,
  link,
}: NewAdministratorFacts): { readonly subject: string; readonly body: string } {
  const moment = momentWords(from, zone);
  return {
    subject: `${name} becomes an administrator at ${organisation}`,
    body: [
      `${by} makes ${name} (${email}) an administrator of Embargo at ${organisation}.`,
      `From ${moment} on, they can approve what needs a second person. If this should not ` +
        'be, disable them before then:',
      link,
    ].join('\n\n'),
  };
}
