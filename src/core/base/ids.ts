import type { RandomSource } from '@/core/base/random';

const prefixes = {
  document: 'doc',
  version: 'ver',
  upload: 'upl',
  recipient: 'rcp',
  dispatch: 'dsp',
  grant: 'grt',
  link: 'lnk',
  challenge: 'chl',
  device: 'dev',
  passkey: 'psk',
  session: 'ses',
  licence: 'lic',
  message: 'msg',
  staff: 'stf',
  draft: 'dft',
  checkpoint: 'chk',
  request: 'req',
  folder: 'fld',
  marking: 'mrk',
  terms: 'trm',
  view: 'viw',
  consent: 'cns',
  group: 'grp',
  held: 'hld',
  text: 'txt',
  comment: 'cmt',
  paper: 'ppr',
  revision: 'rev',
  aids: 'aid',
} as const;

export type IdKind = keyof typeof prefixes;
/** An id says what it names: `grt_…` is a grant. */
export type Id<K extends IdKind> = `${(typeof prefixes)[K]}_${string}`;
export type DocumentId = Id<'document'>;
export type VersionId = Id<'version'>;
export type UploadId = Id<'upload'>;
export type RecipientId = Id<'recipient'>;
export type DispatchId = Id<'dispatch'>;
export type GrantId = Id<'grant'>;
export type LinkId = Id<'link'>;
export type DeviceId = Id<'device'>;
export type LicenceId = Id<'licence'>;
export type StaffId = Id<'staff'>;
export type DraftId = Id<'draft'>;
export type RequestId = Id<'request'>;
export type FolderId = Id<'folder'>;
export type MarkingId = Id<'marking'>;
export type TermsId = Id<'terms'>;
export type ViewId = Id<'view'>;
export type ConsentId = Id<'consent'>;
export type GroupId = Id<'group'>;
export type HeldId = Id<'held'>;
export type TextId = Id<'text'>;
export type CommentId = Id<'comment'>;
export type PaperId = Id<'paper'>;
export type RevisionId = Id<'revision'>;

// Crockford's base 32 without I, L, O, U: survives being read aloud.
const alphabet = '0123456789abcdefghjkmnpqrstvwxyz';

/** `length` random characters of 5 bits each, from `random`. */
export function randomText(length: number, random: RandomSource): string {
  return Array.from(random(length), (byte) => alphabet.charAt(byte & 31)).join('');
}

/** A new id of 100 random bits. */
export function newId<K extends IdKind>(kind: K, random: RandomSource): Id<K> {
  return `${prefixes[kind]}_${randomText(20, random)}`;
}

/** Whether `text` has the shape of an id of this kind. */
export function isId<K extends IdKind>(kind: K, text: string): text is Id<K> {
  return new RegExp(`^${prefixes[kind]}_[0-9a-hjkmnp-tv-z]{20}$`).test(text);
}
