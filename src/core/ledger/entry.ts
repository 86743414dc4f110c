import type {
  DeviceId,
  DispatchId,
  DocumentId,
  GrantId,
  LicenceId,
  RecipientId,
  VersionId,
} from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { toUtcText } from '@/core/base/time';
import { canonicalJson, type Json } from '@/core/ledger/canonical';
import type { Details, Optional } from '@/core/ledger/details';
import { commitmentOf, type PersonalFields } from '@/core/ledger/commitment';
import type { Hash } from '@/core/ledger/hash';

/** Everything that is recorded, named by what happened. */
export const ACTIONS = [
  'organisation.set-up',
  'staff.signed-in',
  'staff.signed-out',
  'staff.viewed',
  'staff.invited',
  'staff.changed',
  'staff.password-chosen',
  'staff.proven',
  'staff.factor-changed',
  'document.protected',
  'document.revised',
  'document.filed',
  'document.revoked',
  'document.reinstated',
  'dispatch.sent',
  'dispatch.held',
  'dispatch.stopped',
  'dispatch.hastened',
  'dispatch.mailed-again',
  'grant.given',
  'grant.changed',
  'grant.revoked',
  'grant.reinstated',
  'mail.delivered',
  'mail.failed',
  'mail.returned',
  'mail.stopped',
  'recipient.blocked',
  'recipient.unblocked',
  'recipient.changed',
  'people.imported',
  'people.exported',
  'request.asked',
  'request.answered',
  'request.asked-back',
  'request.replied',
  'settings.changed',
  'ceiling.changed',
  'link.visited',
  'link.replaced',
  'link.switched-off',
  'code.requested',
  'code.entered',
  'key.unwrapped',
  'key.given',
  'key.destroyed',
  'key.rotated',
  'destruction.asked',
  'destruction.answered',
  'consent.asked',
  'consent.answered',
  'recovery.changed',
  'recovery.tried',
  'backup.made',
  'service.restored',
  'document.opened',
  'document.opened-offline',
  'document.checked',
  'page.shown',
  'text.sent',
  'text.copied',
  'comment.made',
  'comment.changed',
  'comments.shared',
  'comments.exported',
  'text.searched',
  'document.printed',
  'print.noted',
  'aids.switched',
  'device.ended',
  'passkey.made',
  'passkey.used',
  'passkey.removed',
  'notice.accepted',
  'revision.sent',
  'revision.answered',
  'version.told',
  'document.kept',
  'file.taken',
  'file.inspected',
  'ledger.exported',
  'ledger.verified',
  'seal.broken',
  'demo.changed',
] as const;
export type Action = (typeof ACTIONS)[number];

export const OUTCOMES = ['done', 'granted', 'refused', 'failed'] as const;
export type Outcome = (typeof OUTCOMES)[number];

type Actor = {
  readonly kind: 'staff' | 'recipient' | 'stranger' | 'system';
  readonly id: string | null;
};

type About = {
  readonly outcome: Outcome;
  readonly actor: Actor;
  readonly occurredAt: Moment;
  /** When the service heard of it, where that is later than when it happened. */
  readonly receivedAt?: Moment;
  /** The code of a refusal or failure. */
  readonly reason?: string;
  /** What decided: a grant's id, `document-state`, … */
  readonly rule?: string;
  readonly document?: DocumentId;
  readonly version?: VersionId;
  readonly recipient?: RecipientId;
  readonly grant?: GrantId;
  readonly dispatch?: DispatchId;
  readonly device?: DeviceId;
  readonly licence?: LicenceId;
  /** Facts about a person: only salted commitments to them enter the chain. */
  readonly personal?: PersonalFields;
};
/** Facts that name no person, beyond the envelope. */
type WithDetails<A extends Action> = A extends Optional
  ? { readonly details?: Details[A] }
  : A extends keyof Details
    ? { readonly details: Details[A] }
    : { readonly details?: Readonly<Record<string, never>> };

/** What a service hands over to be recorded: to each action, what it has to tell. */
export type LedgerEventOf<A extends Action> = About & { readonly action: A } & WithDetails<A>;
export type LedgerEvent = { [A in Action]: LedgerEventOf<A> }[Action];

/** The text that is stored, hashed and verified, as parsed back. */
export type Entry = {
  readonly v: 1;
  readonly sequence: number;
  readonly occurredAt: string;
  readonly receivedAt: string;
  readonly action: Action;
  readonly outcome: Outcome;
  readonly actor: Actor;
  readonly reason: string | null;
  readonly rule: string | null;
  readonly document: DocumentId | null;
  readonly version: VersionId | null;
  readonly recipient: RecipientId | null;
  readonly grant: GrantId | null;
  readonly dispatch: DispatchId | null;
  readonly device: DeviceId | null;
  readonly licence: LicenceId | null;
  readonly details: Readonly<Record<string, Json>>;
  readonly personal: Readonly<Record<string, string>>;
  /** Hash of the entry before, in hex; 64 zeros for the first. */
  readonly previous: string;
};

/** Position in the chain at which an entry is written. */
export type Place = { readonly sequence: number; readonly previous: string };

/** What an event says nothing about is null in the chain. */
function orNull<T>(said: T | undefined): T | null {
  return said ?? null;
}

/** The canonical text of one entry. `salts` has one salt for each personal field. */
export function writeEntry(
  event: LedgerEvent,
  place: Place,
  salts: Readonly<Record<string, Uint8Array>>,
  hash: Hash,
): string {
  const personal: Record<string, string> = {};
  for (const [field, value] of Object.entries(event.personal ?? {}))
    personal[field] = commitmentOf(field, value, salts[field], hash);
  // Members stand in the order of the canonical text, which spares sorting them for every entry.
  const entry: Entry = {
    action: event.action,
    actor: { id: event.actor.id, kind: event.actor.kind },
    details: event.details ?? {},
    device: orNull(event.device),
    dispatch: orNull(event.dispatch),
    document: orNull(event.document),
    grant: orNull(event.grant),
    licence: orNull(event.licence),
    occurredAt: toUtcText(event.occurredAt),
    outcome: event.outcome,
    personal,
    previous: place.previous,
    reason: orNull(event.reason),
    receivedAt: toUtcText(event.receivedAt ?? event.occurredAt),
    recipient: orNull(event.recipient),
    rule: orNull(event.rule),
    sequence: place.sequence,
    v: 1,
    version: orNull(event.version),
  };
  return canonicalJson(entry);
}
