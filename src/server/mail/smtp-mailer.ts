import type { Transporter } from 'nodemailer';
import { AppError } from '@/core/base/errors';
import type { Secret } from '@/core/base/secret';
import { SECOND } from '@/core/base/time';
import type { Clock } from '@/server/clock/clock';
import type { Mailer } from '@/server/mail/mailer';
import { toEnvelope } from '@/server/mail/mime';

/** `REFUSED` will be refused again; `UNREACHABLE` may work later. */
type MailErrorCode = 'MAIL_REFUSED' | 'MAIL_UNREACHABLE';

class MailError extends AppError<MailErrorCode> {
  constructor(code: MailErrorCode, message: string, cause?: unknown) {
    super('MailError', code, message, { cause });
  }
}

/** More than messages are delivered side by side, so that a code never waits for a connection. */
const MOST_CONNECTIONS = 12;

function toMailError(cause: unknown): MailError {
  const status = cause instanceof Error && 'responseCode' in cause ? Number(cause.responseCode) : 0;
  if (status >= 500)
    return new MailError(
      'MAIL_REFUSED',
      `The mail server refused the message (${String(status)}).`,
      cause,
    );
  return new MailError(
    'MAIL_UNREACHABLE',
    'The mail server could not be reached or put the message off.',
    cause,
  );
}

/** Sends over SMTP (RFC 5321). What speaks it is loaded with the first message, not at the start. */
export function createSmtpMailer(url: Secret<string>, from: string, clock: Clock): Mailer {
  let connected: Promise<Transporter> | null = null;
  return {
    close: () => {
      void connected?.then((transport) => {
        transport.close();
      });
    },
    deliver: async (mail) => {
      try {
        connected ??= connect(url);
        const transport = await connected;
        await transport.sendMail(toEnvelope(mail, from, new Date(clock.now())));
      } catch (cause) {
        throw toMailError(cause);
      }
    },
  };
}

async function connect(url: Secret<string>): Promise<Transporter> {
  const { createTransport } = await import('nodemailer');
  return createTransport({
    url: url.reveal(),
    pool: true,
    maxConnections: MOST_CONNECTIONS,
    connectionTimeout: 20 * SECOND,
    greetingTimeout: 20 * SECOND,
    socketTimeout: 60 * SECOND,
  });
}
