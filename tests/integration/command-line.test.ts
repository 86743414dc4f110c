// The command line, as somebody types it: files in, protected files out, and back with other people's tools.
import { execFileSync, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { generateHybridIdentity, identityToRecipient } from 'age-encryption';
import { lockIdentity } from '@/core/age/identity-file';
import { changeRecoveryKey } from '@/server/services/keys/manage-keys';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { documents } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { realDocument } from '../support/real-documents';
import { runCommand, type Ran } from '../support/command';
import { drawing, filesIn, isOnDisk, startProduct, type Product } from '../support/product';

let product: Product;
let clear: Buffer;
const at = (name: string): string => path.join(product.folder, 'work', name);
const run = (...args: string[]): Promise<Ran> => runCommand(args, { DATA_DIR: product.folder });
const protectOne = async (...more: string[]): Promise<string> => {
  const { code, out, err } = await run(
    'protect',
    at('Lines plan.pdf'),
    '--to',
    'mira@yard.example',
    '--reference',
    `CLI-${String(Math.random())}`,
    '--out',
    at('out'),
    '--again',
    '--json',
    ...more,
  );
  expect([code, err]).toEqual([0, '']);
  return (JSON.parse(out) as { files: string[] }).files[0] ?? '';
};

beforeAll(async () => {
  product = await startProduct();
  clear = Buffer.from(await drawing(2));
  execFileSync('mkdir', ['-p', at('out')]);
  writeFileSync(at('Lines plan.pdf'), clear);
  writeFileSync(at('key.txt'), `# a remark\n${product.privateKey}\n`);
});
afterAll(() => product.close());

describe('help', () => {
  test('names every command, and each explains itself', async () => {
    const { code, out } = await run('--help');
    expect(code).toBe(0);
    for (const name of [
      'protect',
      'inspect',
      'recover',
      'ledger verify',
      'ledger export',
      'key rotate',
      'backup',
      'restore',
    ]) {
      expect(out).toContain(`  ${name}`);
      const own = await run(...name.split(' '), '--help');
      expect([own.code, own.out.startsWith(`npm run embargo -- ${name}`)]).toEqual([0, true]);
    }
  });

  test.each([
    [['bogus']],
    [['protect']],
    [['protect', 'nowhere.pdf', '--to', 'a@b.example']],
    [['recover', 'x']],
    [['inspect']],
    [['ledger', 'verify', '--bogus']],
    [['restore', 'x', '--into', '/tmp/never']],
    [['recover', 'a', 'b', '--identity', 'k']],
  ])('%j is not understood: exit code 2 and a sentence', async (args) => {
    const { code, err } = await run(...args);
    expect(code).toBe(2);
    expect(err).toMatch(/^[A-Z“-].*[.:]\n/);
  });

  test('without a database it says which setting is missing', async () => {
    expect(await runCommand(['ledger', 'verify'], { DATA_DIR: '/nowhere' })).toMatchObject({
      code: 2,
      err: expect.stringContaining('Set DATA_DIR') as string,
    });
  });
});

describe('protect', () => {
  test('writes one file an organisation, which pdfdetach and age open, and gives exactly that access', async () => {
    const { code, out } = await run(
      'protect',
      at('Lines plan.pdf'),
      '--to',
      'Mira Kolbe <mira@yard.example>; jonas@yard.example, ansel@other.example',
      '--out',
      at('several'),
      '--subject',
      'For you',
    );
    expect(code).toBe(0);
    expect(readdirSync(at('several')).sort()).toEqual([
      'LINES-PLAN - for other.example.pdf',
      'LINES-PLAN - for yard.example.pdf',
    ]);
    for (const name of readdirSync(at('several'))) {
      expect(
        execFileSync('qpdf', ['--check', at(`several/${name}`)], { encoding: 'utf8' }),
      ).toContain('No syntax or stream encoding errors');
      execFileSync('pdfdetach', ['-save', '1', '-o', at('x.age'), at(`several/${name}`)]);
      expect(execFileSync('age', ['-d', '-i', at('key.txt'), at('x.age')]).equals(clear)).toBe(
        true,
      );
    }
    expect(out).toContain('LINES-PLAN - for yard.example.pdf');
    const given = await product.deps.db.read.select().from(grants);
    expect(given.filter(({ rights }) => rights.join() === 'read')).toHaveLength(3);
    expect((await run('ledger', 'verify')).code).toBe(0);
  });

  test('keeps the content out of the store where it is asked to, and the file opens all the same', async () => {
    const secret = randomBytes(48);
    writeFileSync(at('Offer.pdf'), Buffer.concat([clear, Buffer.from('\n%'), secret]));
    const { code, out, err } = await run(
      'protect',
      at('Offer.pdf'),
      '--to',
      'mira@yard.example',
      '--local',
      '--out',
      at('out'),
      '--json',
    );
    expect([code, err]).toEqual([0, '']);
    const [file = ''] = (JSON.parse(out) as { files: string[] }).files;
    execFileSync('pdfdetach', ['-save', '1', '-o', at('offer.age'), file]);
    const plain = execFileSync('age', ['-d', '-i', at('key.txt'), at('offer.age')]);
    expect(plain.includes(secret)).toBe(true);
    expect(isOnDisk(path.join(product.folder, 'blobs'), secret)).toBe(false);
    const stored = filesIn(path.join(product.folder, 'blobs')).map((name) => statSync(name).size);
    expect(Math.min(...stored)).toBeLessThan(1_000);
    const wrong = await run(
      'protect',
      at('Offer.pdf'),
      '--to',
      'a@b.example',
      '--local',
      '--mail',
      'both',
    );
    expect(wrong.code).toBe(2);
  });

  test('what is no PDF, is protected already, or cannot be sent, leaves nothing behind', async () => {
    writeFileSync(at('notes.pdf'), 'Dear all');
    const files = filesIn(product.folder).length;
    const before = (await product.deps.db.read.select().from(documents)).length;
    expect(await run('protect', at('notes.pdf'), '--to', 'a@b.example')).toMatchObject({
      code: 1,
      err: expect.stringContaining('not a PDF') as string,
    });
    expect(await run('protect', at('Lines plan.pdf'), '--to', 'a@b.example')).toMatchObject({
      code: 1,
      err: expect.stringContaining('protected already') as string,
    });
    expect(await run('protect', at('Lines plan.pdf'), '--to', 'no address')).toMatchObject({
      code: 2,
    });
    expect(
      await run('protect', at('Lines plan.pdf'), '--to', 'a@b.example', '--terms', 'None such'),
    ).toMatchObject({ code: 2 });
    expect((await product.deps.db.read.select().from(documents)).length).toBe(before);
    expect(filesIn(product.folder).length).toBe(files);
  });

  test('on a full disk it says so, and no file is half there', async () => {
    writeFileSync(at('Long.pdf'), realDocument('usage'));
    const { out } = await run(
      'protect',
      at('Long.pdf'),
      '--to',
      'mira@yard.example',
      '--out',
      at('out'),
      '--json',
    );
    const [file = ''] = (JSON.parse(out) as { files: string[] }).files;
    // No file may grow beyond 200 KiB there: what the system says then is what a full disk says.
    const script =
      `ulimit -f 200; trap '' XFSZ; npx tsx --conditions=react-server src/cli/main.ts recover '${file}' ` +
      `--identity '${at('key.txt')}' --out '${at('full.pdf')}'`;
    const { status, stderr } = spawnSync('bash', ['-c', script], { encoding: 'utf8' });
    expect(status).toBe(1);
    expect(stderr).toContain('There is no room left to write');
    expect(readdirSync(at('')).filter((name) => name.startsWith('full'))).toEqual([]);
  }, 60_000);
});

describe('recover', () => {
  test('opens without server or database, by a key in the clear or kept by two people', async () => {
    const file = await protectOne();
    expect(
      await runCommand(['recover', file, '--identity', at('key.txt'), '--out', at('back.pdf')], {
        DATA_DIR: '/nowhere',
      }),
    ).toMatchObject({ code: 0 });
    expect(readFileSync(at('back.pdf')).equals(clear)).toBe(true);

    writeFileSync(
      at('locked.txt'),
      await lockIdentity(
        readFileSync(at('key.txt'), 'utf8'),
        ['the second person', 'the first person'],
        10,
      ),
    );
    writeFileSync(at('p1'), 'the first person\n');
    writeFileSync(at('p2'), 'the second person\n');
    expect(
      await run(
        'recover',
        file,
        '--identity',
        at('locked.txt'),
        '--passphrase-file',
        at('p1'),
        '--passphrase-file',
        at('p2'),
        '--json',
      ),
    ).toMatchObject({ code: 0, out: expect.stringContaining('.recovered.pdf') as string });
    expect(
      await run('recover', file, '--identity', at('locked.txt'), '--passphrase-file', at('p1')),
    ).toMatchObject({ code: 1, err: expect.stringContaining('passphrase') as string });
    expect(
      await run('recover', file, '--identity', at('locked.txt'), '--passphrase-file', at('p2')),
    ).toMatchObject({ code: 1, err: 'That passphrase does not open this key.\n' });
  });

  test('a destroyed key is no hindrance to it; a document left out of recovery stays shut', async () => {
    const file = await protectOne();
    const [document] = (await product.deps.db.read.select().from(documents)).slice(-1);
    await destroyKey(product.deps, product.ida, {
      id: document?.id ?? 'doc_',
      typed: document?.reference ?? '',
    });
    expect((await run('inspect', file)).out).toContain('KEY DESTROYED');
    expect(
      (await run('recover', file, '--identity', at('key.txt'), '--out', at('kept.pdf'))).code,
    ).toBe(0);
    const left = await protectOne('--no-recovery');
    expect((await run('inspect', left)).out).toContain('no way in for a recovery key');
    expect(await run('recover', left, '--identity', at('key.txt'))).toMatchObject({
      code: 1,
      err: expect.stringContaining('cannot be decrypted') as string,
    });
  });

  test('every broken file is refused in one sentence, and leaves nothing', async () => {
    const file = readFileSync(await protectOne());
    const offset = file.indexOf('age-encryption.org/v1\n');
    const broken: [string, Buffer][] = [
      ['empty', Buffer.alloc(0)],
      ['text', Buffer.from('Dear all')],
      ['cut', file.subarray(0, file.length - 900)],
      ['twice', Buffer.concat([file, file])],
      ['clear', clear],
      ['altered', Buffer.from(file.map((byte, i) => (i === offset + 1000 ? byte ^ 1 : byte)))],
      [
        'long-header',
        Buffer.concat([Buffer.from('age-encryption.org/v1\n-> x y\n'), Buffer.alloc(3 << 20, 'a')]),
      ],
      [
        'newer',
        Buffer.from(
          file.toString('latin1').replace('%embargo protected file 1', '%embargo protected file 7'),
          'latin1',
        ),
      ],
    ];
    for (const [name, bytes] of broken) {
      writeFileSync(at(`${name}.pdf`), bytes);
      const { code, err } = await run(
        'recover',
        at(`${name}.pdf`),
        '--identity',
        at('key.txt'),
        '--out',
        at(`${name}.out`),
      );
      expect([name, code]).toEqual([name, 1]);
      expect(err.trim().split('\n')).toHaveLength(1);
    }
    expect(
      filesIn(product.folder).filter((name) => name.endsWith('.out') || name.endsWith('.partial')),
    ).toEqual([]);
  });

  test('a post-quantum recovery key opens what was protected since, and inspect says which tool does', async () => {
    const identity = await generateHybridIdentity();
    await changeRecoveryKey(product.deps, product.ida, {
      recoveryKey: await identityToRecipient(identity),
    });
    writeFileSync(at('pq.txt'), `${identity}\n`);
    const file = await protectOne();
    expect((await run('inspect', file)).out).toContain('post-quantum');
    expect(
      (await run('recover', file, '--identity', at('pq.txt'), '--out', at('pq.pdf'))).code,
    ).toBe(0);
    expect(readFileSync(at('pq.pdf')).equals(clear)).toBe(true);
    await changeRecoveryKey(product.deps, product.ida, {
      recoveryKey: await identityToRecipient(product.privateKey),
    });
  });
});

describe('inspect', () => {
  test('tells its own people what it is, and others only that it is protected', async () => {
    const file = await protectOne('--title', 'Lines of the ferry');
    const own = await run('inspect', file);
    expect(own.out).toMatch(
      /Lines of the ferry, version 1[\s\S]*Made for mira@yard\.example[\s\S]*1 of 1 grants/,
    );
    expect(JSON.parse((await run('inspect', file, '--json')).out)).toMatchObject({
      found: { version: { number: 1, recoverable: true } },
    });
    const stranger = await runCommand(['inspect', file], { DATA_DIR: '/nowhere' });
    expect(stranger.code).toBe(0);
    expect(stranger.out).toContain('A protected file of http');
    expect(stranger.out).not.toMatch(/Lines|mira|CLI-/);
  });

  test('a stanza of another service is nobody here', async () => {
    const file = readFileSync(await protectOne());
    const text = file.toString('latin1');
    const version = /-> embargo (ver_[0-9a-z]{20})/.exec(text)?.[1] ?? '';
    writeFileSync(
      at('foreign.pdf'),
      Buffer.from(text.replace(version, 'ver_00000000000000000000'), 'latin1'),
    );
    expect(await run('inspect', at('foreign.pdf'))).toMatchObject({
      code: 0,
      out: expect.stringContaining('A protected file of') as string,
    });
  });
});
