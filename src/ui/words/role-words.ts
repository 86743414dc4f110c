import type { Role } from '@/core/policy/powers';

/** What each role may do, in a sentence. */
export const roleHints: Record<Role, string> = {
  administrator:
    'May do everything: protect, dispatch, change anybody’s access, read the ledger, manage staff.',
  sender:
    'May protect documents, dispatch their own, and change access to what they own or sent. Does not read the ledger.',
  auditor: 'May look at everything and read and export the ledger. Changes nothing.',
};
