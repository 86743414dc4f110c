export const en = {
  problems: {
    'request-too-large': 'This request is too large.',
    'request-unreadable': 'This request could not be read.',
    'wrong-origin':
      'This request did not come from Embargo’s own pages, so it was not carried out.',
    'signed-out': 'Prove your email address again in this browser.',
    'address-unproven': 'Prove your email address again in this browser.',
    'act-key-used': 'This key was used for another request.',
    'done-before': 'This was done already. Reload the page to see it.',
    'not-sent-here': 'This was not sent to this email address, so there is nobody here to ask.',
    'asked-time-past': 'The time you ask for is in the past.',
    'right-held': 'You have this right already.',
    'nothing-to-reply':
      'Your reply was not sent, because nobody waits for one: it was answered already.',
    'asked-before': 'You have already asked for this. The answer is still to come.',
    'requests-waiting': 'You have several requests waiting. Let the sender answer those first.',
    'device-key-unusable': 'This browser made no usable key. Reload the page and try again.',
    'notice-due': 'There is a notice to accept before this opens.',
    'notice-changed': 'The notice was worded anew meanwhile. Reload the page to read it.',
    'passkey-refused':
      'This passkey was not accepted. Try again, or prove your email address with a code.',
    'passkey-needs-proof':
      'Prove your email address once more with a code before you make your first passkey.',
    'passkey-first': 'Use one of your passkeys on this device first.',
    'passkey-unknown': 'This passkey is not one of yours, or was removed already.',
    'device-unknown': 'This device is not one of yours, or was ended already.',
    'document-gone': 'This document is no longer here.',
    'link-unknown':
      'This link does not work. Copy the whole link from the message and open it again.',
    'open-it-first': 'Open it once yourself before you pass it on.',
    'given-already': 'They already have this. Nothing was changed.',
    'content-elsewhere':
      'This document was encrypted on its sender’s machine: it is read from its ' +
      'protected file alone. Open the file you were given.',
    'not-on-own-machine': 'This document does not open on your own machine. Read its pages here.',
    'file-of-another-version':
      'This file holds an earlier version of the document. Read the current one here, or ask the sender for its file.',
    'not-open-here': 'This document is not open here. Open it again from its link.',
    'revision-too-large':
      'This file is larger than 96 MiB, the most that can be sent back here. Write to the sender.',
    'file-cut-off': 'The file did not arrive whole. Nothing was kept. Send it again.',
    'revisions-waiting':
      'Five files of yours wait for an answer. Write to the sender before you send another one.',
    'ended-meanwhile': 'Access ended while this was being made.',
    'no-comment': 'This comment is not there any more.',
    'comments-full': 'No more comments can be made on this document. Write to the sender.',
    'no-such-pages': 'This document has no such pages.',
    'reason-needed': 'A reason is needed here. Nothing was changed.',
    'rows-not-ours': 'This cannot be shown at present. Write to the sender.',
    'link-ended': 'This link can no longer be opened. Ask the person who gave it to you.',
    'ask-in-vain': {
      revoked: 'The sender has ended your access. You can still write to the sender.',
      'document-revoked':
        'The sender has withdrawn this document. You can still write to the sender.',
      'key-destroyed': 'This document has been destroyed. You can still write to the sender.',
      'recipient-blocked':
        'Access for this email address has been stopped. You can still write to the sender.',
      'condition-unknown':
        'This document cannot be opened at present. You can still write to the sender.',
      other: 'This cannot be opened. You can still write to the sender.',
    },
    'too-many-tries': 'Too many tries. Wait {minutes} min and try again.',
    'pass-on-refused': {
      'not-given': 'You may not pass this on.',
      'too-many': 'You have already passed this on to as many people as you may.',
      'not-listed':
        'You may pass this on only to people at certain organisations, and this email address is at none of them.',
      'more-rights': 'You cannot pass on more than you may do yourself.',
      longer: 'You cannot pass it on for longer than you have it yourself.',
      themselves: 'That is you.',
    },
    'code-wrong': {
      left: 'That is not the code. You have {left, plural, one {# try} other {# tries}} left.',
      none: 'This code does not work any more, or was requested in another browser. Ask for a new one.',
    },
  },
  content: {
    EMPTY_FILE: 'This file is empty.',
    NOT_A_PDF: 'This file is not a PDF.',
    NOT_OF_ITS_NAME: 'What this file holds is not what its name says.',
    FILE_DAMAGED: 'This file is damaged and cannot be opened.',
    FILE_LOCKED:
      'This file asks for a password, or is of an older kind. Save it anew without one and choose it again.',
    FILE_TOO_LONG: 'This file is too long to be shown.',
    FILE_UNPACKS_TOO_FAR: 'This file unpacks to far more than it holds, so it was not taken in.',
    FILE_TOO_DEMANDING:
      'This file takes too long or too much memory to be shown, so it was stopped.',
    PICTURE_TOO_LARGE:
      'This picture has more than 200 million pixels. Make it smaller and choose it again.',
    PROTECTED_ALREADY: 'This file is protected already. Use the document that is in it.',
    PDF_DAMAGED: 'This PDF is damaged and cannot be opened.',
    PDF_LOCKED: 'This PDF asks for a password. Save it without one and choose it again.',
    PDF_TOO_DEMANDING: 'This PDF takes too long or too much memory to draw, so it was stopped.',
    PDF_TOO_MANY_PAGES: 'This PDF has more than 20,000 pages.',
    PDF_UNPACKS_TOO_FAR: 'This PDF unpacks to far more than it holds, so it was not taken in.',
    CONTENT_DAMAGED:
      'The stored content of this document is damaged. The sender can send it again.',
    NO_SUCH_PAGE: 'This document has no such page.',
  },
  other: {
    check: 'Please check what you entered.',
    address: 'This is not an email address.',
    code: 'The code has six digits.',
    noRoom:
      'This cannot be shown at present: the sender’s server has no room left. Try again later, or write to the ' +
      'sender.',
    harmed:
      'This cannot be shown at present: something is damaged on the sender’s server. Write to the sender.',
    failed: 'Something went wrong on our side. Nothing was changed.',
  },
} as const;
