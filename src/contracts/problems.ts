import type { Moment } from '@/core/base/time';
import type { PassOnRefusal } from '@/core/policy/passing-on';
import type { Level } from '@/core/policy/levels';
import type { RefusalReason } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';
import type { Rule } from '@/core/policy/rules';
import type { Beyond } from '@/core/policy/sender-limits';
import type { Role } from '@/core/policy/permissions';

/** What sort of problem it is, for anyone who answers a request: the HTTP status goes by it. */
export type ProblemKind =
  | 'NOT_FOUND'
  | 'INVALID'
  | 'CONFLICT'
  | 'TOO_MANY'
  | 'NOT_SIGNED_IN'
  | 'NEEDS_CODE'
  | 'PROVE_AGAIN'
  | 'NOT_ALLOWED'
  | 'WRONG_ORIGIN'
  | 'TOO_LARGE'
  | 'WRONG_LENGTH'
  | 'MAIL_NOT_SET_UP'
  | 'REASON_NEEDED'
  | 'NOTICE_DUE';

type Known = { readonly kind: ProblemKind; readonly to: 'staff' | 'recipient' | 'both' };

/**
 * Everything a use case can fail with, of which sort it is and who may be told of it. The words for
 * it stand in `src/words`, one catalogue for each audience.
 */
export const PROBLEMS = {
  'request-too-large': { kind: 'TOO_LARGE', to: 'both' },
  'request-unreadable': { kind: 'INVALID', to: 'both' },
  'wrong-origin': { kind: 'WRONG_ORIGIN', to: 'both' },
  'signed-out': { kind: 'NOT_SIGNED_IN', to: 'both' },
  'address-unproven': { kind: 'NOT_SIGNED_IN', to: 'recipient' },
  'act-key-used': { kind: 'INVALID', to: 'both' },
  'done-before': { kind: 'CONFLICT', to: 'both' },
  'no-document': { kind: 'NOT_FOUND', to: 'staff' },
  'no-dispatch': { kind: 'NOT_FOUND', to: 'staff' },
  'record-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'asker-gone': { kind: 'CONFLICT', to: 'staff' },
  'no-request': { kind: 'NOT_FOUND', to: 'staff' },
  'own-consent': { kind: 'NOT_ALLOWED', to: 'staff' },
  'consent-needs-administrator': { kind: 'NOT_ALLOWED', to: 'staff' },
  'consent-answered': { kind: 'CONFLICT', to: 'staff' },
  'answer-needs-sentence': { kind: 'INVALID', to: 'staff' },
  'end-past': { kind: 'INVALID', to: 'staff' },
  'request-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'request-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'request-answered': { kind: 'CONFLICT', to: 'staff' },
  'link-off-already': { kind: 'CONFLICT', to: 'staff' },
  'link-off': { kind: 'CONFLICT', to: 'staff' },
  'no-text': { kind: 'NOT_FOUND', to: 'staff' },
  'note-quotes': { kind: 'INVALID', to: 'staff' },
  'given-to-nobody-here': { kind: 'CONFLICT', to: 'staff' },
  'dispatch-full': { kind: 'CONFLICT', to: 'staff' },
  'carried-already': { kind: 'CONFLICT', to: 'staff' },
  'own-id-taken': { kind: 'CONFLICT', to: 'staff' },
  'request-turns': { kind: 'CONFLICT', to: 'staff' },
  'not-sent-here': { kind: 'NOT_FOUND', to: 'recipient' },
  'asked-time-past': { kind: 'INVALID', to: 'recipient' },
  'right-held': { kind: 'CONFLICT', to: 'recipient' },
  'asked-before': { kind: 'CONFLICT', to: 'recipient' },
  'requests-waiting': { kind: 'TOO_MANY', to: 'recipient' },
  'nothing-to-reply': { kind: 'CONFLICT', to: 'recipient' },
  'notice-due': { kind: 'NOTICE_DUE', to: 'recipient' },
  'notice-changed': { kind: 'CONFLICT', to: 'recipient' },
  'passkey-refused': { kind: 'INVALID', to: 'recipient' },
  'passkey-needs-proof': { kind: 'CONFLICT', to: 'recipient' },
  'passkey-first': { kind: 'CONFLICT', to: 'recipient' },
  'passkey-unknown': { kind: 'NOT_FOUND', to: 'both' },
  'device-unknown': { kind: 'NOT_FOUND', to: 'both' },
  'file-too-large': { kind: 'TOO_LARGE', to: 'staff' },
  'grants-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'end-before-start': { kind: 'INVALID', to: 'staff' },
  'changed-meanwhile': { kind: 'CONFLICT', to: 'staff' },
  'no-grant': { kind: 'NOT_FOUND', to: 'staff' },
  'document-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'no-page': { kind: 'NOT_FOUND', to: 'staff' },
  'comment-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'comments-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'reading-aids-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'revisions-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'revision-answered': { kind: 'CONFLICT', to: 'staff' },
  'version-told': { kind: 'CONFLICT', to: 'staff' },
  'paper-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'paper-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'comment-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'check-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'key-destroyed-for-all': { kind: 'NOT_FOUND', to: 'staff' },
  'key-destroyed': { kind: 'NOT_FOUND', to: 'staff' },
  'key-destroyed-unsendable': { kind: 'NOT_FOUND', to: 'staff' },
  'a-document-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'destroy-one-by-one': { kind: 'CONFLICT', to: 'staff' },
  'key-destroyed-before': { kind: 'CONFLICT', to: 'staff' },
  'mail-not-set-up-for-codes': { kind: 'MAIL_NOT_SET_UP', to: 'staff' },
  'an-end-past': { kind: 'INVALID', to: 'staff' },
  'unprotected-needs-reason': { kind: 'INVALID', to: 'staff' },
  'unprotected-by-hand': { kind: 'INVALID', to: 'staff' },
  'unprotected-by-name': { kind: 'INVALID', to: 'staff' },
  'unprotected-adds-nobody': { kind: 'CONFLICT', to: 'staff' },
  'mail-not-set-up': { kind: 'MAIL_NOT_SET_UP', to: 'staff' },
  'unprotected-not-again': { kind: 'CONFLICT', to: 'staff' },
  'links-by-hand': { kind: 'CONFLICT', to: 'staff' },
  'nobody-could-open': { kind: 'CONFLICT', to: 'staff' },
  'dispatch-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'no-person': { kind: 'NOT_FOUND', to: 'staff' },
  'folder-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'marking-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'owner-unfit': { kind: 'CONFLICT', to: 'staff' },
  'marking-lower-apart': { kind: 'CONFLICT', to: 'staff' },
  'some-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'one-at-a-time': { kind: 'INVALID', to: 'staff' },
  'nothing-to-change': { kind: 'INVALID', to: 'staff' },
  'owner-and-deputy': { kind: 'CONFLICT', to: 'staff' },
  'recipient-blocked': { kind: 'CONFLICT', to: 'staff' },
  'people-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'nothing-here': { kind: 'NOT_FOUND', to: 'staff' },
  'exports-running': { kind: 'TOO_MANY', to: 'staff' },
  'no-recovery-key-for-backup': { kind: 'CONFLICT', to: 'staff' },
  'device-key-unusable': { kind: 'INVALID', to: 'recipient' },
  'ceiling-changed': { kind: 'CONFLICT', to: 'staff' },
  'no-folder': { kind: 'NOT_FOUND', to: 'staff' },
  'folder-in-itself': { kind: 'CONFLICT', to: 'staff' },
  'no-marking': { kind: 'NOT_FOUND', to: 'staff' },
  'no-terms': { kind: 'NOT_FOUND', to: 'staff' },
  'no-group': { kind: 'NOT_FOUND', to: 'staff' },
  'member-unknown': { kind: 'NOT_FOUND', to: 'staff' },
  'recovery-key-invalid': { kind: 'INVALID', to: 'staff' },
  'no-second-administrator': { kind: 'CONFLICT', to: 'staff' },
  'waits-already': { kind: 'CONFLICT', to: 'staff' },
  'content-elsewhere': { kind: 'CONFLICT', to: 'both' },
  'local-by-hand': { kind: 'INVALID', to: 'staff' },
  'local-needs-own-machine': { kind: 'INVALID', to: 'staff' },
  'not-a-local-upload': { kind: 'CONFLICT', to: 'staff' },
  'content-not-whole': { kind: 'NOT_FOUND', to: 'staff' },
  'no-recovery-key': { kind: 'CONFLICT', to: 'staff' },
  'nothing-under-recovery': { kind: 'CONFLICT', to: 'staff' },
  'drill-document-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'drill-failed': { kind: 'INVALID', to: 'staff' },
  'person-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'rule-changed': { kind: 'CONFLICT', to: 'staff' },
  'mail-not-set-up-for-invitations': { kind: 'MAIL_NOT_SET_UP', to: 'staff' },
  'no-colleague': { kind: 'NOT_FOUND', to: 'staff' },
  'own-role': { kind: 'CONFLICT', to: 'staff' },
  'last-administrator': { kind: 'CONFLICT', to: 'staff' },
  'ticket-used': { kind: 'NOT_FOUND', to: 'staff' },
  'successor-is-self': { kind: 'INVALID', to: 'staff' },
  'left-before': { kind: 'CONFLICT', to: 'staff' },
  'file-no-json': { kind: 'INVALID', to: 'staff' },
  'file-no-odrl': { kind: 'INVALID', to: 'staff' },
  'document-gone': { kind: 'NOT_FOUND', to: 'recipient' },
  'link-unknown': { kind: 'NOT_FOUND', to: 'recipient' },
  'open-it-first': { kind: 'NOT_FOUND', to: 'recipient' },
  'given-already': { kind: 'CONFLICT', to: 'recipient' },
  'upload-over': { kind: 'NOT_FOUND', to: 'staff' },
  'file-incomplete': { kind: 'CONFLICT', to: 'staff' },
  'upload-is-version': { kind: 'CONFLICT', to: 'staff' },
  'upload-is-document': { kind: 'CONFLICT', to: 'staff' },
  'same-file': { kind: 'CONFLICT', to: 'staff' },
  'protect-as-new': { kind: 'CONFLICT', to: 'staff' },
  'not-sent-to-person': { kind: 'NOT_FOUND', to: 'staff' },
  'not-sent-in-dispatch': { kind: 'NOT_FOUND', to: 'staff' },
  'no-protected-file': { kind: 'CONFLICT', to: 'staff' },
  'file-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'file-holds-link': { kind: 'NOT_ALLOWED', to: 'staff' },
  'opens-for-nobody': { kind: 'CONFLICT', to: 'staff' },
  'content-damaged': { kind: 'CONFLICT', to: 'staff' },
  'prove-again': { kind: 'PROVE_AGAIN', to: 'staff' },
  'type-app-code': { kind: 'NEEDS_CODE', to: 'staff' },
  'app-code-wrong': { kind: 'NEEDS_CODE', to: 'staff' },
  'password-wrong': { kind: 'INVALID', to: 'staff' },
  'factor-of-another': { kind: 'INVALID', to: 'staff' },
  'app-clock': { kind: 'INVALID', to: 'staff' },
  'no-message': { kind: 'NOT_FOUND', to: 'staff' },
  'no-attachment': { kind: 'NOT_FOUND', to: 'staff' },
  'not-open-here': { kind: 'NOT_FOUND', to: 'recipient' },
  'not-on-own-machine': { kind: 'NOT_ALLOWED', to: 'recipient' },
  'file-of-another-version': { kind: 'CONFLICT', to: 'recipient' },
  'revision-too-large': { kind: 'TOO_LARGE', to: 'recipient' },
  'file-cut-off': { kind: 'WRONG_LENGTH', to: 'recipient' },
  'revisions-waiting': { kind: 'CONFLICT', to: 'recipient' },
  'ended-meanwhile': { kind: 'NOT_ALLOWED', to: 'recipient' },
  'no-comment': { kind: 'NOT_FOUND', to: 'recipient' },
  'comments-full': { kind: 'TOO_MANY', to: 'recipient' },
  'no-such-pages': { kind: 'INVALID', to: 'recipient' },
  'reason-needed': { kind: 'REASON_NEEDED', to: 'both' },
  'part-does-not-follow': { kind: 'CONFLICT', to: 'staff' },
  'file-received': { kind: 'WRONG_LENGTH', to: 'staff' },
  'file-changed': { kind: 'CONFLICT', to: 'staff' },
  'part-length': { kind: 'WRONG_LENGTH', to: 'staff' },
  'statement-running': { kind: 'TOO_MANY', to: 'staff' },
  'nothing-revoked': { kind: 'NOT_FOUND', to: 'staff' },
  'nothing-signed': { kind: 'NOT_FOUND', to: 'staff' },
  'address-is-theirs': { kind: 'CONFLICT', to: 'staff' },
  'one-is-blocked': { kind: 'CONFLICT', to: 'staff' },
  'only-senders-limited': { kind: 'INVALID', to: 'staff' },
  'limits-changed': { kind: 'CONFLICT', to: 'staff' },
  'set-up-token-wrong': { kind: 'NOT_ALLOWED', to: 'staff' },
  'set-up-before': { kind: 'CONFLICT', to: 'staff' },
  'groups-gone': { kind: 'NOT_FOUND', to: 'staff' },
  'sign-in-wrong': { kind: 'NOT_SIGNED_IN', to: 'staff' },
  'rows-not-ours': { kind: 'CONFLICT', to: 'both' },
  'verification-running': { kind: 'TOO_MANY', to: 'staff' },
  'checkpoint-invalid': { kind: 'INVALID', to: 'staff' },
  'link-ended': { kind: 'NOT_FOUND', to: 'recipient' },
  'moment-to-come': { kind: 'INVALID', to: 'staff' },
  'group-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'second-person-needed': { kind: 'NOT_ALLOWED', to: 'staff' },
  'permission-missing': { kind: 'NOT_ALLOWED', to: 'staff' },
  'administrator-too-new': { kind: 'NOT_ALLOWED', to: 'staff' },
  'ask-in-vain': { kind: 'CONFLICT', to: 'recipient' },
  'revoked-by-administrator': { kind: 'NOT_ALLOWED', to: 'staff' },
  'right-needs': { kind: 'INVALID', to: 'staff' },
  'terms-name-taken': { kind: 'CONFLICT', to: 'staff' },
  'terms-changed': { kind: 'CONFLICT', to: 'staff' },
  'reference-not-typed': { kind: 'INVALID', to: 'staff' },
  'words-not-typed': { kind: 'INVALID', to: 'staff' },
  'too-many-recipients': { kind: 'TOO_MANY', to: 'staff' },
  'title-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'title-revoked': { kind: 'INVALID', to: 'staff' },
  'too-large-to-mail': { kind: 'TOO_LARGE', to: 'staff' },
  'given-nothing': { kind: 'INVALID', to: 'staff' },
  'document-for-nobody': { kind: 'INVALID', to: 'staff' },
  'approved-for-then': { kind: 'CONFLICT', to: 'staff' },
  'held-left': { kind: 'CONFLICT', to: 'staff' },
  'sender-gone': { kind: 'NOT_ALLOWED', to: 'staff' },
  'draft-changed': { kind: 'CONFLICT', to: 'staff' },
  'keep-forbidden': { kind: 'NOT_ALLOWED', to: 'staff' },
  'already-recipients': { kind: 'CONFLICT', to: 'staff' },
  'too-many-tries': { kind: 'TOO_MANY', to: 'both' },
  'agreement-unreadable': { kind: 'INVALID', to: 'staff' },
  'never-sent': { kind: 'NOT_FOUND', to: 'staff' },
  'too-many-drafts': { kind: 'CONFLICT', to: 'staff' },
  'no-level-subject': { kind: 'NOT_FOUND', to: 'staff' },
  'limits-left-behind': { kind: 'NOT_ALLOWED', to: 'staff' },
  'backup-content-damaged': { kind: 'CONFLICT', to: 'staff' },
  'folder-name-taken': { kind: 'CONFLICT', to: 'staff' },
  'folder-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'folder-has-limits': { kind: 'NOT_ALLOWED', to: 'staff' },
  'folder-not-empty': { kind: 'CONFLICT', to: 'staff' },
  'marking-name-taken': { kind: 'CONFLICT', to: 'staff' },
  'marking-in-use': { kind: 'CONFLICT', to: 'staff' },
  'named-group-of-others': { kind: 'NOT_ALLOWED', to: 'staff' },
  'group-name-taken': { kind: 'CONFLICT', to: 'staff' },
  'on-staff-already': { kind: 'CONFLICT', to: 'staff' },
  'colleague-disabled': { kind: 'CONFLICT', to: 'staff' },
  'successor-blocked': { kind: 'CONFLICT', to: 'staff' },
  'pass-on-refused': { kind: 'NOT_ALLOWED', to: 'recipient' },
  'reference-taken': { kind: 'CONFLICT', to: 'staff' },
  'code-wrong': { kind: 'INVALID', to: 'recipient' },
  'nobody-to-join': { kind: 'NOT_FOUND', to: 'staff' },
  'beyond-own-limits': { kind: 'NOT_ALLOWED', to: 'staff' },
  'public-domain': { kind: 'INVALID', to: 'staff' },
  'way-forbidden': { kind: 'NOT_ALLOWED', to: 'staff' },
  'archive-foreign': { kind: 'INVALID', to: 'staff' },
  'backup-incomplete': { kind: 'INVALID', to: 'staff' },
  'backup-unreadable': { kind: 'INVALID', to: 'staff' },
  'not-a-backup': { kind: 'INVALID', to: 'staff' },
  'document-not-backup': { kind: 'INVALID', to: 'staff' },
} as const satisfies Record<string, Known>;

export type ProblemCode = keyof typeof PROBLEMS;

type To<A extends Known['to']> = {
  [C in ProblemCode]: (typeof PROBLEMS)[C]['to'] extends A ? C : never;
}[ProblemCode];
export type StaffProblem = To<'staff' | 'both'>;
export type RecipientProblem = To<'recipient' | 'both'>;

/** What the sentence about a problem, or a program that goes on after it, needs to know. */
type WithFields = {
  'archive-foreign': { readonly name: string };
  'backup-incomplete': { readonly content: string | null };
  'permission-missing': { readonly role: Role };
  'administrator-too-new': { readonly from: Moment; readonly zone: string };
  'ask-in-vain': { readonly reason: RefusalReason };
  'revoked-by-administrator': { readonly name: string };
  'right-needs': { readonly right: Right; readonly needs: Right | 'unlimited-print' };
  'terms-name-taken': { readonly name: string };
  'terms-changed': { readonly by: string };
  'reference-not-typed': { readonly reference: string };
  'words-not-typed': { readonly words: string };
  'too-many-recipients': { readonly most: number; readonly found: number };
  'note-quotes': { readonly title: string };
  'own-id-taken': { readonly ownId: string; readonly address: string };
  'carried-already': { readonly title: string };
  'title-of-others': { readonly title: string };
  'title-revoked': { readonly title: string };
  'local-by-hand': { readonly title: string };
  'local-needs-own-machine': { readonly title: string };
  'too-large-to-mail': { readonly bytes: number; readonly most: number };
  'keep-forbidden': { readonly title: string; readonly level: Level };
  'already-recipients': { readonly addresses: readonly string[] };
  'too-many-tries': { readonly retryAfter: number };
  'agreement-unreadable': { readonly issues: readonly string[] };
  'never-sent': { readonly address: string };
  'too-many-drafts': { readonly most: number };
  'no-level-subject': { readonly level: Level };
  'limits-left-behind': { readonly name: string | null };
  'backup-content-damaged': { readonly reference: string; readonly title: string };
  'folder-name-taken': { readonly name: string };
  'folder-of-others': { readonly name: string };
  'folder-has-limits': { readonly name: string };
  'folder-not-empty': { readonly name: string };
  'marking-name-taken': { readonly name: string };
  'marking-in-use': { readonly name: string; readonly documents: number };
  'named-group-of-others': { readonly name: string };
  'group-name-taken': { readonly name: string };
  'on-staff-already': { readonly email: string };
  'colleague-disabled': { readonly name: string };
  'successor-blocked': { readonly address: string };
  'pass-on-refused': { readonly reason: PassOnRefusal };
  'reference-taken': { readonly reference: string };
  'dispatch-full': { readonly most: number; readonly carried: number };
  /** `same`: the reference of the document that it is. */
  'same-file': {
    readonly title: string;
    readonly same: string;
    readonly older: number | null;
  };
  'code-wrong': { readonly left: number };
  'nobody-to-join': { readonly address: string };
  'beyond-own-limits': { readonly beyond: Beyond; readonly setBy: string | null };
  'public-domain': { readonly domain: string };
  'way-forbidden': {
    readonly way: Rule['way'];
    readonly setBy: string | null;
    readonly byDefault: boolean;
    readonly reason: string;
  };
  'file-incomplete': { readonly receivedBytes: number };
  'part-does-not-follow': { readonly receivedBytes: number };
  'file-changed': { readonly receivedBytes: number };
};
export type NoFields = Readonly<Record<string, never>>;
export type ProblemFields<C extends ProblemCode> = C extends keyof WithFields
  ? WithFields[C]
  : NoFields;

/** A sentence for every problem of an audience: one that is forgotten does not compile. */
export type ProblemWords<C extends ProblemCode> = {
  readonly [Each in C]: (fields: ProblemFields<Each>) => string;
};
