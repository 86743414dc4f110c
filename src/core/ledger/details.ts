import type {
  HeldId,
  CommentId,
  ConsentId,
  DispatchId,
  DocumentId,
  FolderId,
  GrantId,
  GroupId,
  MarkingId,
  RecipientId,
  RequestId,
  RevisionId,
  StaffId,
  TermsId,
} from '@/core/base/ids';
import type { Json } from '@/core/ledger/canonical';
import type { PaperState } from '@/core/paper/paper-copy';

type Plain = Readonly<Record<string, Json>>;
/** Made by a restore, which takes back what has ended since the backup. */
type Restored = { readonly restored?: true };
/** What a grant is about, as a line of `termsText`. */
type Given = { readonly terms: string; readonly beneath?: GrantId };
type GrantChanged = Restored & {
  readonly before: string;
  readonly terms: string;
  readonly kept?: TermsId;
};
/** `terms`: what was taken away or came back. `scope`: of whom all was taken at once. */
type GrantRevoked = Restored & {
  readonly terms?: string;
  readonly scope?: string;
  readonly because?: string;
};
/** How one came by somebody else's link. */
type ByLink = { readonly linkOf?: RecipientId };
type Named = { readonly before: string | null; readonly after: string };

/** What was changed about the organisation, its folders, markings, groups, saved terms and rules. */
export type SettingsDetails =
  | { readonly work: true; readonly before: Plain; readonly after: Plain }
  | (Restored & {
      readonly rule: string;
      readonly before: string;
      readonly after: string;
      readonly reason?: string;
    })
  | { readonly folder: FolderId; readonly made: string }
  | {
      readonly folder: FolderId;
      readonly before: string;
      readonly after: string;
      readonly parent: FolderId | null;
      readonly parentBefore: FolderId | null;
      readonly markingId?: MarkingId | null;
      readonly markingIdBefore?: MarkingId | null;
    }
  | { readonly folder: FolderId; readonly removed: string }
  | (Named & {
      readonly marking: MarkingId;
      readonly up?: true;
      readonly meaning: string;
      readonly meaningBefore: string | null;
      readonly hidesTitles?: boolean;
      readonly hidesTitlesBefore?: boolean | null;
      readonly mailWords?: string;
      readonly mailWordsBefore?: string | null;
    })
  | { readonly marking: MarkingId; readonly removed: string }
  | { readonly terms: TermsId; readonly removed: string }
  | { readonly savedText: string; readonly made: boolean }
  | { readonly savedText: string; readonly removed: string }
  | {
      readonly terms: TermsId;
      readonly name: string;
      readonly version: number;
      readonly before: Plain | null;
      readonly after: Plain;
      readonly changed: number;
      readonly imported?: true;
    }
  | (Named & { readonly group: GroupId })
  | { readonly group: GroupId; readonly removed: string }
  | {
      readonly group: GroupId;
      readonly added: readonly RecipientId[];
      readonly removed: readonly RecipientId[];
    }
  | { readonly notice: number; readonly texts: Plain }
  | { readonly twoPeople: boolean; readonly asked?: false }
  | { readonly consent: ConsentId; readonly kind: string; readonly agreed: boolean }
  | {
      readonly defaults: string;
      readonly subject: string;
      readonly before: Plain;
      readonly after: Plain | null;
    };

type StaffChanged =
  | (Restored & { readonly staff: StaffId; readonly before: string; readonly after: string })
  | (Restored & { readonly staff: StaffId; readonly before: Plain; readonly limits: Plain | null })
  | {
      readonly staff: StaffId;
      readonly notices: true;
      readonly before: Plain;
      readonly after: Plain;
    };

type ConsentAsked =
  | {
      readonly consent: ConsentId;
      readonly kind: 'send';
      readonly documents: readonly DocumentId[];
      readonly recipients: number;
    }
  | {
      readonly consent: ConsentId;
      readonly kind: 'lower-marking';
      readonly documents: readonly DocumentId[];
      readonly marking: MarkingId | null;
    };

/** What an entry says beyond its envelope, by action. Older entries may say less. */
export type Details = {
  'organisation.set-up': { readonly recovery: boolean; readonly demo: boolean };
  'staff.viewed': { readonly accessAt?: number; readonly also?: string | number };
  'staff.invited':
    | { readonly staff: StaffId; readonly role: string }
    | { readonly staff: StaffId; readonly again: true };
  'staff.changed': StaffChanged;
  'staff.factor-changed': { readonly staff: StaffId; readonly factor: boolean };
  /** `local`: it was encrypted on its sender's machine, and its content never came here. */
  'document.protected': {
    readonly reference: string;
    readonly pages: number;
    readonly bytes: number;
    readonly local?: true;
  };
  'document.revised': { readonly number: number; readonly pages: number; readonly bytes: number };
  'document.filed': { readonly before: Plain; readonly after: Plain };
  'document.revoked': Restored;
  'dispatch.sent': {
    readonly reference: string;
    readonly delivery: string;
    readonly documents: number;
    readonly recipients: number;
    readonly watermark: string;
    /** What its sender was asked about and left as it is. */
    readonly waved?: readonly string[];
    readonly consent?: ConsentId;
  };
  /** `leavesAt`: in ms since the epoch. */
  'dispatch.held': {
    readonly held: HeldId;
    readonly leavesAt: number;
    readonly documents: number;
    readonly recipients: number;
  };
  /** `problem`: why it could not leave; absent: somebody stopped it. */
  'dispatch.stopped': { readonly held: HeldId; readonly problem?: string };
  'dispatch.hastened': { readonly held: HeldId };
  /** `status`: what RFC 3463 calls an enhanced status code; empty: none was given. */
  'mail.returned': { readonly status: string };
  'mail.stopped': { readonly messages: number };
  'grant.given': Given;
  'grant.changed': GrantChanged;
  'grant.revoked': GrantRevoked;
  'grant.reinstated': GrantRevoked;
  'recipient.blocked': Restored & {
    readonly because?: string;
    readonly successor?: RecipientId | null;
  };
  'recipient.changed':
    | { readonly sameAs: RecipientId | null }
    | { readonly before: Plain; readonly after: Plain; readonly imported?: true };
  'people.imported': {
    readonly format: string;
    readonly added: number;
    readonly changed: number;
    readonly same: number;
    readonly problems: number;
  };
  'people.exported': { readonly format: string; readonly people: number };
  'request.asked': {
    readonly request: RequestId;
    readonly right: string | null;
    readonly until: number | null;
    readonly met?: string;
  };
  'request.answered': { readonly request: RequestId; readonly state: string };
  'request.asked-back': { readonly request: RequestId };
  'request.replied': { readonly request: RequestId };
  'settings.changed': SettingsDetails;
  'ceiling.changed': Restored & {
    readonly level: string;
    readonly subject: string;
    readonly before: Plain;
    readonly limits: Plain | null;
  };
  'code.requested': ByLink;
  'code.entered': ByLink & { readonly kept?: boolean };
  'key.unwrapped': { readonly for: string; readonly from?: number };
  /** `offlineUntil`: until when it is read without asking, in ms since the epoch; null: every open asks. */
  'key.given': { readonly offlineUntil: number | null };
  'key.destroyed': Restored & { readonly consent?: ConsentId };
  'key.rotated': { readonly generation: number };
  'destruction.asked': { readonly consent: ConsentId; readonly documents: readonly DocumentId[] };
  'destruction.answered': {
    readonly consent: ConsentId;
    readonly kind: string;
    readonly agreed: boolean;
  };
  'consent.asked': ConsentAsked;
  'consent.answered': {
    readonly consent: ConsentId;
    readonly kind: string;
    readonly agreed: boolean;
  };
  'recovery.changed': { readonly before: string | null; readonly after: string | null };
  'backup.made': { readonly entries: number; readonly contents: number; readonly bytes: number };
  'service.restored': { readonly madeAt: number; readonly entries: number; readonly list: boolean };
  'document.opened': ByLink & { readonly rights?: readonly string[]; readonly via?: DispatchId };
  /** `pages`: how many were shown; `missing`: so many before it were never handed in. */
  'document.opened-offline': {
    readonly number: number;
    readonly pages: number;
    readonly missing?: number;
  };
  /** `told`: it was shown on the person's own machine, whose reader told it. */
  'page.shown': { readonly page: number; readonly told?: true };
  /** `aids`: to somebody who may not copy, for a screen reader. */
  'text.sent': { readonly page: number; readonly aids?: true };
  /** `found`: how many places in the pages that were looked through; the words are a personal field. */
  'text.searched': { readonly from: number; readonly to: number; readonly found: number };
  'comment.made': {
    readonly comment: CommentId;
    readonly page: number;
    readonly answers?: CommentId;
    /** It was made without a connection, and handed in later. */
    readonly offline?: true;
  };
  'comment.changed': { readonly comment: CommentId; readonly change: string };
  'comments.shared': { readonly seenBy: string };
  'comments.exported': { readonly comments: number; readonly as: string };
  'text.copied': { readonly page: number; readonly characters: number };
  /** `here`: made on their own machine, of what was open there. */
  'document.printed': {
    readonly from: number;
    readonly to: number;
    readonly copy: number;
    readonly here?: true;
  };
  /** `was`, `now`: what was known of the paper before, and is now. */
  'print.noted': { readonly copy: number; readonly was: PaperState; readonly now: PaperState };
  'revision.sent': {
    readonly revision: RevisionId;
    readonly number: number;
    readonly pages: number;
    readonly bytes: number;
  };
  'revision.answered': {
    readonly revision: RevisionId;
    readonly number: number;
    readonly accepted: boolean;
  };
  'version.told': { readonly number: number; readonly people: number };
  'passkey.made': { readonly passkey: string };
  'passkey.used': { readonly passkey?: string; readonly inPlaceOfCode?: true };
  'passkey.removed': { readonly count: number };
  'notice.accepted': {
    readonly version: number;
    readonly language: string;
    readonly text: string;
  };
  'aids.switched': { readonly owner: StaffId; readonly on: boolean };
  'document.kept': { readonly marked: boolean } | { readonly here: true };
  'file.taken': { readonly bytes: number };
  'ledger.exported':
    | { readonly rows: number; readonly filter: string }
    | { readonly opens: number; readonly filter: string }
    | { readonly statement: string; readonly entries: number };
  'ledger.verified': { readonly handedIn: number };
  'seal.broken': { readonly rows: readonly Json[]; readonly count: number };
  'demo.changed': { readonly forward: number };
};

/** Actions that have no details of their own in most entries. */
export type Optional =
  | 'staff.viewed'
  | 'document.revoked'
  | 'grant.revoked'
  | 'grant.reinstated'
  | 'recipient.blocked'
  | 'code.requested'
  | 'key.destroyed'
  | 'document.opened'
  | 'page.shown'
  | 'text.copied'
  | 'comment.made'
  | 'text.searched'
  | 'document.printed'
  | 'document.kept'
  | 'revision.sent';
