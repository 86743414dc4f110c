// Every route that a page calls is handled by what its contract says: checked by the compiler alone,
// which names the route that differs.
import type { z } from 'zod';
import type { Api, ApiRoute, Frozen } from '@/contracts/api';
import type { Handler } from '@/server/http/handle';

/** `true` where a handler takes what the contract of its route says, and gives it. */
type Agrees<R extends ApiRoute, H> =
  H extends Handler<infer S, infer G>
    ? [Frozen<z.input<S>>] extends [Api[R]['takes']]
      ? [Api[R]['takes']] extends [Frozen<z.input<S>>]
        ? [G] extends [Api[R]['gives']]
          ? true
          : 'gives another answer'
        : 'takes more'
      : 'takes less'
    : 'is no handler';

type Handled = {
  'POST /api/v1/access-then': typeof import('@/app/api/v1/access-then/route').POST;
  'POST /api/v1/access/preview': typeof import('@/app/api/v1/access/preview/route').POST;
  'POST /api/v1/access/revoke': typeof import('@/app/api/v1/access/revoke/route').POST;
  'POST /api/v1/ceilings/preview': typeof import('@/app/api/v1/ceilings/preview/route').POST;
  'POST /api/v1/ceilings': typeof import('@/app/api/v1/ceilings/route').POST;
  'POST /api/v1/defaults/preview': typeof import('@/app/api/v1/defaults/preview/route').POST;
  'POST /api/v1/defaults': typeof import('@/app/api/v1/defaults/route').POST;
  'POST /api/v1/demo': typeof import('@/app/api/v1/demo/route').POST;
  'POST /api/v1/message/preview': typeof import('@/app/api/v1/message/preview/route').POST;
  'POST /api/v1/texts': typeof import('@/app/api/v1/texts/route').POST;
  'DELETE /api/v1/texts/:id': typeof import('@/app/api/v1/texts/[id]/route').DELETE;
  'POST /api/v1/people/add': typeof import('@/app/api/v1/people/add/route').POST;
  'POST /api/v1/mailboxes': typeof import('@/app/api/v1/mailboxes/route').POST;
  'POST /api/v1/dispatches/:id/links': typeof import('@/app/api/v1/dispatches/[id]/links/route').POST;
  'POST /api/v1/dispatches/:id/links/off': typeof import('@/app/api/v1/dispatches/[id]/links/off/route').POST;
  'POST /api/v1/dispatches/:id/mail-again': typeof import('@/app/api/v1/dispatches/[id]/mail-again/route').POST;
  'GET /api/v1/dispatches/:id/mail': typeof import('@/app/api/v1/dispatches/[id]/mail/route').GET;
  'POST /api/v1/dispatches/:id/stop-mail': typeof import('@/app/api/v1/dispatches/[id]/stop-mail/route').POST;
  'POST /api/v1/dispatches/:id/documents': typeof import('@/app/api/v1/dispatches/[id]/documents/route').POST;
  'POST /api/v1/dispatches/:id/people': typeof import('@/app/api/v1/dispatches/[id]/people/route').POST;
  'POST /api/v1/dispatches': typeof import('@/app/api/v1/dispatches/route').POST;
  'POST /api/v1/documents/:id/destroy-key': typeof import('@/app/api/v1/documents/[id]/destroy-key/route').POST;
  'POST /api/v1/documents/:id/reinstate': typeof import('@/app/api/v1/documents/[id]/reinstate/route').POST;
  'POST /api/v1/documents/:id/revoke': typeof import('@/app/api/v1/documents/[id]/revoke/route').POST;
  'GET /api/v1/documents/:id/unreached': typeof import('@/app/api/v1/documents/[id]/unreached/route').GET;
  'POST /api/v1/documents/:id/unreached': typeof import('@/app/api/v1/documents/[id]/unreached/route').POST;
  'POST /api/v1/documents/destroy-keys': typeof import('@/app/api/v1/documents/destroy-keys/route').POST;
  'POST /api/v1/documents/file/preview': typeof import('@/app/api/v1/documents/file/preview/route').POST;
  'POST /api/v1/documents/file': typeof import('@/app/api/v1/documents/file/route').POST;
  'GET /api/v1/documents': typeof import('@/app/api/v1/documents/route').GET;
  'DELETE /api/v1/drafts/:id': typeof import('@/app/api/v1/drafts/[id]/route').DELETE;
  'POST /api/v1/drafts': typeof import('@/app/api/v1/drafts/route').POST;
  'GET /api/v1/still-readable': typeof import('@/app/api/v1/still-readable/route').GET;
  'GET /api/v1/ledger/reading': typeof import('@/app/api/v1/ledger/reading/route').GET;
  'GET /api/v1/documents/:id/comments': typeof import('@/app/api/v1/documents/[id]/comments/route').GET;
  'POST /api/v1/documents/:id/comments': typeof import('@/app/api/v1/documents/[id]/comments/route').POST;
  'POST /api/v1/documents/:id/reading-aids': typeof import('@/app/api/v1/documents/[id]/reading-aids/route').POST;
  'GET /api/v1/documents/:id/revisions': typeof import('@/app/api/v1/documents/[id]/revisions/route').GET;
  'POST /api/v1/documents/:id/revisions': typeof import('@/app/api/v1/documents/[id]/revisions/route').POST;
  'POST /api/v1/documents/:id/tell': typeof import('@/app/api/v1/documents/[id]/tell/route').POST;
  'GET /api/v1/documents/:id/paper': typeof import('@/app/api/v1/documents/[id]/paper/route').GET;
  'POST /api/v1/documents/:id/paper': typeof import('@/app/api/v1/documents/[id]/paper/route').POST;
  'POST /api/v1/comments/:comment': typeof import('@/app/api/v1/comments/[comment]/route').POST;
  'POST /api/v1/documents/:id/seen-by': typeof import('@/app/api/v1/documents/[id]/seen-by/route').POST;
  'POST /api/v1/explain/seen': typeof import('@/app/api/v1/explain/seen/route').POST;
  'POST /api/v1/explain/supposed': typeof import('@/app/api/v1/explain/supposed/route').POST;
  'POST /api/v1/explain': typeof import('@/app/api/v1/explain/route').POST;
  'POST /api/v1/files/inspect': typeof import('@/app/api/v1/files/inspect/route').POST;
  'POST /api/v1/folders/:id': typeof import('@/app/api/v1/folders/[id]/route').POST;
  'DELETE /api/v1/folders/:id': typeof import('@/app/api/v1/folders/[id]/route').DELETE;
  'POST /api/v1/folders': typeof import('@/app/api/v1/folders/route').POST;
  'POST /api/v1/grants/change': typeof import('@/app/api/v1/grants/change/route').POST;
  'POST /api/v1/grants/reinstate': typeof import('@/app/api/v1/grants/reinstate/route').POST;
  'POST /api/v1/grants/revoke/preview': typeof import('@/app/api/v1/grants/revoke/preview/route').POST;
  'POST /api/v1/grants/revoke': typeof import('@/app/api/v1/grants/revoke/route').POST;
  'GET /api/v1/groups/:id/members': typeof import('@/app/api/v1/groups/[id]/members/route').GET;
  'POST /api/v1/groups/:id/members': typeof import('@/app/api/v1/groups/[id]/members/route').POST;
  'DELETE /api/v1/groups/:id': typeof import('@/app/api/v1/groups/[id]/route').DELETE;
  'POST /api/v1/groups': typeof import('@/app/api/v1/groups/route').POST;
  'GET /api/v1/ledger/facet': typeof import('@/app/api/v1/ledger/facet/route').GET;
  'GET /api/v1/ledger/values': typeof import('@/app/api/v1/ledger/values/route').GET;
  'DELETE /api/v1/views/:id': typeof import('@/app/api/v1/views/[id]/route').DELETE;
  'POST /api/v1/views': typeof import('@/app/api/v1/views/route').POST;
  'GET /api/v1/ledger/within/:licence': typeof import('@/app/api/v1/ledger/within/[licence]/route').GET;
  'DELETE /api/v1/markings/:id': typeof import('@/app/api/v1/markings/[id]/route').DELETE;
  'POST /api/v1/markings': typeof import('@/app/api/v1/markings/route').POST;
  'POST /api/v1/password/request': typeof import('@/app/api/v1/password/request/route').POST;
  'POST /api/v1/password': typeof import('@/app/api/v1/password/route').POST;
  'DELETE /api/v1/held/:id': typeof import('@/app/api/v1/held/[id]/route').DELETE;
  'POST /api/v1/held/:id/now': typeof import('@/app/api/v1/held/[id]/now/route').POST;
  'POST /api/v1/people/:id/addresses': typeof import('@/app/api/v1/people/[id]/addresses/route').POST;
  'DELETE /api/v1/people/:id/addresses': typeof import('@/app/api/v1/people/[id]/addresses/route').DELETE;
  'DELETE /api/v1/people/:id/passkeys': typeof import('@/app/api/v1/people/[id]/passkeys/route').DELETE;
  'DELETE /api/v1/people/:id/devices/:device': typeof import('@/app/api/v1/people/[id]/devices/[device]/route').DELETE;
  'POST /api/v1/people/:id/block': typeof import('@/app/api/v1/people/[id]/block/route').POST;
  'GET /api/v1/people/:id/lacking': typeof import('@/app/api/v1/people/[id]/lacking/route').GET;
  'POST /api/v1/people/:id/lacking': typeof import('@/app/api/v1/people/[id]/lacking/route').POST;
  'POST /api/v1/people/:id/left': typeof import('@/app/api/v1/people/[id]/left/route').POST;
  'POST /api/v1/people/:id': typeof import('@/app/api/v1/people/[id]/route').POST;
  'POST /api/v1/people/exchange/preview': typeof import('@/app/api/v1/people/exchange/preview/route').POST;
  'GET /api/v1/people': typeof import('@/app/api/v1/people/route').GET;
  'GET /api/v1/recipients/at': typeof import('@/app/api/v1/recipients/at/route').GET;
  'GET /api/v1/recipients/suggest': typeof import('@/app/api/v1/recipients/suggest/route').GET;
  'POST /api/v1/recipients/check': typeof import('@/app/api/v1/recipients/check/route').POST;
  'POST /api/v1/requests/answer': typeof import('@/app/api/v1/requests/answer/route').POST;
  'POST /api/v1/requests/ask-back': typeof import('@/app/api/v1/requests/ask-back/route').POST;
  'POST /api/v1/rules': typeof import('@/app/api/v1/rules/route').POST;
  'POST /api/v1/set-up': typeof import('@/app/api/v1/set-up/route').POST;
  'POST /api/v1/settings/consents/:id': typeof import('@/app/api/v1/settings/consents/[id]/route').POST;
  'POST /api/v1/settings/drill/failed': typeof import('@/app/api/v1/settings/drill/failed/route').POST;
  'GET /api/v1/settings/drill': typeof import('@/app/api/v1/settings/drill/route').GET;
  'POST /api/v1/settings/drill': typeof import('@/app/api/v1/settings/drill/route').POST;
  'POST /api/v1/settings/recovery': typeof import('@/app/api/v1/settings/recovery/route').POST;
  'POST /api/v1/settings/notice': typeof import('@/app/api/v1/settings/notice/route').POST;
  'POST /api/v1/settings/two-people': typeof import('@/app/api/v1/settings/two-people/route').POST;
  'POST /api/v1/settings/work': typeof import('@/app/api/v1/settings/work/route').POST;
  'POST /api/v1/sign-in': typeof import('@/app/api/v1/sign-in/route').POST;
  'POST /api/v1/sign-out': typeof import('@/app/api/v1/sign-out/route').POST;
  'POST /api/v1/staff/:id/invitation': typeof import('@/app/api/v1/staff/[id]/invitation/route').POST;
  'POST /api/v1/staff/:id/limits': typeof import('@/app/api/v1/staff/[id]/limits/route').POST;
  'POST /api/v1/staff/:id': typeof import('@/app/api/v1/staff/[id]/route').POST;
  'POST /api/v1/staff': typeof import('@/app/api/v1/staff/route').POST;
  'DELETE /api/v1/terms/:id': typeof import('@/app/api/v1/terms/[id]/route').DELETE;
  'POST /api/v1/terms/odrl/preview': typeof import('@/app/api/v1/terms/odrl/preview/route').POST;
  'POST /api/v1/terms/odrl': typeof import('@/app/api/v1/terms/odrl/route').POST;
  'POST /api/v1/grants/odrl/preview': typeof import('@/app/api/v1/grants/odrl/preview/route').POST;
  'POST /api/v1/grants/odrl': typeof import('@/app/api/v1/grants/odrl/route').POST;
  'POST /api/v1/terms/preview': typeof import('@/app/api/v1/terms/preview/route').POST;
  'POST /api/v1/terms': typeof import('@/app/api/v1/terms/route').POST;
  'DELETE /api/v1/uploads/:id': typeof import('@/app/api/v1/uploads/[id]/route').DELETE;
  'POST /api/v1/uploads': typeof import('@/app/api/v1/uploads/route').POST;
  'POST /api/v1/uploads/:id/look': typeof import('@/app/api/v1/uploads/[id]/look/route').POST;
  'POST /api/v1/local-documents': typeof import('@/app/api/v1/local-documents/route').POST;
  'POST /api/v1/local-documents/:id/cover': typeof import('@/app/api/v1/local-documents/[id]/cover/route').POST;
  'POST /api/v1/local-documents/:id/finish': typeof import('@/app/api/v1/local-documents/[id]/finish/route').POST;
  'GET /api/v1/uploads': typeof import('@/app/api/v1/uploads/route').GET;
  'POST /api/v1/you/factor/begin': typeof import('@/app/api/v1/you/factor/begin/route').POST;
  'POST /api/v1/you/factor': typeof import('@/app/api/v1/you/factor/route').POST;
  'DELETE /api/v1/you/factor': typeof import('@/app/api/v1/you/factor/route').DELETE;
  'POST /api/v1/you/notices': typeof import('@/app/api/v1/you/notices/route').POST;
  'POST /api/v1/you/proof': typeof import('@/app/api/v1/you/proof/route').POST;
};

type Disagreeing = {
  [R in ApiRoute]: Agrees<R, Handled[R]> extends true ? never : [R, Agrees<R, Handled[R]>];
}[ApiRoute];

/** Does not compile where a route disagrees with its contract, which the error names. */
export const disagreeing: [Disagreeing] extends [never] ? true : Disagreeing = true;
