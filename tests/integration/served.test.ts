// The built server from outside, over HTTP: what the network can do to it.
import { randomBytes } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { Agent, get } from 'node:http';
import { connect } from 'node:net';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, onTestFinished, test } from 'vitest';
import { PART } from '@/contracts/document';
import { MAX_DOCUMENT } from '@/core/content/sizes';
import { HOSTILE_FILES } from '../support/hostile-files';
import { isOnDisk, drawing } from '../support/product';
import { startServed, type Served } from '../support/served';

const PASSWORD = 'a long enough password';
const EMAIL = 'ida.roe@tern-quill.example';

let served: Served;
beforeAll(async () => {
  served = await startServed();
}, 60_000);
afterAll(async () => {
  await served.stop();
});

const setUp = (token: string, on = served) =>
  on.call('POST', '/api/v1/set-up', {
    token,
    organisation: 'Tern & Quill',
    zone: 'Europe/Oslo',
    name: 'Ida Roe',
    email: EMAIL,
    password: PASSWORD,
    recoveryKey: null,
  });
const signIn = (password: string, headers: Readonly<Record<string, string>> = {}, on = served) =>
  on.call('POST', '/api/v1/sign-in', { email: EMAIL, password }, headers);
const ledger = async (on = served): Promise<string> =>
  (await on.call('GET', '/api/v1/ledger/export')).text();

describe('the first visit', () => {
  test('every page leads to set-up, every call is refused', async () => {
    expect((await served.call('GET', '/documents')).headers.get('location')).toContain('/set-up');
    expect((await served.call('GET', '/api/v1/ledger/export')).status).toBe(401);
  });

  test('takes the token from the console, no other, and only once', async () => {
    expect((await setUp('guessed')).status).toBe(403);
    expect((await setUp(served.setUpToken)).status).toBe(200);
    expect((await setUp(served.setUpToken)).status).toBe(409);
  });

  test('signs in with the right password only, and prints no secret', async () => {
    expect((await signIn('another long password')).status).toBe(401);
    expect((await signIn(PASSWORD)).status).toBe(200);
    expect((await served.call('GET', '/documents')).status).toBe(200);
    expect(served.printed()).not.toContain(PASSWORD);
  });
});

test('a connection stays open for whoever turns a page every few seconds', async () => {
  const agent = new Agent({ keepAlive: true });
  const kept = await new Promise<string>((resolve, reject) => {
    get(`${served.url}/healthz`, { agent }, (response) => {
      response.resume();
      resolve(String(response.headers['keep-alive']));
    }).on('error', reject);
  });
  agent.destroy();
  expect(Number(/timeout=(\d+)/.exec(kept)?.[1])).toBeGreaterThan(60);
});

describe('where a request came from', () => {
  test('is what the socket says, whatever the request says', async () => {
    const forged = {
      'x-forwarded-for': '198.51.100.77',
      'x-real-ip': '198.51.100.78',
      forwarded: 'for=198.51.100.79',
      'x-embargo-network': '198.51.100.80',
    };
    expect((await signIn(PASSWORD, forged)).status).toBe(200);
    const csv = await ledger();
    expect(csv).toContain('127.0.0.1');
    expect(csv).not.toContain('198.51.100.');
  });

  test('behind a trusted proxy, is what that proxy saw, not what was sent to it', async () => {
    const behind = await startServed({ TRUSTED_PROXIES: '127.0.0.0/8, ::1' });
    onTestFinished(() => behind.stop());
    expect((await setUp(behind.setUpToken, behind)).status).toBe(200);
    expect(
      (await signIn(PASSWORD, { 'x-forwarded-for': '198.51.100.77, 203.0.113.9' }, behind)).status,
    ).toBe(200);
    const csv = await ledger(behind);
    expect(csv).toContain('203.0.113.9');
    expect(csv).not.toContain('198.51.100.77');
  }, 60_000);

  test.each([
    ['another site', { origin: 'https://elsewhere.example' }],
    ['another site that hides it', { origin: 'null' }],
    ['a page beside ours', { 'sec-fetch-site': 'same-site' }],
  ])('a change asked for by %s is not carried out', async (_who, headers) => {
    const response = await served.call(
      'POST',
      '/api/v1/uploads',
      { fileName: 'a.pdf', bytes: 10 },
      headers,
    );
    expect(response.status).toBe(403);
    expect(await response.json()).toMatchObject({ error: { code: 'WRONG_ORIGIN' } });
  });
});

describe('what makes no sense', () => {
  test.each([
    ['a method nobody uses here', 'TRACE', '/documents'],
    ['one of WebDAV', 'PROPFIND', '/api/v1/documents'],
    ['an address that is no text', 'GET', '/r/%ff%zz'],
    ['a call to one', 'GET', '/api/v1/documents/%c0%af'],
  ])(
    '%s is answered with what is wrong, never with a failure of ours',
    async (_what, method, at) => {
      const { status } = await raw(
        `${method} ${at} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n`,
      );
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(500);
    },
  );

  test('a broken cookie is nobody’s', async () => {
    const broken = 'embargo-device=%E0%A4%A; embargo-browser=%; embargo-staff=%%%';
    for (const at of [
      '/r/abcdefghjkmnpqrstvwxyz01',
      '/documents',
      '/api/v1/ledger/export',
      '/api/v1/reader/shared?token=abcdefghjkmnpqrstvwxyz01',
    ]) {
      const { status } = await raw(
        `GET ${at} HTTP/1.1\r\nHost: localhost\r\nCookie: ${broken}\r\nConnection: close\r\n\r\n`,
      );
      expect(status).toBeLessThan(500);
    }
  });

  test('a body that is too large, or nests without end, is refused before it costs anything', async () => {
    const { port } = new URL(served.url);
    const post = (body: string) =>
      raw(
        `POST /api/v1/sign-in HTTP/1.1\r\nHost: localhost:${port}\r\nOrigin: ${served.url}\r\nContent-Type: ` +
          `application/json\r\nContent-Length: ${String(body.length)}\r\nConnection: ` +
          `close\r\n\r\n${body}`,
      );
    expect((await post('['.repeat(15_000))).status).toBe(422);
    expect((await post('['.repeat(2_000_000))).status).toBe(413);
  });
});

/** A request as it is written, and the status of its answer; a connection that is cut after it counts as that. */
function raw(text: string): Promise<{ readonly status: number }> {
  return new Promise((resolve, reject) => {
    let heard = '';
    const socket = connect(Number(new URL(served.url).port), 'localhost', () => {
      socket.write(text);
    });
    const done = (): void => {
      resolve({ status: Number(/^HTTP\/1\.1 (\d+)/.exec(heard)?.[1] ?? 400) });
    };
    socket.on('data', (piece) => {
      heard += piece.toString('latin1');
    });
    socket.on('close', done);
    socket.on('error', (error) => {
      if (heard === '') reject(error);
      else done();
    });
    socket.setTimeout(20_000, () => {
      socket.destroy(new Error('no answer'));
    });
  });
}

/** A valid PDF of exactly `size` bytes whose bulk is one stream that no page uses, cut as it is asked for. */
function hugePdf(size: number): {
  readonly slice: (from: number, to: number) => Uint8Array;
  readonly filler: Uint8Array;
} {
  const filler = new Uint8Array(randomBytes(1 << 20));
  const objects = [
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Kids[3 0 R]/Count 1>>',
    '<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]>>',
  ];
  let head = '%PDF-1.7\n';
  const offsets = objects.map((object, i) => {
    const at = head.length;
    head += `${String(i + 1)} 0 obj${object}endobj\n`;
    return at;
  });
  const streamAt = head.length;
  // Ten digits whatever the length, so that the length is known before the head is.
  const opening = (length: number): string =>
    `4 0 obj<</Length ${String(length).padStart(10, '0')}>>stream\n`;
  const tail = (length: number): string => {
    const xrefAt = streamAt + opening(0).length + length + '\nendstream endobj\n'.length;
    const rows = [...offsets, streamAt]
      .map((at) => `${String(at).padStart(10, '0')} 00000 n \n`)
      .join('');
    return (
      `\nendstream endobj\nxref\n0 5\n0000000000 65535 f \n${rows}trailer<</Size 5/Root 1 0 ` +
      `R>>\nstartxref\n${String(xrefAt).padStart(10, '0')}\n%%EOF\n`
    );
  };
  const length = size - streamAt - opening(0).length - tail(0).length;
  const before = Buffer.from(head + opening(length), 'latin1');
  const after = Buffer.from(tail(length), 'latin1');
  return {
    filler,
    slice: (from, to) => {
      const out = new Uint8Array(to - from);
      for (let at = from; at < to;) {
        const [source, within] =
          at < before.length
            ? [before, at]
            : at >= before.length + length
              ? [after, at - before.length - length]
              : [filler, (at - before.length) % filler.length];
        const limit =
          at < before.length
            ? before.length
            : at < before.length + length
              ? before.length + length
              : size;
        const piece = source.subarray(within, within + Math.min(to, limit) - at);
        out.set(piece, at - from);
        at += piece.length;
      }
      return out;
    },
  };
}

describe('a file taken in', () => {
  const begin = async (bytes: number): Promise<string> =>
    (
      (await (
        await served.call('POST', '/api/v1/uploads', { fileName: 'a.pdf', bytes })
      ).json()) as { id: string }
    ).id;
  const put = (id: string, offset: number, bytes: Uint8Array | ReadableStream) =>
    served.call('PUT', `/api/v1/uploads/${id}?offset=${String(offset)}`, bytes);

  test('whose connection is cut in the middle of a part goes on from the last whole part', async () => {
    const bytes = await drawing(1);
    const id = await begin(bytes.length);
    const cut = new ReadableStream({
      start: (controller) => {
        controller.enqueue(bytes.subarray(0, 2000));
      },
      pull: async (controller) => {
        await new Promise((resolve) => {
          setTimeout(resolve, 300);
        });
        controller.error(new Error('cut'));
      },
    });
    await expect(put(id, 0, cut)).rejects.toThrow();
    // Until the server has noticed the cut, the part counts as on its way.
    await expect
      .poll(async () => (await put(id, 0, bytes)).json() as Promise<unknown>)
      .toEqual({ receivedBytes: bytes.length });
    expect(await (await put(id, 0, bytes)).json()).toEqual({ receivedBytes: bytes.length });
    expect(
      (
        await served.call('POST', `/api/v1/uploads/${id}/finish`, {
          title: 'After a cut',
          reference: 'CUT-1',
        })
      ).status,
    ).toBe(200);
  });

  test('of 256 MiB takes less than 150 MiB of memory and never lies on the disk in the clear', async () => {
    const size = 256 << 20;
    const file = hugePdf(size);
    const id = await begin(size);
    const idle = served.memory();
    let peak = idle;
    const watch = setInterval(() => {
      peak = Math.max(peak, served.memory());
    }, 20);
    onTestFinished(() => {
      clearInterval(watch);
    });
    const send = async (from: number, to: number): Promise<void> => {
      for (let at = from; at < to; at += PART)
        expect((await put(id, at, file.slice(at, Math.min(size, at + PART)))).status).toBe(200);
    };
    await send(0, 4 * PART);
    expect(isOnDisk(served.folder, file.filler.subarray(1000, 1064))).toBe(false);
    await send(4 * PART, size);
    const finished = await served.call('POST', `/api/v1/uploads/${id}/finish`, {
      title: 'A large one',
      reference: 'LARGE-1',
    });
    expect(await finished.json()).toMatchObject({ id: expect.stringMatching(/^doc_/) as string });
    console.log(
      `256 MiB over HTTP: ${String(Math.round(idle))} MiB idle, ${String(Math.round(peak - idle))} MiB more at most`,
    );
    expect(peak - idle).toBeLessThan(150);
  }, 180_000);

  test.each(HOSTILE_FILES)(
    'that is hostile, $name, is answered with its own sentence',
    async ({ make, codes, sentence, mayPass }) => {
      const bytes = await make();
      const id = await begin(bytes.length);
      const sent = await put(id, 0, bytes);
      const answer = sent.ok
        ? await served.call('POST', `/api/v1/uploads/${id}/finish`, {
            title: 'Hostile',
            reference: id,
          })
        : sent;
      if (mayPass === true && answer.ok) return;
      expect(answer.status).toBe(422);
      const { error } = (await answer.json()) as {
        readonly error: { readonly code: string; readonly message: string };
      };
      expect(codes).toContain(error.code);
      expect(error.message).toMatch(sentence);
      expect(readdirSync(path.join(served.folder, 'incoming'))).toEqual([]);
    },
    60_000,
  );

  test('beyond 1 GiB, empty, or in a part of another length than announced is refused in words', async () => {
    expect(
      await (
        await served.call('POST', '/api/v1/uploads', { fileName: 'a.pdf', bytes: MAX_DOCUMENT + 1 })
      ).json(),
    ).toMatchObject({ error: { code: 'TOO_LARGE' } });
    expect(
      await (await served.call('POST', '/api/v1/uploads', { fileName: 'a.pdf', bytes: 0 })).json(),
    ).toMatchObject({ error: { code: 'EMPTY_FILE' } });
    const bytes = await drawing(1);
    const longer = await begin(bytes.length - 5);
    expect(await (await put(longer, 0, bytes)).json()).toMatchObject({
      error: { code: 'WRONG_LENGTH' },
    });
    expect((await served.call('DELETE', `/api/v1/uploads/${longer}`)).status).toBe(200);
  });
});
