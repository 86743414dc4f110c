import path from 'node:path';
import { z } from 'zod';
import { AppError } from '@/core/base/errors';
import { Secret } from '@/core/base/secret';

const raw = z.object({
  PORT: z.coerce.number().int().min(1).max(65535).default(4120),
  HOST: z.string().min(1).default('127.0.0.1'),
  PUBLIC_URL: z.url({ protocol: /^https?$/ }).optional(),
  TRUSTED_PROXIES: z.string().default(''),
  DATA_DIR: z.string().min(1).default('data/live'),
  DATABASE_URL: z.string().startsWith('file:', 'must be a file: address').optional(),
  MASTER_KEY_FILE: z.string().min(1).optional(),
  ENDED_FILE: z.string().min(1).optional(),
  WITNESS_FILE: z.string().min(1).optional(),
  MAIL_URL: z.url({ protocol: /^smtps?$/ }).optional(),
  MAIL_FROM: z.string().min(3).optional(),
  MAIL_INBOX: z.string().min(1).optional(),
  PLACES_FILE: z
    .string()
    .min(1)
    .default('node_modules/@ip-location-db/geo-whois-asn-country-mmdb/geo-whois-asn-country.mmdb'),
  FONTS_DIR: z.string().min(1).default('node_modules/@fontsource/atkinson-hyperlegible-next/files'),
  OFFICE: z.string().min(1).optional(),
  WORKERS_DIR: z.string().min(1).default('build/workers'),
  CHECK_FIRST: z.enum(['0', '1']).default('0'),
  RELOAD: z.enum(['0', '1']).default('0'),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export type Config = {
  readonly port: number;
  readonly host: string;
  /**
   * Where the outside world reaches this service, without a trailing slash: the one source of
   * links, cookies and stanzas.
   */
  readonly publicUrl: string;
  readonly trustedProxies: readonly string[];
  readonly dataDir: string;
  readonly databaseUrl: string;
  readonly masterKeyFile: string;
  /** The list of what ended, which a restore is brought up to: best on another disk than the rest. */
  readonly endedFile: string;
  /**
   * Signed checkpoints of the ledger and the key that signs them, kept outside the database: best
   * on another machine.
   */
  readonly witnessFile: string;
  readonly mail: {
    readonly url: Secret<string>;
    readonly from: string;
    /** A Maildir that the mail server delivers into what comes back; `null`: nobody reads it. */
    readonly inbox: string | null;
  } | null;
  /** A country database in MaxMind DB format. */
  readonly placesFile: string;
  /** Fonts of cover pages. */
  readonly fontsDir: string;
  readonly workersDir: string;
  /** LibreOffice’s program, which makes the pages of Word and PowerPoint files then; `null`: it is switched off. */
  readonly office: string | null;
  /** Whether the whole database is looked through before anything is served: after the process was ended by it. */
  readonly checkFirst: boolean;
  /** Whether pages are compiled when they are asked for, and again when they change: `npm run dev`. */
  readonly reload: boolean;
  readonly logLevel: string;
};

/** The configuration is wrong; the message says which value and how. */
export class ConfigError extends AppError<'BAD_CONFIG'> {
  constructor(message: string) {
    super('ConfigError', 'BAD_CONFIG', message);
  }
}

function isLoopback(url: string): boolean {
  return ['localhost', '127.0.0.1', '[::1]'].includes(new URL(url).hostname);
}

function checkPublicUrl(text: string): string {
  const url = new URL(text);
  if (url.protocol !== 'https:' && !isLoopback(text))
    throw new ConfigError(
      `PUBLIC_URL must begin with https:// unless it is this machine's own address; it is ${text}.`,
    );
  return `${url.origin}${url.pathname}`.replace(/\/$/, '');
}

type Environment = z.infer<typeof raw>;

/** @throws ConfigError which names the first value that is wrong */
function checked(environment: Readonly<Record<string, string | undefined>>): Environment {
  const { success, data, error } = raw.safeParse(environment);
  if (success) return data;
  const [{ path: place, message } = { path: ['A setting'], message: 'unknown reason' }] =
    error.issues;
  throw new ConfigError(`${place.join('.')} is wrong: ${message}.`);
}

/** Where everything is kept; what is not said stands in the data folder. */
function filesOf(env: Environment) {
  const inData = (...names: readonly string[]) => path.resolve(env.DATA_DIR, ...names);
  const { MASTER_KEY_FILE, ENDED_FILE, WITNESS_FILE } = env;
  return {
    dataDir: inData(),
    databaseUrl: env.DATABASE_URL ?? `file:${inData('embargo.db')}`,
    masterKeyFile: path.resolve(MASTER_KEY_FILE ?? inData('keys', 'master.key')),
    endedFile: path.resolve(ENDED_FILE ?? inData('ended.jsonl')),
    witnessFile: path.resolve(WITNESS_FILE ?? inData('witness.jsonl')),
  };
}

/**
 * Reads and checks the environment, once, at start. The only reader of `process.env` there is.
 *
 * @throws ConfigError with a sentence that names the value
 */
export function readConfig(
  environment: Readonly<Record<string, string | undefined>> = process.env,
): Config {
  const env = checked(environment);
  if (env.MAIL_URL !== undefined && env.MAIL_FROM === undefined)
    throw new ConfigError(
      'MAIL_FROM must be set along with MAIL_URL: the address mail is sent from.',
    );
  const publicUrl = checkPublicUrl(env.PUBLIC_URL ?? `http://localhost:${String(env.PORT)}`);
  if (env.RELOAD === '1' && !isLoopback(publicUrl))
    throw new ConfigError('RELOAD is for a developer’s own machine: PUBLIC_URL is another one.');
  return {
    port: env.PORT,
    host: env.HOST,
    publicUrl,
    trustedProxies: env.TRUSTED_PROXIES.split(/[\s,]+/).filter((each) => each !== ''),
    ...filesOf(env),
    mail:
      env.MAIL_URL === undefined
        ? null
        : {
            url: new Secret(env.MAIL_URL),
            from: env.MAIL_FROM ?? '',
            inbox: env.MAIL_INBOX === undefined ? null : path.resolve(env.MAIL_INBOX),
          },
    placesFile: path.resolve(env.PLACES_FILE),
    fontsDir: path.resolve(env.FONTS_DIR),
    workersDir: path.resolve(env.WORKERS_DIR),
    office: env.OFFICE ?? null,
    checkFirst: env.CHECK_FIRST === '1',
    reload: env.RELOAD === '1',
    logLevel: env.LOG_LEVEL,
  };
}
