import type { DispatchId, DocumentId, GroupId, RecipientId } from '@/core/base/ids';

/**
 * How far a cut goes: everything of a person, of an organisation, of a dispatch, of what was given
 * to a group as such, or of a person on one document.
 */
export type Scope =
  | { readonly kind: 'person'; readonly recipient: RecipientId }
  | { readonly kind: 'organisation'; readonly organisation: string }
  | { readonly kind: 'dispatch'; readonly dispatch: DispatchId }
  | { readonly kind: 'group'; readonly group: GroupId }
  | {
      readonly kind: 'person-on-document';
      readonly recipient: RecipientId;
      readonly document: DocumentId;
    };
