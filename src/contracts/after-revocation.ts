import { z } from 'zod';
import type { DispatchId, DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type { AddresseeKind } from '@/core/policy/addressee';
import { dispatchId } from '@/contracts/dispatch';
import { documentId } from '@/contracts/document';
import type { RevokeEffect, WayIn } from '@/contracts/access';

/** After which revocation: of what a dispatch gave, or of a document. */
export const afterInput = z.union([
  z.object({ dispatch: dispatchId }),
  z.object({ document: documentId }),
]);
export type AfterInput = z.infer<typeof afterInput>;

/** What of a document somebody took that no revocation reaches, as the ledger has it. */
export type Copies = {
  readonly prints: number;
  readonly keptAt: number | null;
  readonly textSent: boolean;
  readonly textCopied: boolean;
  readonly inTheClear: boolean;
};

/** One addressee on one document whose access was pulled back. Moments in ms. */
export type AfterRow = {
  readonly recipient: RecipientId;
  readonly kind: AddresseeKind;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly document: DocumentId;
  readonly title: string;
  readonly reference: string;
  readonly dispatch: string;
  /** Since when they are shut out; null: they are not. */
  readonly since: number | null;
  readonly by: string;
  readonly reason: string;
  /** How they still come in, and until when; null: no end is set. */
  readonly ways: readonly WayIn[];
  readonly until: number | null;
  /** Until when they may go on reading what they opened, without asking; null: they may not. */
  readonly offlineUntil: number | null;
  readonly tries: number;
  readonly lastTry: number | null;
  /** How often others tried by their link, or, of what many were given, anybody who is not named here. */
  readonly triesByOthers: number;
  readonly copies: Copies;
  /** What is revoked and may be taken back by the viewer. */
  readonly undo: readonly GrantId[];
};

export type AfterPage = {
  readonly about: {
    readonly dispatch: DispatchId | null;
    readonly document: DocumentId | null;
    readonly name: string;
    readonly reference: string;
  };
  readonly rows: readonly AfterRow[];
  /** Open links of other dispatches by which anyone who has one still reads. */
  readonly openLinks: RevokeEffect['openLinks'];
  /** The document itself is revoked, so that reinstating it is the way back. */
  readonly documentRevoked: boolean;
  readonly keyDestroyed: boolean;
  /** Whether the viewer may reinstate the document. */
  readonly mayReinstate: boolean;
};
