import { rightNames } from '@/core/policy/right-names';
import type { Registries } from '@/words/reader/registries';

export const en = {
  language: 'Language',
  opening: 'Opening…',
  tryAgain: 'Try again',
  cancel: 'Cancel',
  close: 'Close',
  theSender: 'the sender',
  rights: {
    names: rightNames,
    /** As they stand in a list: `You may read and print`. */
    verbs: {
      read: 'read',
      comment: 'comment',
      copy: 'copy text',
      print: 'print',
      revise: 'send a revised file',
      keep: 'keep a copy',
      'pass-on': 'pass it on',
    },
    to: 'To {verb}',
    may: 'You may {verbs}, with no end',
    mayUntil: 'You may {verbs} until <end></end>',
    mayUntilIn: 'You may {verbs}, until <end></end>, {distance}',
  },
  prove: {
    heading: 'You were sent a protected document.',
    headingAll: 'See what was sent to you.',
    intro:
      'Enter the email address the message came to. You will get a six-digit code by email; you need no account.',
    introAll:
      'Enter your email address. If something was sent to it from here, you will get a six-digit code by email.',
    address: 'Your email address',
    send: 'Email me a code',
    codeHeading: 'Enter the code',
    codeSent:
      'A code is on its way to <b>{address}</b>. It works for {minutes} minutes, in this browser.',
    codeSentAll:
      'If something was sent to <b>{address}</b> from here, a code is on its way. It works for {minutes} minutes, ' +
      'in this browser.',
    code: 'Code',
    device: 'This device',
    visit: 'For this visit only: a borrowed or shared computer',
    keep: 'Remember this device: it is mine, ask again in 60 days',
    continue: 'Continue',
    other: 'Use another email address',
    noCode: 'No code after a minute? Look in your junk mail folder, or ask for another one.',
    again: 'Email me another code',
    againIn: 'Another code can be sent in {seconds} s',
    sentAgain: 'Another code is on its way. Only the newest one works.',
    fileInstead: 'Were you sent a file instead? <link>Open a protected file</link>',
    everything: 'Everything sent to you',
  },
  visit: {
    heading: 'Anyone with this link can read what is here.',
    notAsked: 'You are not asked who you are.',
    read: 'Read it',
  },
  recorded: {
    heading: 'What is recorded',
    you:
      'Recorded about you: your email address; when you open what and from which IP address, the place that it ' +
      'suggests, this browser, what was refused, the pages and text shown, what you copy, print, keep and pass on, ' +
      'the passkeys you make and use, and what you write to the sender.',
    visitor:
      'Recorded about you: when you open what and from which IP address, the place that it suggests, this browser, ' +
      'what was refused, the pages and text shown, what you copy, print, keep and pass on, and what you write to ' +
      'the sender.',
    stays:
      'The record stays with the organisation that sent it. An end of access deletes nothing: not the document, not ' +
      'what you wrote, not the record.',
  },
  file: {
    heading: 'Open a protected file',
    intro:
      'Drop the file you were sent. You will be asked to prove your email address, and then read it here.',
    drop: 'Drop a protected file here',
    choose: 'Choose a file',
    onlyInside:
      'This is only the encrypted part. Drop the PDF it came in, or use the link in the message.',
    noLink: 'This file has no link that can be followed.',
    wrong: {
      NOT_PROTECTED: 'This is not a protected file.',
      NEWER: 'This protected file was made by a newer version than this one.',
      DAMAGED:
        'This protected file was changed after it was made: it was cut, altered or saved again by ' +
        'another program. Ask for it again.',
    },
    unreadable: 'This file could not be read.',
    elsewhere:
      'This file is read somewhere else, at <b>{host}</b>. Its first page has the link. Follow it only if you know ' +
      'that site.',
    stays: 'The file is read in this browser and is not sent anywhere.',
  },
  own: {
    take: 'Save the file, and read it on this machine',
    here: 'Read on this machine, from the file {name}. The file is not sent anywhere.',
    notHere: 'This document does not open on your own machine, so its pages come from the service.',
    otherVersion:
      'The file you picked is not of the current version of this document, so its pages come from the service.',
    needsFile:
      'This document was encrypted on the machine of {sender} and is nowhere else. ' +
      'Open the protected file that you were given.',
    wrongFile:
      'This file could not be opened here: it holds another document or version, ' +
      'or was altered. Ask {sender} for it again.',
    nowhere: 'This document may not be opened on your own machine now. Ask {sender}.',
    notOpened: 'This file could not be opened in this browser. Try again, or use another browser.',
    notAmong:
      'The file {name} is not among these: it was sent to somebody else, or holds an earlier version.',
    wrong: {
      ANOTHER_VERSION:
        'The file you picked is not of the current version of this document, so its pages come from the service.',
      DAMAGED: 'The file you picked was altered or cut, so the pages come from the service.',
      BAD_LICENCE:
        'The permission for this machine could not be used, so the pages come from the service. Open the file again.',
      PDF_DAMAGED:
        'The file you picked cannot be drawn on this machine, so the pages come from the service.',
      PDF_LOCKED:
        'The file you picked cannot be drawn on this machine, so the pages come from the service.',
      PDF_TOO_DEMANDING:
        'The file you picked cannot be drawn on this machine, so the pages come from the service.',
      FAILED:
        'The file you picked could not be opened on this machine, so the pages come from the service.',
    },
  },
  offline: {
    heading: 'No connection',
    intro:
      'Files that you opened on this machine may be read without one for a while. Drop the protected file here.',
    list: 'May be read here without a connection',
    until: 'until <end></end>',
    none: 'No file may be read here without a connection. Open it once with one.',
    noLicence: 'This file needs a connection: open it with one first.',
    over: 'The time for reading this file without a connection is over. It opens again with one.',
    clockBack: 'The clock of this machine was set back, so this file needs a connection.',
    notKept: 'This browser has no room to note what is read, so the file was not opened.',
    reading: 'Read without a connection, until <end></end>.',
    sees: '{sender} sees it once there is a connection',
    commentNotKept: 'It could not be kept in this browser. Copy it, so that it is not lost.',
    told: 'What you read is noted on this machine and told to {organisation} once there is a connection.',
    back: 'Back to the list',
    online: 'There is a connection again.',
    goOn: 'Go on with it',
  },
  shared: {
    heading:
      '{sender} of {organisation} sent you {count, plural, one {# document} other {# documents}}',
    hereAs: 'You are here as {address}.',
    hereAsBold: 'You are here as <b>{address}</b>.',
    pages: '{count, plural, =0 {no pages, only kept} one {# page} other {# pages}}',
    opensLeft:
      '{count, plural, one {you can open it once more} other {you can open it # more times}}',
    printsLeft:
      '{count, plural, =0 {every print you were given has been made} one {you can print it once more} other ' +
      '{you can print it # more times}}',
    read: 'Read',
    askForIt: 'Ask for it',
    whole: 'Everything sent to you',
  },
  sent: {
    heading: 'Sent to you',
    by: 'by {organisation}',
    find: 'Find by title, reference or sender',
    none: 'Nothing was sent to {address} from here.',
    noneFound: 'Nothing of what was sent to you has these words.',
    from: 'From {sender}, <when></when>',
    open: '{count, plural, one {# document that you can open} other {# documents that you can open}}',
    closed: '{count, plural, one {# document that is closed} other {# documents that are closed}}',
    devices: 'Your devices',
    devicesIntro:
      'Browsers in which you proved this email address. End one that you do not use or know.',
    thisDevice: 'this one',
    remembered: 'remembered, until <end></end>',
    oneVisit: 'for one visit, until <end></end>',
    since: 'since <when></when>',
    lastOpened: 'last opened something <when></when>',
    nameDevice: 'Name of this device',
    rename: 'Rename',
    save: 'Save',
    endDevice: 'End',
    endDeviceNamed: 'End {device}',
    renameNamed: 'Rename {device}',
    ended:
      '{device} was ended. It opens nothing any more until the email address is proven there again.',
    signOut: 'Sign out on this device',
  },
  passkey: {
    continue: 'Continue with a passkey',
    about:
      'A passkey is kept by your device or your password manager, which asks for your fingerprint, face or PIN.',
    enter: 'Use a passkey instead of a code',
    heading: 'Your passkeys',
    intro: 'A passkey proves you without a code, and besides it where a sender asks for both.',
    none: 'You have none.',
    used: 'made <when></when>, last used <used></used>',
    make: 'Make a passkey',
    another: 'Make another passkey',
    remove: 'Remove',
    removeNamed: 'Remove the passkey made on {label}',
    removed: 'The passkey was removed. It proves nothing any more.',
    made: 'The passkey was made.',
    cancelled: 'No passkey was used. Try again, or prove your email address with a code.',
    unsupported: 'This browser cannot use passkeys. Use another browser or device.',
  },
  notice: {
    heading: 'Please read this first',
    intro: '{organisation} asks you to accept this before you open what it sent you.',
    kept: 'That you accept is recorded, with the time, this wording and its language.',
    accept: 'Accept and open',
  },
  nothing: {
    heading: 'There is nothing here.',
    cutOff: 'The address may have been cut off on its way. Open it again, whole.',
  },
  refusal: {
    opensAgain: 'It opens again <when></when>.',
    notOpened: 'Not opened',
    writeTo: 'Write to {name}',
    mailSubject: 'About the document you sent me',
    mailAbout: 'About {title} ({reference})',
    back: 'Back to the list',
    proveAgain: 'Prove your email address again',
  },
  reasons: {
    'identity-not-proven': {
      title: 'Your email address has not been proven in this browser.',
      next: 'Prove it with a code, and you can read on.',
    },
    'not-addressed': {
      title: 'This was not sent to this email address.',
      next:
        'If you have another email address, use the one it was sent to. Otherwise ask the person ' +
        'who gave you the link.',
    },
    'recipient-blocked': {
      title: 'Access for this email address has been stopped.',
      next: 'Write to the sender if you think this is a mistake.',
    },
    'document-revoked': {
      title: 'The sender has withdrawn this document.',
      next: 'Nobody can open it at present. Write to the sender if you still need it.',
    },
    'not-yet': {
      title: 'This document is not open yet.',
      next: 'You can open this document later, from the same link.',
    },
    expired: {
      title: 'Your access to this document has ended.',
      next: 'Write to the sender if you need more time.',
    },
    revoked: {
      title: 'The sender has ended your access to this document.',
      next: 'Write to the sender if you think this is a mistake.',
    },
    'key-destroyed': {
      title: 'This document has been destroyed.',
      next: 'Nobody can open it any more.',
    },
    'prove-again': {
      title: 'Your email address has to be proven again.',
      next: 'The sender requires this from time to time. Prove it with a code, and you can read on.',
    },
    'passkey-needed': {
      title: 'This document asks for your passkey as well.',
      next: 'Your email address is proven. Use your passkey, or make one now if you have none, and you can read on.',
    },
    'device-not-accepted': {
      title: 'This document opens only on a remembered device.',
      next:
        'This device is for one visit only. Use your own device, or prove your email address ' +
        'again and remember this one.',
    },
    'too-many-devices': {
      title: 'You have opened this on as many devices as you may.',
      next: 'Use one of those, or write to the sender.',
    },
    'network-not-allowed': {
      title: 'This document does not open from this network.',
      next: 'Use the agreed network, for example at your office, or write to the sender.',
    },
    'place-not-allowed': {
      title: 'This document does not open from where you seem to be.',
      next: 'Places are estimated from your IP address and can be wrong. Write to the sender if this one is.',
    },
    'hours-not-allowed': {
      title: 'This document is closed at this hour.',
      next: 'Open it again during the agreed hours, from the same link.',
    },
    'opens-used-up': {
      title: 'You have opened this as often as you may.',
      next: 'Write to the sender if you need it once more.',
    },
    'condition-unknown': {
      title: 'This document cannot be opened at present.',
      next: 'It has a condition that is not understood here. Write to the sender.',
    },
    'read-not-allowed': {
      title: 'The sender’s organisation does not allow this document to be read at present.',
      next: 'Write to the sender.',
    },
  },
  withheld: {
    heading: 'Not allowed',
    ask: 'Ask',
    askTo: 'Ask to {verb}',
    asked: 'asked',
    right: {
      'not-given': 'To {verb} was not given to you by {sender}.',
      'prints-used-up': 'To {verb} is used up: every copy you were given has been made.',
      'needs-unlimited-print': 'To {verb} is not possible while prints are limited.',
      'needs-keep': 'To {verb} is not possible while no copy may be kept.',
      'above-ceiling': 'To {verb} is not allowed by the sender’s organisation.',
    },
    now: {
      'not-given': 'This was not given to you.',
      'prints-used-up': 'This is used up: every copy you were given has been made.',
      'needs-unlimited-print': 'This is not possible while prints are limited.',
      'needs-keep': 'This is not possible while no copy may be kept.',
      'above-ceiling': 'This is not allowed by the sender’s organisation.',
    },
  },
  ask: {
    label: 'What you asked for',
    begin: 'Ask for more, or write',
    until: 'Time until',
    untilNone: 'Only if you need more time',
    reason: 'Reason or message',
    send: 'Send to {sender}',
    message: 'You wrote',
    time: 'You asked for more time',
    timeUntil: 'You asked for more time until <end></end>',
    right: 'You asked to {verb}',
    rightUntil: 'You asked to {verb} until <end></end>',
    asks: '{sender} asks: “{text}”',
    replied: 'You replied: “{text}”',
    answered: '“{text}”',
    yourReply: 'Your reply',
    reply: 'Reply to {sender}',
    states: {
      waiting: 'waiting for an answer',
      'asked-back': 'waiting for a reply',
      given: 'given',
      'given-in-part': 'given in part',
      declined: 'declined',
      answered: 'answered',
    },
  },
  passOn: {
    heading: 'Passing on',
    left:
      'You may pass this on to {left, plural, one {# person} other {# people}}. They get no more than you have, and ' +
      'it ends when yours ends. {sender} can see to whom you passed it on.',
    leftMore:
      'You may pass this on to {left, plural, one {# more person} other {# more people}}. They get no more than you ' +
      'have, and it ends when yours ends. {sender} can see to whom you passed it on.',
    leftAt:
      'You may pass this on to {left, plural, one {# person} other {# people}} at {domains}. They get no more than ' +
      'you have, and it ends when yours ends. {sender} can see to whom you passed it on.',
    leftMoreAt:
      'You may pass this on to {left, plural, one {# more person} other {# more people}} at {domains}. They get no ' +
      'more than you have, and it ends when yours ends. {sender} can see to whom you passed it on.',
    revoked: 'revoked',
    begin: 'Pass it on…',
    address: 'Their email address',
    note: 'Note',
    send: 'Pass it on',
  },
  print: {
    heading: 'Print',
    headingLeft: 'Print · {count, plural, one {# more copy} other {# more copies}}',
    from: 'From page',
    to: 'To page',
    make: 'Make a marked copy',
    saved: 'A marked copy was saved. Print it from there.',
  },
  take: {
    being: 'Being made…',
    failedHere:
      'The copy could not be made on this machine. Whoever sent it can give a print back.',
    keep: 'Keep a copy',
    keptMarked: 'A copy with the watermark was saved on this device.',
    keptPlain: 'A copy was saved on this device as the file came, without a watermark.',
  },
  reading: {
    from: 'from {sender}, {organisation} · you are here as {address}',
    mayDo: 'What you may do',
    backToPages: 'Back to the pages',
    aids: '{sender} switched on reading aids for you: a screen reader can read the pages.',
    announced:
      '{sender} asked that the pages be covered while another window is in front, and for a moment after a key that ' +
      'takes a picture of the screen.',
    covered:
      'Covered while another window is in front. {sender} asked for this. Come back to this window to continue.',
    notForPaper:
      'This page is not for paper. Choose “Make a marked copy” beside the document, and print that.',
    notToPrint: 'This document may be read here, and was not given to be printed.',
    keys: 'Keys',
    notShown: 'Files of this kind cannot be shown as pages.',
    notShownKeep: 'Keep a copy, and open it with the program it was made for.',
    notShownAsk: '{sender} did not give it to be kept. Ask for that here, or write to them.',
  },
  revise: {
    heading: 'Changed files',
    sent: '<when></when>, {state}',
    states: {
      waiting: 'waits for an answer',
      accepted: 'accepted: it opens now',
      declined: 'not taken up',
    },
    changeText: 'Change the text here',
    file: 'The changed file',
    what: 'What you changed',
    being: 'Being sent…',
    send: 'Send a changed file back…',
    compared:
      '{sender} compares it with the document, and accepts or declines it. Nobody else opens it before.',
    comparedText: '{sender} compares it with the document, and accepts or declines it.',
    tooLarge: 'This file is larger than 96 MiB, the most that can be sent back here.',
    textTooLarge: 'This text is larger than 2 MiB. Keep a copy, and send the changed file back.',
    text: 'The text',
    textChanged: 'The text that you change',
    sendText: 'Send the change',
    discard: 'Discard the change',
    unsent: 'The text as you changed it',
    unsentHint: 'It was not sent. Copy it from here.',
  },
  pages: {
    label: 'Pages',
    page: 'Page {page}',
    contents: 'Contents',
    inDocument: 'In this document',
    outline: 'Outline',
    found: 'Found',
    smaller: 'Smaller',
    larger: 'Larger',
    smallerKey: 'Smaller (−)',
    largerKey: 'Larger (+)',
    oneKey: 'One page at a time (S)',
    one: 'One page',
    words: 'Text only',
    largerText: 'Larger text',
    smallerText: 'Smaller text',
    noText: 'This page has no text.',
    turnLong: 'Turn clockwise',
    turnKey: 'Turn clockwise (R)',
    turn: 'Turn',
    fullScreen: 'Full screen',
    fullScreenKey: 'Full screen (F)',
    before: 'Page before',
    after: 'Page after',
    pageField: 'Page',
    ofPages: 'of {pages}',
    zoom: 'Zoom, {percent} %',
    fitWidth: 'Fit the width',
    fitPage: 'Fit the page',
    findWords: 'Find words',
    at: '{at} of {count}',
    placeBefore: 'Place before',
    placeAfter: 'Place after',
    twoLetters: 'Two letters at least.',
    nothing: 'Nothing found',
    places: '{count, plural, one {# place} other {# places}}',
    soFar: '{found} so far; page {page} of {pages}',
    whole: 'Whole words are found, and shown on the page.',
    outlineIsText: 'The outline is text of the document, and comes with being allowed to copy.',
    looking: 'Looking…',
    noOutline: 'This document has no outline.',
    keys: {
      zoom: 'larger, smaller',
      width: 'fit the width',
      page: 'fit the page',
      turn: 'turn clockwise',
      single: 'one page at a time, or all',
      full: 'full screen',
      find: 'find words',
      place: 'the next place, the one before',
      pages: 'a page back or on',
    },
  },
  comments: {
    heading: 'Comments',
    place: 'Comment on a page',
    placing: 'Click on a page, or drag over an area',
    onPage: 'Comment on page {page}',
    sees: '{sender} sees it',
    save: 'Save comment',
    discard: 'Discard',
    unsaved: 'What you were writing about page {page}',
    unsavedHint: 'It was not saved. Copy it from here.',
    unsent: 'What you wrote about page {page} without a connection',
    unsentHint: 'It could not be put beside the document. Copy it from here.',
    numbered: 'Comment {number}',
    numberedResolved: 'Comment {number}, resolved',
    new: 'New',
    resolved: 'resolved',
    reopen: 'Reopen',
    resolve: 'Resolve',
    you: 'You',
    whoSent: '{name}, who sent it',
    changed: 'changed',
    remove: 'Remove',
    unreadable: 'It cannot be read any more: the key is destroyed.',
    answer: 'Answer',
    saveAnswer: 'Save answer',
    hideResolved: 'Hide resolved',
    showResolved: 'Show {count} resolved',
  },
  moment: {
    day: 'day',
    month: 'month',
    year: 'year',
    hours: 'hh',
    minutes: 'mm',
    set: 'Set',
    half: 'Day, month, year and time, or nothing',
  },
  problems: {
    unreachable:
      'The server cannot be reached. Check your connection; this page goes on by itself.',
    unreadable: 'The server’s answer could not be read. Try again.',
    broken: 'Something went wrong in this page. Reload it and try again.',
  },
} as const satisfies Registries;
