import type { Way } from '@/core/policy/rules';

/** Each way of dispatch as something that is done, at the start of a sentence. */
export const dispatchWords: Record<Way, string> = {
  link: 'Sending a link',
  file: 'Sending protected files',
  unprotected: 'Sending unprotected',
  domain: 'Sending to everyone at a domain',
  'open-link': 'Sending an open link',
  'lower-marking': 'Lowering a marking',
};
