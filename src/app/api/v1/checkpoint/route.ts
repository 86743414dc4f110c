import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { bytes } from '@/server/http/respond';
import { fetchCheckpoint } from '@/server/services/ledger/keep-checkpoints';

export const GET = handle('stranger', nothing, fetchCheckpoint, (text) =>
  bytes(new TextEncoder().encode(text), 'text/plain; charset=utf-8'),
);
