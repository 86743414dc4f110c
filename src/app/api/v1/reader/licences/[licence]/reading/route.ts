import { readingInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { noteReading } from '@/server/services/reading/read-pages';

export const POST = handle('reader', readingInput, noteReading);
