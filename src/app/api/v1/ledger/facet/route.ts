import { facetInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { listFacet } from '@/server/services/ledger/list-entries';

export const GET = handle('read-own-record', facetInput, listFacet);
