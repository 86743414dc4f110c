import type { StillReadable, stillReadableInput } from '@/contracts/still-readable';
import type {
  beginLocalInput,
  finishLocalInput,
  LocalBegun,
  LocalCover,
  localCoverInput,
} from '@/contracts/local-document';
import type { z } from 'zod';
import type {
  HasLeft,
  RevokeEffect,
  RevokePreview,
  RevokeResult,
  blockInput,
  destroyKeyInput,
  leftInput,
  scopedInput,
  readingAidsInput,
} from '@/contracts/access';
import type { AccessThen, accessThenInput } from '@/contracts/access-then';
import type { AddedToPeople, addToPeopleInput } from '@/contracts/add-people';
import type { CeilingChanged, CeilingImpact, ceilingInput } from '@/contracts/ceiling';
import type { DefaultsChanged, DefaultsImpact, defaultsInput } from '@/contracts/defaults';
import type { demoInput } from '@/contracts/demo';
import type {
  ChangeGrantsResult,
  HandedOver,
  SendResult,
  addDocumentsInput,
  addPeopleInput,
  changeGrantsInput,
  dispatchInput,
  dispatchPageInput,
  grantsInput,
  heldInput,
  mailAgainInput,
  linkInput,
  revokeGrantsInput,
} from '@/contracts/dispatch';
import type {
  BeginUploadResult,
  DocumentRow,
  FileLooked,
  Filed,
  HalfUpload,
  beginUploadInput,
  cancelUploadInput,
  fileInput,
  listDocumentsInput,
  revokeDocumentInput,
} from '@/contracts/document';
import type { DraftKept, draftInput, keepDraftInput } from '@/contracts/draft';
import type { readingAsked, ReadingRecord } from '@/contracts/opens';
import type {
  answerCommentInput,
  documentCommentsInput,
  DocumentComments,
  seenByInput,
  staffCommentInput,
} from '@/contracts/comments';
import type { PaperRegister, notePaperInput, paperInput } from '@/contracts/paper';
import type { Revisions, answerRevisionInput, tellInput } from '@/contracts/revisions';
import type { documentInput } from '@/contracts/document';
import type { Explained, explainInput, SeenAs, supposeInput } from '@/contracts/explain';
import type { FileFound, inspectInput } from '@/contracts/files';
import type { changeFolderInput, folderInput, makeFolderInput } from '@/contracts/folder';
import type { ImpactFound } from '@/contracts/impact';
import type {
  Destroyed,
  Drill,
  answerConsentInput,
  destroyKeysInput,
  drillInput,
  recoveryKeyInput,
  twoPeopleInput,
} from '@/contracts/keys';
import type {
  GiveResult,
  Lacking,
  giveInput,
  giveToInput,
  lackingInput,
  unreachedInput,
} from '@/contracts/lacking';
import type {
  FacetCount,
  LedgerPage,
  LedgerValue,
  facetInput,
  openEntriesInput,
  valuesInput,
} from '@/contracts/ledger';
import type { closeMailboxInput } from '@/contracts/mailroom';
import type { markingInput, putMarkingInput } from '@/contracts/marking';
import type { nothing } from '@/contracts/nothing';
import type { noticeChange } from '@/contracts/notices';
import type { Brought, Imported, importGrantsInput, importTermsInput } from '@/contracts/odrl';
import type { setUpInput } from '@/contracts/organisation';
import type {
  choosePasswordInput,
  confirmFactorInput,
  passwordMailInput,
  proofInput,
  signInInput,
} from '@/contracts/identity';
import type { Page } from '@/contracts/page';
import type {
  MembersChanged,
  PeoplePage,
  addressInput,
  changeMembersInput,
  changePersonInput,
  groupInput,
  listPeopleInput,
  personIdInput,
  putGroupInput,
} from '@/contracts/people';
import type { PeoplePreview, importPeopleInput } from '@/contracts/people-exchange';
import type {
  AddresseesChecked,
  PeopleAt,
  Suggestion,
  checkRecipientsInput,
  peopleAtInput,
  suggestInput,
} from '@/contracts/recipients';
import type { MailPreview, previewMailInput } from '@/contracts/message';
import type { SavedTexts, putTextInput, textInput } from '@/contracts/saved-texts';
import type { answerInput, askBackInput } from '@/contracts/requests';
import type { NoticeView, putNoticeInput } from '@/contracts/reader-notice';
import type { deviceOfPersonInput } from '@/contracts/sent';
import type { RuleChanged, putRuleInput } from '@/contracts/rules';
import type { previewTermsInput, putTermsInput, termsIdInput } from '@/contracts/saved-terms';
import type { keepViewInput, viewInput } from '@/contracts/views';
import type { workChange } from '@/contracts/settings';
import type {
  FactorOffer,
  SenderLimitsChanged,
  changeStaffInput,
  inviteAgainInput,
  inviteInput,
  senderLimitsInput,
} from '@/contracts/staff';
import type { DocumentId, DraftId, GroupId } from '@/core/base/ids';

/** A value whose lists and members nobody changes. */
export type Frozen<T> = T extends readonly (infer E)[]
  ? readonly Frozen<E>[]
  : T extends object
    ? { readonly [K in keyof T]: Frozen<T[K]> }
    : T;

/** What a route takes and answers. */
type Call<S extends z.ZodType, A> = { readonly takes: Frozen<z.input<S>>; readonly gives: A };
/** It was done; whatever else the answer says, no page reads. */
type Done = Readonly<Record<string, unknown>>;

/**
 * The routes that pages of staff call: what each takes, by the schema that checks it, and what it
 * answers. Types alone: no schema reaches a page by them. A part of the path after a colon is taken
 * from the input. `tests/types/api.ts` holds the route handlers to it.
 */
export type Api = {
  'POST /api/v1/access-then': Call<typeof accessThenInput, AccessThen>;
  'POST /api/v1/access/preview': Call<typeof scopedInput, RevokePreview>;
  'POST /api/v1/access/revoke': Call<typeof scopedInput, RevokeResult>;
  'POST /api/v1/ceilings/preview': Call<typeof ceilingInput, CeilingImpact>;
  'POST /api/v1/ceilings': Call<typeof ceilingInput, CeilingChanged>;
  'POST /api/v1/defaults/preview': Call<typeof defaultsInput, DefaultsImpact>;
  'POST /api/v1/defaults': Call<typeof defaultsInput, DefaultsChanged>;
  'POST /api/v1/demo': Call<typeof demoInput, unknown>;
  'POST /api/v1/message/preview': Call<typeof previewMailInput, MailPreview>;
  'POST /api/v1/texts': Call<typeof putTextInput, SavedTexts>;
  'DELETE /api/v1/texts/:id': Call<typeof textInput, SavedTexts>;
  'POST /api/v1/people/add': Call<typeof addToPeopleInput, AddedToPeople>;
  'POST /api/v1/mailboxes': Call<typeof closeMailboxInput, unknown>;
  'POST /api/v1/dispatches/:id/links': Call<typeof linkInput, { readonly link: string }>;
  'POST /api/v1/dispatches/:id/links/off': Call<typeof linkInput, unknown>;
  'POST /api/v1/dispatches/:id/mail-again': Call<typeof mailAgainInput, unknown>;
  'GET /api/v1/dispatches/:id/mail': Call<
    typeof dispatchPageInput,
    { readonly mail: readonly HandedOver[] }
  >;
  'POST /api/v1/dispatches/:id/stop-mail': Call<
    typeof dispatchPageInput,
    { readonly stopped: number }
  >;
  'POST /api/v1/dispatches/:id/documents': Call<typeof addDocumentsInput, unknown>;
  'POST /api/v1/dispatches/:id/people': Call<typeof addPeopleInput, unknown>;
  'POST /api/v1/dispatches': Call<typeof dispatchInput, SendResult>;
  'GET /api/v1/documents/:id/comments': Call<typeof documentCommentsInput, DocumentComments>;
  'POST /api/v1/documents/:id/comments': Call<typeof answerCommentInput, DocumentComments>;
  'POST /api/v1/documents/:id/reading-aids': Call<typeof readingAidsInput, unknown>;
  'GET /api/v1/documents/:id/revisions': Call<typeof documentInput, Revisions>;
  'POST /api/v1/documents/:id/revisions': Call<typeof answerRevisionInput, Revisions>;
  'POST /api/v1/documents/:id/tell': Call<typeof tellInput, { readonly people: number }>;
  'GET /api/v1/documents/:id/paper': Call<typeof paperInput, PaperRegister>;
  'POST /api/v1/documents/:id/paper': Call<typeof notePaperInput, PaperRegister>;
  'POST /api/v1/comments/:comment': Call<typeof staffCommentInput, DocumentComments>;
  'POST /api/v1/documents/:id/seen-by': Call<typeof seenByInput, DocumentComments>;
  'POST /api/v1/documents/:id/destroy-key': Call<typeof destroyKeyInput, Done>;
  'POST /api/v1/documents/:id/reinstate': Call<typeof revokeDocumentInput, Done>;
  'POST /api/v1/documents/:id/revoke': Call<typeof revokeDocumentInput, Done>;
  'GET /api/v1/documents/:id/unreached': Call<typeof unreachedInput, Lacking>;
  'POST /api/v1/documents/:id/unreached': Call<typeof giveToInput, GiveResult>;
  'POST /api/v1/documents/destroy-keys': Call<typeof destroyKeysInput, Destroyed>;
  'POST /api/v1/documents/file/preview': Call<typeof fileInput, ImpactFound>;
  'POST /api/v1/documents/file': Call<typeof fileInput, Filed>;
  'GET /api/v1/documents': Call<typeof listDocumentsInput, Page<DocumentRow>>;
  'DELETE /api/v1/drafts/:id': Call<typeof draftInput, Done>;
  'POST /api/v1/drafts': Call<typeof keepDraftInput, DraftKept>;
  'POST /api/v1/explain': Call<typeof explainInput, Explained>;
  'POST /api/v1/explain/seen': Call<typeof explainInput, SeenAs>;
  'POST /api/v1/explain/supposed': Call<typeof supposeInput, Explained>;
  'POST /api/v1/files/inspect': Call<typeof inspectInput, { readonly found: FileFound | null }>;
  'POST /api/v1/folders/:id': Call<typeof changeFolderInput, Done>;
  'DELETE /api/v1/folders/:id': Call<typeof folderInput, Done>;
  'POST /api/v1/folders': Call<typeof makeFolderInput, unknown>;
  'POST /api/v1/grants/change': Call<typeof changeGrantsInput, ChangeGrantsResult>;
  'POST /api/v1/grants/reinstate': Call<typeof revokeGrantsInput, { readonly changed: number }>;
  'POST /api/v1/grants/revoke/preview': Call<typeof grantsInput, RevokeEffect>;
  'POST /api/v1/grants/revoke': Call<typeof revokeGrantsInput, { readonly changed: number }>;
  'GET /api/v1/groups/:id/members': Call<
    typeof groupInput,
    { readonly addresses: readonly string[] }
  >;
  'POST /api/v1/groups/:id/members': Call<typeof changeMembersInput, MembersChanged>;
  'DELETE /api/v1/groups/:id': Call<typeof groupInput, unknown>;
  'POST /api/v1/groups': Call<typeof putGroupInput, { readonly id: GroupId }>;
  'GET /api/v1/still-readable': Call<typeof stillReadableInput, StillReadable>;
  'GET /api/v1/ledger/reading': Call<typeof readingAsked, ReadingRecord>;
  'GET /api/v1/ledger/facet': Call<typeof facetInput, { readonly values: readonly FacetCount[] }>;
  'GET /api/v1/ledger/values': Call<
    typeof valuesInput,
    { readonly values: readonly LedgerValue[] }
  >;
  'DELETE /api/v1/views/:id': Call<typeof viewInput, Done>;
  'POST /api/v1/views': Call<typeof keepViewInput, unknown>;
  'GET /api/v1/ledger/within/:licence': Call<
    typeof openEntriesInput,
    Pick<LedgerPage, 'rows' | 'named'>
  >;
  'DELETE /api/v1/markings/:id': Call<typeof markingInput, Done>;
  'POST /api/v1/markings': Call<typeof putMarkingInput, unknown>;
  'POST /api/v1/password/request': Call<typeof passwordMailInput, Done>;
  'POST /api/v1/password': Call<typeof choosePasswordInput, Done>;
  'DELETE /api/v1/held/:id': Call<typeof heldInput, { readonly draft: DraftId | null }>;
  'POST /api/v1/held/:id/now': Call<typeof heldInput, Done>;
  'POST /api/v1/people/:id/addresses': Call<typeof addressInput, Done>;
  'DELETE /api/v1/people/:id/addresses': Call<typeof personIdInput, Done>;
  'POST /api/v1/people/:id/block': Call<typeof blockInput, Done>;
  'DELETE /api/v1/people/:id/devices/:device': Call<typeof deviceOfPersonInput, Done>;
  'DELETE /api/v1/people/:id/passkeys': Call<typeof personIdInput, Done>;
  'GET /api/v1/people/:id/lacking': Call<typeof lackingInput, Lacking>;
  'POST /api/v1/people/:id/lacking': Call<typeof giveInput, GiveResult>;
  'POST /api/v1/people/:id/left': Call<typeof leftInput, HasLeft>;
  'POST /api/v1/people/:id': Call<typeof changePersonInput, Done>;
  'POST /api/v1/people/exchange/preview': Call<typeof importPeopleInput, PeoplePreview>;
  'GET /api/v1/people': Call<typeof listPeopleInput, PeoplePage>;
  'GET /api/v1/recipients/at': Call<typeof peopleAtInput, PeopleAt>;
  'GET /api/v1/recipients/suggest': Call<
    typeof suggestInput,
    { readonly found: readonly Suggestion[] }
  >;
  'POST /api/v1/recipients/check': Call<typeof checkRecipientsInput, AddresseesChecked>;
  'POST /api/v1/requests/answer': Call<typeof answerInput, unknown>;
  'POST /api/v1/requests/ask-back': Call<typeof askBackInput, unknown>;
  'POST /api/v1/rules': Call<typeof putRuleInput, RuleChanged>;
  'POST /api/v1/set-up': Call<typeof setUpInput, Done>;
  'POST /api/v1/settings/consents/:id': Call<typeof answerConsentInput, unknown>;
  'POST /api/v1/settings/drill/failed': Call<typeof nothing, Done>;
  'GET /api/v1/settings/drill': Call<typeof nothing, Drill>;
  'POST /api/v1/settings/drill': Call<typeof drillInput, Done>;
  'POST /api/v1/settings/recovery': Call<typeof recoveryKeyInput, Done>;
  'POST /api/v1/settings/notice': Call<typeof putNoticeInput, NoticeView>;
  'POST /api/v1/settings/two-people': Call<typeof twoPeopleInput, unknown>;
  'POST /api/v1/settings/work': Call<typeof workChange, unknown>;
  'POST /api/v1/sign-in': Call<typeof signInInput, Done>;
  'POST /api/v1/sign-out': Call<typeof nothing, Done>;
  'POST /api/v1/staff/:id/invitation': Call<typeof inviteAgainInput, Done>;
  'POST /api/v1/staff/:id/limits': Call<typeof senderLimitsInput, SenderLimitsChanged>;
  'POST /api/v1/staff/:id': Call<typeof changeStaffInput, Done>;
  'POST /api/v1/staff': Call<typeof inviteInput, unknown>;
  'DELETE /api/v1/terms/:id': Call<typeof termsIdInput, Done>;
  'POST /api/v1/terms/odrl/preview': Call<
    typeof importTermsInput,
    { readonly brought: readonly Brought[] }
  >;
  'POST /api/v1/terms/odrl': Call<typeof importTermsInput, Imported>;
  'POST /api/v1/grants/odrl/preview': Call<
    typeof importTermsInput,
    { readonly brought: readonly Brought[] }
  >;
  'POST /api/v1/grants/odrl': Call<typeof importGrantsInput, Imported>;
  'POST /api/v1/terms/preview': Call<typeof previewTermsInput, ImpactFound>;
  'POST /api/v1/terms': Call<typeof putTermsInput, unknown>;
  'DELETE /api/v1/uploads/:id': Call<typeof cancelUploadInput, Done>;
  'POST /api/v1/uploads': Call<typeof beginUploadInput, BeginUploadResult>;
  'POST /api/v1/uploads/:id/look': Call<typeof cancelUploadInput, FileLooked>;
  'POST /api/v1/local-documents': Call<typeof beginLocalInput, LocalBegun>;
  'POST /api/v1/local-documents/:id/cover': Call<typeof localCoverInput, LocalCover>;
  'POST /api/v1/local-documents/:id/finish': Call<
    typeof finishLocalInput,
    { readonly id: DocumentId }
  >;
  'GET /api/v1/uploads': Call<typeof nothing, readonly HalfUpload[]>;
  'POST /api/v1/you/factor/begin': Call<typeof nothing, FactorOffer>;
  'POST /api/v1/you/factor': Call<typeof confirmFactorInput, Done>;
  'DELETE /api/v1/you/factor': Call<typeof nothing, Done>;
  'POST /api/v1/you/notices': Call<typeof noticeChange, unknown>;
  'POST /api/v1/you/proof': Call<typeof proofInput, Done>;
};
export type ApiRoute = keyof Api;
