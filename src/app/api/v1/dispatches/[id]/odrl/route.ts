import { dispatchOdrlInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { jsonFile } from '@/server/http/respond';
import { takeGrantsOut } from '@/server/services/dispatching/exchange-grants';

export const GET = handle('look', dispatchOdrlInput, takeGrantsOut, jsonFile);
