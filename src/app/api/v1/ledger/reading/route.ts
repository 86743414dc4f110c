import { readingAsked } from '@/contracts/opens';
import { handle } from '@/server/http/handle';
import { viewReading } from '@/server/services/reading/view-reading';

export const GET = handle('read-own-record', readingAsked, viewReading);
