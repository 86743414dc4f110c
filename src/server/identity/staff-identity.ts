import { betterAuth } from 'better-auth/minimal';
import { newId, type StaffId } from '@/core/base/ids';
import type { RandomSource } from '@/core/base/random';
import { HOUR, SECOND } from '@/core/base/time';
import type { Database, Transaction } from '@/server/db/database';
import { createPasswordHashes } from '@/server/identity/password-hashes';
import { authAdapter } from '@/server/identity/auth-adapter';

export type StaffIdentity = {
  /** The cookie of a new session, or `null` where address and password do not belong together. */
  readonly signIn: (
    email: string,
    password: string,
    headers: Headers,
  ) => Promise<readonly string[] | null>;
  /** @returns the cookies that end the session in the browser */
  readonly signOut: (headers: Headers) => Promise<readonly string[]>;
  readonly whoIs: (
    headers: Headers,
  ) => Promise<{ readonly staff: StaffId; readonly session: string } | null>;
  /**
   * Takes as long whether there is such a member of staff or not. `who`: whom the work is counted
   * under. @throws BusyError
   */
  readonly isPassword: (staff: StaffId | null, password: string, who: string) => Promise<boolean>;
  /** @throws BusyError */
  readonly hashPassword: (password: string, who: string) => Promise<string>;
};

const SESSION_LASTS = 12 * HOUR;

function textOf(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

/**
 * Staff sign-in, by the library's own password hashing and sessions. Signing up is off: staff are
 * made by a use case.
 */
export function createStaffIdentity(
  db: Database,
  options: { readonly secret: string; readonly publicUrl: string; readonly random: RandomSource },
  onSignIn: (tx: Transaction, staff: StaffId, network: string, agent: string) => Promise<void>,
): StaffIdentity {
  const hashes = createPasswordHashes(options.random);
  const secure = options.publicUrl.startsWith('https:');
  const auth = betterAuth({
    appName: 'Embargo',
    baseURL: options.publicUrl,
    secret: options.secret,
    telemetry: { enabled: false },
    logger: { disabled: true },
    rateLimit: { enabled: false }, // limited in the use case, by address and network
    // A password is checked before the library is asked for a session, so its own check is of one known to be right.
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: 12,
      password: {
        hash: (password) => hashes.make(password, ''),
        verify: ({ hash, password }) => hashes.verify(hash, password, ''),
      },
    },
    session: { expiresIn: SESSION_LASTS / SECOND, disableSessionRefresh: true },
    user: { additionalFields: { role: { type: 'string', required: true, input: false } } },
    database: authAdapter(db, async (tx, model, row) => {
      if (model === 'session')
        await onSignIn(
          tx,
          row['userId'] as StaffId,
          textOf(row['ipAddress']),
          textOf(row['userAgent']),
        );
    }),
    advanced: {
      database: {
        generateId: ({ model }) => newId(model === 'user' ? 'staff' : 'session', options.random),
      },
      useSecureCookies: false,
      cookies: {
        session_token: {
          name: secure ? '__Host-embargo-staff' : 'embargo-staff',
          attributes: { httpOnly: true, sameSite: 'strict', path: '/', secure },
        },
      },
      ipAddress: { ipAddressHeaders: ['x-embargo-network'] },
    },
  });

  return {
    signIn: async (email, password, headers) => {
      const outcome = await auth.api
        .signInEmail({ body: { email, password }, headers, returnHeaders: true })
        .catch((error: unknown) => {
          if (error instanceof Error && 'statusCode' in error && Number(error.statusCode) < 500)
            return null;
          throw error;
        });
      return outcome?.headers.getSetCookie() ?? null;
    },
    signOut: async (headers) =>
      (await auth.api.signOut({ headers, returnHeaders: true })).headers.getSetCookie(),
    whoIs: async (headers) => {
      const found = await auth.api.getSession({ headers });
      return found === null ? null : { staff: found.user.id as StaffId, session: found.session.id };
    },
    isPassword: async (staff, password, who) => {
      const accounts =
        staff === null ? [] : await (await auth.$context).internalAdapter.findAccounts(staff);
      const hash = accounts.find((each) => each.providerId === 'credential')?.password;
      return hash == null ? hashes.verifyNone(password, who) : hashes.verify(hash, password, who);
    },
    hashPassword: (password, who) => hashes.make(password, who),
  };
}
