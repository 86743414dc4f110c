import type { Assurance, AssuranceLine, Held } from '@/core/policy/assurance';

/** What holds it, to be read behind the name of what is held. */
const assuranceWords: Record<Assurance, string> = {
  cryptography: 'by cryptography',
  server: 'by the server',
  reader: 'by the reader',
  nothing: 'beyond reach',
};

type Told = { readonly name: string; readonly withheld: string; readonly given: string };

const WORDS: Record<Held, Told> = {
  file: {
    name: 'The attached file',
    withheld: 'holds no key: by itself it opens nothing',
    given: '',
  },
  end: { name: 'End, revocation, opens', withheld: 'asked anew at every page', given: '' },
  comment: {
    name: 'Comment',
    withheld: 'no remark is taken',
    given: 'remarks are kept here, encrypted like the document',
  },
  copy: {
    name: 'Copy text',
    withheld: 'no text is sent',
    given: 'what was copied stays with them',
  },
  print: {
    name: 'Print',
    withheld: 'nothing to print is made',
    given: 'paper stays with them, with the watermark on it',
  },
  revise: {
    name: 'Revise',
    withheld: 'no file is taken',
    given: 'kept beside the document, and opened by nobody before you accept it',
  },
  keep: {
    name: 'Keep a copy',
    withheld: 'the document itself is never sent',
    given: 'a kept copy has no end and cannot be revoked',
  },
  'pass-on': {
    name: 'Pass on',
    withheld: 'anybody else has to be addressed here',
    given: 'within its bounds, and it ends with theirs',
  },
  watermark: { name: 'Watermark', withheld: 'burned into every page that is sent', given: '' },
  place: { name: 'Place', withheld: 'judged by the IP address, which can be disguised', given: '' },
  capture: {
    name: 'Capture deterrent',
    withheld: 'a camera or a determined person gets around it',
    given: '',
  },
};

const READ_ALOUD = 'text comes for their screen reader, where the owner switched that on';

/** Where the key comes to their own machine, a determined person can keep it from the first open on. */
const ON_OWN_MACHINE: Partial<Record<Held, string>> = {
  end: 'asked anew when their permission runs out; who opened it there could have kept the key',
  copy: 'not offered on their machine, where a determined person gets around it',
  print: 'not offered on their machine, where a determined person gets around it',
  keep: 'not offered on their machine, where a determined person gets around it',
  watermark: 'drawn on their machine over every page that is shown',
  place: 'judged when they ask, by the IP address, which can be disguised',
};

/** `Copy text: by the server, no text is sent`, in its parts. */
export function assuranceText({ held, given, by, onOwnMachine }: AssuranceLine): {
  readonly name: string;
  readonly by: string;
  readonly how: string;
} {
  const { name, ...how } = WORDS[held];
  const aids = held === 'copy' && by === 'reader' ? READ_ALOUD : how.withheld;
  const withheld = onOwnMachine ? (ON_OWN_MACHINE[held] ?? aids) : aids;
  return { name, by: assuranceWords[by], how: given ? how.given : withheld };
}
