import { inspectInput } from '@/contracts/files';
import { handle } from '@/server/http/handle';
import { inspectForStaff } from '@/server/services/documents/inspect-file';

export const POST = handle('look', inspectInput, inspectForStaff);
