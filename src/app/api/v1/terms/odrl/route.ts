import { nothing } from '@/contracts/nothing';
import { importTermsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { jsonFile } from '@/server/http/respond';
import { importTerms, takeTermsOut } from '@/server/services/access/exchange-terms';

export const GET = handle('look', nothing, takeTermsOut, jsonFile);
export const POST = handle('settings', importTermsInput, importTerms);
