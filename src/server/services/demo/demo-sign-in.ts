import 'server-only';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps } from '@/server/services/base/deps';

/** How to sign in to a demo; its data is invented and its password no secret. */
export const DEMO_SIGN_IN = {
  email: 'ida.roe@tern-quill.example',
  password: 'harbour-lights-412',
} as const;

/** What the sign-in page says in a demo; `null` anywhere else. */
export async function demoSignIn(deps: Deps): Promise<typeof DEMO_SIGN_IN | null> {
  return (await findOrganisation(deps.db.read))?.demo === true ? DEMO_SIGN_IN : null;
}
