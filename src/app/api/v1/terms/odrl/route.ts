import { nothing } from '@/contracts/nothing';
import { bringTermsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { jsonFile } from '@/server/http/respond';
import { bringTermsIn, takeTermsOut } from '@/server/services/access/exchange-terms';

export const GET = handle('look', nothing, takeTermsOut, jsonFile);
export const POST = handle('settings', bringTermsInput, bringTermsIn);
