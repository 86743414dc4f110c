import type { DocumentId, StaffId } from '@/core/base/ids';

/** What somebody on the staff can be told of what is theirs. */
export const NOTICE_KINDS = ['first-open', 'refused', 'new-place', 'new-device', 'ending'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];
/** When they are told. */
export const RHYTHMS = ['never', 'at-once', 'daily'] as const;
export type Rhythm = (typeof RHYTHMS)[number];
export type NoticeChoices = Readonly<Record<NoticeKind, Rhythm>>;

/** An open or a refused one, with what is known of earlier ones. */
export type Opened = {
  readonly sequence: number;
  readonly at: number;
  readonly granted: boolean;
  readonly reason: string;
  readonly who: string;
  readonly organisation: string;
  /** Whose link it was, where somebody else came by it. */
  readonly linkOf: string;
  readonly place: string;
  readonly document: DocumentId;
  readonly title: string;
  readonly dispatch: string;
  /** Who answers for the document, and who sent the dispatch. */
  readonly answerable: readonly (StaffId | null)[];
  /** They had never opened it before. */
  readonly first: boolean;
  /** Their organisation had opened before, and never from there. */
  readonly elsewhere: boolean;
  /** They had opened before, and never on this device. */
  readonly onNewDevice: boolean;
};

/** What an open is told as: one may be several. */
export function kindsOf({ granted, first, elsewhere, onNewDevice }: Opened): NoticeKind[] {
  if (!granted) return ['refused'];
  return [
    ...(first ? ['first-open' as const] : []),
    ...(elsewhere ? ['new-place' as const] : []),
    ...(onNewDevice ? ['new-device' as const] : []),
  ];
}

/**
 * Which of these opens somebody is told of who chose these kinds; `seen`: of each kind, the entry
 * up to which they were told.
 */
export function toldOf(
  opened: readonly Opened[],
  staff: StaffId,
  kinds: readonly NoticeKind[],
  seen: Readonly<Record<NoticeKind, number>>,
): Opened[] {
  return opened.filter(
    (each) =>
      each.answerable.includes(staff) &&
      kindsOf(each).some((kind) => kinds.includes(kind) && each.sequence > seen[kind]),
  );
}

/** The kinds that somebody chose to be told of in this rhythm. */
export function kindsIn(choices: NoticeChoices, rhythm: Rhythm): NoticeKind[] {
  return NOTICE_KINDS.filter((kind) => choices[kind] === rhythm);
}
