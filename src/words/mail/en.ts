/**
 * What recipients read in mail, as ICU messages. Each is a whole sentence: other languages order
 * its parts otherwise.
 */
export const en = {
  sent: {
    intro:
      '{sender} of {organisation} has sent you {count, plural, one {a protected document} ' +
      'other {protected documents}}:',
    introClear:
      '{sender} of {organisation} has sent you {count, plural, one {a document} other {documents}}:',
    titleUntil: '{title}, until {end}',
    titleNoEnd: '{title}, with no end',
    toRead:
      'To read, open this link and prove that {address} is your email address. You will get a six-digit code by ' +
      'email; you need no account and nothing to install.',
    attached:
      '{count, plural, one {It is attached, encrypted, as a PDF whose first page says how to open it} ' +
      'other {They are attached, encrypted, as PDFs whose first page says how to open each}}: follow its link, or ' +
      'point a phone at its code, and prove that {address} is your email address. You will get a six-digit code by ' +
      'email; you need no account and nothing to install.',
    attachedAsWell:
      '{count, plural, one {It is attached, encrypted, as a PDF} other {They are attached, encrypted, as PDFs}} as ' +
      'well; the first page leads to the same place.',
    attachedClear: '{count, plural, one {It is attached.} other {They are attached.}}',
    from: 'You can open {count, plural, one {it} other {them}} from {from}.',
    until: 'You can open {count, plural, one {it} other {them}} until {until}.',
    fromUntil: 'You can open {count, plural, one {it} other {them}} from {from} until {until}.',
    onlyYou:
      'This is for you only: anybody else who opens it has to prove this same email address.',
    may: 'You may {verbs}.',
    genuine: 'The link leads to {host}. Nobody will ask you for a password there.',
    open: '{count, plural, one {Open the document} other {Open the documents}}',
    unexpected: 'If you did not expect this, ask the sender in a way you already know.',
    passedOn: 'Passed on: {subject}',
    hiddenTitle: 'Document {reference}',
  },
  ends: { none: 'further notice', several: 'the times named for each' },
  code: {
    subject: '{code} is your code',
    code: 'Your code is {code}',
    enter: 'Enter it on the page that asked for it, within {minutes} minutes. It works only there.',
    asked:
      'It was requested on {when}, from {place}. If that was not you, do nothing: without the code nobody can go ' +
      'on. Nobody will ever ask you for it.',
    near: '{network}, near {place}',
  },
  question: {
    subject: 'A question about your request for “{title}”',
    asks: '{sender} has a question before answering what you asked about “{title}”:',
    reply: 'Reply where you asked, by the same link as before:',
  },
  revision: {
    subject: 'Your changed file of “{title}”',
    accepted:
      '{sender} accepted your changed file. It opens for everybody who has “{title}” from now on.',
    declined:
      '{sender} does not take up your changed file of “{title}”. The document stays as it was.',
  },
  version: {
    subject: '“{title}” was replaced by a new version',
    replaced:
      '{sender} replaced “{title}” by a new version. What you may do is unchanged, and it opens by the same link:',
  },
  answer: {
    subject: 'Your request about “{title}”',
    given: 'You were given what you asked for, by {sender}, for “{title}”.',
    givenInPart: 'You were given part of what you asked for, by {sender}, for “{title}”.',
    declined: 'What you asked for was declined, by {sender}, for “{title}”.',
    answered: 'Your message was answered, by {sender}, for “{title}”.',
    valid: 'It is valid until {until}.',
    sameLink: 'Use the same link as before:',
  },
  ending: {
    subject:
      '{count, plural, one {Your access to “{title}” ends soon} other {Your access to some documents ends soon}}',
    intro: '{sender} of {organisation} sent you what ends soon:',
    each: '“{title}”, until {until}',
    more: 'Open it, or ask for more time, here:',
  },
} as const;
