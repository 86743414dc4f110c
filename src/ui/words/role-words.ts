import type { Role } from '@/core/policy/permissions';

/** What each role may do, in a sentence. */
export const roleHints: Record<Role, string> = {
  administrator:
    'Can do everything: protect, dispatch, change anybody’s access, read the ledger, manage staff.',
  sender:
    'May protect documents, dispatch their own, and change access to what they own or sent. Does not read the ledger.',
  auditor: 'Can see everything and read and export the ledger. Changes nothing.',
};
