// `npm run bench soak`: the built server under mixed work for MINUTES (60), and what it holds in memory each minute.
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { open, signed, startTarget, type Browser, type Target } from '../tests/attack/target';
import { drawing } from '../tests/support/product';
import { say } from './measure';

const READERS = 12;
const WANTED = 700;
const STAFF_PAGES = [
  '/today',
  '/ledger',
  '/documents',
  '/dispatches',
  '/people',
  '/compose',
  '/terms',
  '/groups',
  '/settings',
  '/settings/keys',
];

type Work = (target: Target, round: number) => Promise<unknown>;
type Call = (method: string, at: string, body?: unknown) => Promise<Response>;

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => {
    setTimeout(resolve, ms);
  });
}

/** The administrator whom the prepared product has, signed in. */
export async function signIn({ url }: Target): Promise<Call> {
  const headers = { origin: url, 'x-forwarded-for': '192.0.2.20' };
  const credentials = JSON.stringify({
    email: 'ida@tern-quill.example',
    password: 'a long enough password',
  });
  const answer = await fetch(`${url}/api/v1/sign-in`, {
    method: 'POST',
    body: credentials,
    headers: { ...headers, 'content-type': 'application/json' },
  });
  if (!answer.ok) throw new Error(`Signing in failed: ${String(answer.status)}`);
  const cookie = answer.headers
    .getSetCookie()
    .map((each) => each.split(';', 1)[0])
    .join('; ');
  return (method, at, body) =>
    fetch(url + at, {
      method,
      ...(body === undefined
        ? {}
        : { body: body instanceof Uint8Array ? new Uint8Array(body) : JSON.stringify(body) }),
      headers: {
        ...headers,
        cookie,
        'content-type':
          body instanceof Uint8Array ? 'application/octet-stream' : 'application/json',
      },
    });
}

async function read(target: Target, browser: Browser, round: number): Promise<void> {
  const document = round % 3 === 0 ? target.documents.long : target.documents.short;
  const { licence } = await open(target, browser, document);
  if (licence === null) return;
  const base = `/api/v1/reader/licences/${licence}`;
  for (let page = 1; page <= 8; page++) {
    await (
      await signed(
        target,
        browser,
        'GET',
        `${base}/pages/${String(1 + ((round * 8 + page) % 40))}?width=1275`,
      )
    ).arrayBuffer();
    await (await signed(target, browser, 'GET', `${base}/check`)).text();
  }
  if (round % 5 === 1)
    await (
      await signed(target, browser, 'POST', `${base}/print`, { from: 1, to: 6 })
    ).arrayBuffer();
  if (round % 7 === 1)
    await (await signed(target, browser, 'POST', `${base}/keep`, {})).arrayBuffer();
}

async function protect(call: Call, drawn: Uint8Array, round: number): Promise<string> {
  // The same file again would be asked about first.
  const bytes = Buffer.concat([drawn, Buffer.from(`\n% ${String(round)}`)]);
  const { id } = (await (
    await call('POST', '/api/v1/uploads', { fileName: 'soak.pdf', bytes: bytes.length })
  ).json()) as { id: string };
  await (await call('PUT', `/api/v1/uploads/${id}?offset=0`, bytes)).text();
  const named = { title: `Soak ${String(round)}`, reference: `SOAK-${String(round)}` };
  const finished = await call('POST', `/api/v1/uploads/${id}/finish`, named);
  if (!finished.ok) throw new Error(`Protecting failed: ${await finished.text()}`);
  return ((await finished.json()) as { id: string }).id;
}

async function send(call: Call, bytes: Uint8Array, round: number): Promise<void> {
  const document = await protect(call, bytes, round);
  const recipients = [0, 1, 2].map((i) => ({
    address: `soak.${String(round)}.${String(i)}@yard.example`,
    name: '',
    organisation: '',
  }));
  const sent = await call('POST', '/api/v1/dispatches', {
    documents: [document],
    recipients,
    terms: { rights: ['read'], from: null, until: Date.now() + 30 * 86_400_000, prints: null },
    subject: 'For you',
    note: 'A note',
    watermark: DEFAULT_WATERMARK,
    delivery: 'mail',
  });
  if (!sent.ok) throw new Error(`Dispatching failed: ${String(sent.status)} ${await sent.text()}`);
  await (await call('POST', `/api/v1/documents/${document}/revoke`, {})).text();
}

/** Everything people do, again and again, until the time is over; what fails is counted and does not end it. */
async function work(
  target: Target,
  call: Call,
  until: number,
): Promise<{ readonly rounds: number; readonly failed: ReadonlyMap<string, number> }> {
  const bytes = await drawing(4);
  const failed = new Map<string, number>();
  let rounds = 0;
  const lane = async (job: Work, rest: number): Promise<void> => {
    for (let round = 0; Date.now() < until; round++, rounds++) {
      await job(target, round).catch((error: unknown) => {
        failed.set(String(error), (failed.get(String(error)) ?? 0) + 1);
      });
      await pause(rest);
    }
  };
  await Promise.all([
    ...target.browsers
      .slice(0, READERS)
      .map((browser) => lane((_target, round) => read(target, browser, round), 2_000)),
    lane(
      (_target, round) =>
        call('GET', STAFF_PAGES[round % STAFF_PAGES.length] ?? '/').then((page) => page.text()),
      1_000,
    ),
    lane((_target, round) => send(call, bytes, round), 5_000),
    lane(() => call('GET', '/api/v1/ledger/export').then((csv) => csv.text()), 60_000),
    lane(
      (_target, round) =>
        call('GET', `/api/v1/documents/none${String(round)}`).then((answer) => answer.text()),
      500,
    ),
  ]);
  return { rounds, failed };
}

/** Mixed work for an hour: memory grows to a plateau and stays below its limit. */
export async function soak(): Promise<void> {
  const minutes = Number(process.env['MINUTES'] ?? 60);
  const target = await startTarget(READERS);
  const began = Date.now();
  const seen: number[] = [];
  const watch = setInterval(() => {
    seen.push(target.memory());
    console.log(`minute ${String(seen.length).padStart(3)}   ${target.memory().toFixed(0)} MiB`);
  }, 60_000);
  try {
    const { rounds, failed } = await work(target, await signIn(target), began + minutes * 60_000);
    for (const [error, times] of failed) console.log(`failed ${String(times)} times: ${error}`);
    const tenth = Math.max(1, Math.floor(seen.length / 10));
    const last = seen.slice(-tenth);
    const early = seen.slice(tenth * 2, tenth * 3);
    const middle = (values: readonly number[]): number =>
      values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
    const figure =
      `${String(rounds)} rounds; most ${Math.max(0, ...seen).toFixed(0)} MiB; ` +
      `${middle(early).toFixed(0)} early, ${middle(last).toFixed(0)} at the end`;
    say(
      `soak: memory over ${String(minutes)} min of mixed work`,
      figure,
      `${String(WANTED)} MiB, no growth`,
    );
  } finally {
    clearInterval(watch);
    await target.stop();
  }
}
