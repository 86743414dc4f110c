import { importGrantsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { importGrants } from '@/server/services/dispatching/exchange-grants';

export const POST = handle('dispatch', importGrantsInput, importGrants);
