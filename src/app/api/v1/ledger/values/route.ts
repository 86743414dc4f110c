import { valuesInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { findValues } from '@/server/services/ledger/find-values';

export const GET = handle('read-own-record', valuesInput, findValues);
