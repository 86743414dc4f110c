import type { Unknown } from '@/core/odrl/report';

/** What stands in the way of an agreement that was understood, and where it stands in the file. */
export const stopped = {
  policyTwice: (path: string) => ({ path, what: 'another policy in this file has this name' }),
  agreementTwice: {
    path: 'uid',
    what: 'another agreement in this file is about the same',
  },
  forOthers: (address: string, reference: string) => ({
    path: 'uid',
    what: `this grant is for ${address} on ${reference}: one for others needs no uid`,
  }),
  ofOthers: { path: 'uid', what: 'this was sent by somebody else and is not your document' },
  notPassedOn: { path: 'embargo:passedOnFrom', what: 'it was not passed on from that grant' },
  revokedHere: {
    path: 'embargo:revoked',
    what: 'it is revoked here: reinstate it on its dispatch',
  },
  startMoved: {
    path: 'permission',
    what: 'the start of a grant cannot be moved: revoke it and give another',
  },
  noGrant: { path: 'uid', what: 'there is no such grant here; without a uid it is given anew' },
  boundAbove: {
    path: 'embargo:passedOnFrom',
    what: 'what was passed on is bound by the grant above it, and is not given without it',
  },
  noDocument: (reference: string) => ({
    path: 'permission/0/target',
    what: `there is no document ${reference} here`,
  }),
  documentRevoked: (reference: string) => ({
    path: 'permission/0/target',
    what: `${reference} is revoked: nobody could open it`,
  }),
  noRecipient: (address: string) => ({
    path: 'assignee',
    what: `access cannot be given to “${address}”`,
  }),
  blocked: (address: string) => ({
    path: 'assignee',
    what: `${address} is blocked and could open nothing`,
  }),
  revoked: { path: 'embargo:revoked', what: 'what is revoked is not given' },
  ended: { path: 'permission', what: 'its end has passed' },
} as const satisfies Record<string, Unknown | ((...given: never) => Unknown)>;
