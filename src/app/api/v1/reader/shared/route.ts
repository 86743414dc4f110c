import { sharedInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { sharedWith } from '@/server/services/reading/shared-with';

export const GET = handle('reader', sharedInput, sharedWith);
