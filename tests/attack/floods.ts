import { randomBytes } from 'node:crypto';
import { setMaxListeners } from 'node:events';
import { connect } from 'node:net';
import { open, signed, type Browser, type Target } from './target';

/** What goes on while an honest reader turns pages. It ends by itself, or with the signal. */
export type Flood = {
  readonly name: string;
  readonly run: (target: Target, signal: AbortSignal) => Promise<void>;
};

const SECONDS = 20;

function repeatedly(
  times: number,
  atOnce: number,
  job: (i: number) => Promise<unknown>,
  signal: AbortSignal,
): Promise<void> {
  let next = 0;
  const lane = async (): Promise<void> => {
    while (next < times && !signal.aborted) await job(next++).catch(() => undefined);
  };
  return Promise.all(Array.from({ length: atOnce }, lane)).then(() => undefined);
}

function post(
  target: Target,
  at: string,
  body: string,
  network: string,
  signal: AbortSignal,
): Promise<unknown> {
  return fetch(target.url + at, {
    method: 'POST',
    signal,
    body,
    headers: { origin: target.url, 'content-type': 'application/json', 'x-forwarded-for': network },
  }).then((response) => response.arrayBuffer());
}

async function licenceOf(
  target: Target,
  browser: Browser,
  document: 'short' | 'long',
): Promise<string> {
  return (await open(target, browser, target.documents[document])).licence ?? '';
}

function attacker({ browsers }: Target, i: number): Browser {
  const found = browsers[1 + i];
  if (found === undefined) throw new Error('nobody attacks');
  return found;
}
const anyNetwork = (): string => `198.51.100.${String(randomBytes(1)[0] ?? 0)}`;

export const FLOODS: readonly Flood[] = [
  { name: 'nothing', run: () => Promise.resolve() },
  {
    name: 'passwords of made-up addresses, one network',
    run: (target, signal) =>
      repeatedly(
        2_000,
        40,
        (i) =>
          post(
            target,
            '/api/v1/sign-in',
            JSON.stringify({ email: `nobody${String(i)}@x.example`, password: 'x'.repeat(20) }),
            '198.51.100.7',
            signal,
          ),
        signal,
      ),
  },
  {
    name: 'the same from 256 networks',
    run: (target, signal) =>
      repeatedly(
        2_000,
        40,
        (i) =>
          post(
            target,
            '/api/v1/sign-in',
            JSON.stringify({ email: `nobody${String(i)}@x.example`, password: 'x'.repeat(20) }),
            anyNetwork(),
            signal,
          ),
        signal,
      ),
  },
  {
    name: 'JSON nested two million deep',
    run: (target, signal) =>
      repeatedly(
        200,
        8,
        () => post(target, '/api/v1/sign-in', '['.repeat(2_000_000), anyNetwork(), signal),
        signal,
      ),
  },
  {
    name: 'codes for made-up addresses',
    run: (target, signal) =>
      repeatedly(
        2_000,
        20,
        (i) =>
          post(
            target,
            '/api/v1/reader/code',
            JSON.stringify({
              token: target.browsers[0]?.token,
              address: `nobody${String(i)}@x.example`,
            }),
            anyNetwork(),
            signal,
          ),
        signal,
      ),
  },
  {
    name: '500 event streams of one person',
    run: async (target, signal) => {
      const own = attacker(target, 0);
      const licence = await licenceOf(target, own, 'short');
      await repeatedly(
        500,
        500,
        () =>
          signed(
            target,
            own,
            'GET',
            `/api/v1/reader/licences/${licence}/live`,
            undefined,
            signal,
          ).then((response) => response.text()),
        signal,
      );
    },
  },
  {
    name: 'endless opens of one person',
    run: (target, signal) =>
      repeatedly(
        3_000,
        20,
        () => open(target, attacker(target, 0), target.documents.short),
        signal,
      ),
  },
  {
    name: '60 large pages of one person',
    run: async (target, signal) => {
      const own = attacker(target, 0);
      const licence = await licenceOf(target, own, 'long');
      await repeatedly(
        600,
        60,
        (i) =>
          signed(
            target,
            own,
            'GET',
            `/api/v1/reader/licences/${licence}/pages/${String(1 + (i % 500))}?width=2600`,
            undefined,
            signal,
          ).then((response) => response.arrayBuffer()),
        signal,
      );
    },
  },
  {
    name: 'two prints of 500 pages',
    run: async (target, signal) => {
      await Promise.all(
        [0, 1].map(async (i) => {
          const own = attacker(target, i);
          const licence = await licenceOf(target, own, 'long');
          await signed(
            target,
            own,
            'POST',
            `/api/v1/reader/licences/${licence}/print`,
            { from: 1, to: 500 },
            signal,
          )
            .then((response) => response.arrayBuffer())
            .catch(() => undefined);
        }),
      );
    },
  },
  {
    name: 'keeping a copy, again and again',
    run: async (target, signal) => {
      const own = attacker(target, 0);
      const licence = await licenceOf(target, own, 'long');
      await repeatedly(
        200,
        10,
        () =>
          signed(target, own, 'POST', `/api/v1/reader/licences/${licence}/keep`, {}, signal).then(
            (response) => response.arrayBuffer(),
          ),
        signal,
      );
    },
  },
  {
    name: '300 connections that say nothing',
    run: (target, signal) =>
      new Promise((resolve) => {
        const sockets = Array.from({ length: 300 }, () =>
          connect(Number(new URL(target.url).port), '127.0.0.1').on('error', () => undefined),
        );
        const end = (): void => {
          for (const socket of sockets) socket.destroy();
          resolve();
        };
        signal.addEventListener('abort', end, { once: true });
      }),
  },
];

export type Felt = {
  readonly pages: number;
  readonly p50: number;
  readonly p95: number;
  readonly longest: number;
  readonly failed: number;
};

/** How an honest reader fares meanwhile: a page a second, one after another, each another one. Times in ms. */
export async function honestReader(target: Target, signal: AbortSignal): Promise<Felt> {
  const [honest] = target.browsers;
  if (honest === undefined) throw new Error('nobody reads');
  const licence = await licenceOf(target, honest, 'short');
  const times: number[] = [];
  let failed = 0;
  for (let page = 0; !signal.aborted; page++) {
    const began = performance.now();
    const response = await signed(
      target,
      honest,
      'GET',
      `/api/v1/reader/licences/${licence}/pages/${String(1 + (page % 40))}?width=1275`,
    ).catch(() => null);
    if (response?.ok === true) await response.arrayBuffer();
    else failed++;
    times.push(performance.now() - began);
    await new Promise((resolve) => {
      setTimeout(resolve, 200);
    });
  }
  const sorted = times.sort((a, b) => a - b);
  const at = (share: number): number =>
    Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0);
  return { pages: times.length, p50: at(0.5), p95: at(0.95), longest: at(1), failed };
}

/** Runs a flood for some seconds, and the honest reader with it. */
export async function feel(target: Target, { run }: Flood, seconds = SECONDS): Promise<Felt> {
  const stop = new AbortController();
  setMaxListeners(0, stop.signal);
  const flooding = run(target, stop.signal).catch(() => undefined);
  await new Promise((resolve) => {
    setTimeout(resolve, 500);
  });
  setTimeout(() => {
    stop.abort();
  }, seconds * 1_000);
  const felt = await honestReader(target, stop.signal);
  await flooding;
  return felt;
}
