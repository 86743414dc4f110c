// The protected file against the tools that anybody has: qpdf, poppler, and Debian's age.
import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { Encrypter, generateX25519Identity, identityToRecipient } from 'age-encryption';
import fc from 'fast-check';
import { afterAll, describe, expect, test } from 'vitest';
import { concatBytes, equalBytes, utf8 } from '@/core/base/bytes';
import { coverLanguages, coverWords } from '@/core/wrapper/cover-words';
import { WrapperError } from '@/core/wrapper/errors';
import { findPayload, type Payload } from '@/core/wrapper/read';
import { envelope } from '@/core/wrapper/write';
import { coverFacts, covers } from '../../../tests/support/covers';

const folder = mkdtempSync(path.join(tmpdir(), 'wrapper-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});
const at = (name: string): string => path.join(folder, name);

const NAME = 'TQ-412-001.age';
const cover = await covers.draw(coverFacts, new Uint8Array(16).fill(0xa5), NAME);

function wrap(payload: Uint8Array, own = cover): Uint8Array {
  const { head, tail } = envelope(own, payload.length, NAME);
  return concatBytes(head, payload, tail);
}

function find(file: Uint8Array): Promise<Payload> {
  return findPayload(
    (offset, length) => Promise.resolve(file.subarray(offset, offset + length)),
    file.length,
  );
}

const identity = await generateX25519Identity();
async function aged(plain: Uint8Array): Promise<Uint8Array> {
  const encrypter = new Encrypter();
  encrypter.addRecipient(await identityToRecipient(identity));
  return encrypter.encrypt(plain);
}

describe('with other tools', () => {
  test.each([
    ['a PDF', utf8('%PDF-1.7 not much of one')],
    ['nothing', new Uint8Array(0)],
    ['anything', new Uint8Array(randomBytes(70_000))],
  ])('qpdf finds nothing, pdfdetach takes it out, age opens it: %s', async (_kind, plain) => {
    writeFileSync(at('file.pdf'), wrap(await aged(plain)));
    writeFileSync(at('key'), `${identity}\n`);
    expect(execFileSync('qpdf', ['--check', at('file.pdf')], { encoding: 'utf8' })).toMatch(
      /PDF Version: 2\.0[\s\S]*No syntax or stream encoding errors found/,
    );
    execFileSync('pdfdetach', ['-save', '1', '-o', at('out.age'), at('file.pdf')]);
    expect(equalBytes(execFileSync('age', ['-d', '-i', at('key'), at('out.age')]), plain)).toBe(
      true,
    );
  });

  test('the cover is read aloud in order, in its language, with words for the picture', () => {
    writeFileSync(at('file.pdf'), wrap(new Uint8Array(10)));
    const spoken = execFileSync('pdfinfo', ['-struct-text', at('file.pdf')], { encoding: 'utf8' });
    const order = [
      'Tern & Quill',
      'was sent to you protected',
      'Ida Roe',
      'TQ-412-001',
      'General arrangement',
      'Brackwater Yard',
      'How to open it',
      '1.',
      '2.',
      '3.',
      coverFacts.link,
      'If you did not expect this',
      'age-encryption.org/v1',
    ];
    const places = order.map((words) => spoken.indexOf(words));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places).not.toContain(-1);
    expect(execFileSync('pdfinfo', [at('file.pdf')], { encoding: 'utf8' })).toMatch(
      /Tagged:\s+yes/,
    );
    const raw = execFileSync('qpdf', ['--qdf', '--object-streams=disable', at('file.pdf'), '-'], {
      encoding: 'latin1',
    });
    expect(raw).toMatch(/\/Lang \(en\)/);
    expect(raw).toContain('/AFRelationship /EncryptedPayload');
    expect(raw).toMatch(/\/Alt \(?<?/);
  });

  test('it is listed under the name the age file has', () => {
    writeFileSync(at('file.pdf'), wrap(new Uint8Array(10)));
    expect(execFileSync('pdfdetach', ['-list', at('file.pdf')], { encoding: 'utf8' })).toContain(
      NAME,
    );
  });

  test('a title that is withheld stands nowhere in the file', async () => {
    const quiet = await covers.draw({ ...coverFacts, title: null }, new Uint8Array(16), NAME);
    writeFileSync(at('quiet.pdf'), wrap(new Uint8Array(10), quiet));
    expect(execFileSync('pdftotext', [at('quiet.pdf'), '-'], { encoding: 'utf8' })).not.toContain(
      'General',
    );
    expect(execFileSync('pdfinfo', [at('quiet.pdf')], { encoding: 'utf8' })).not.toContain(
      'General',
    );
  });

  test('names of other scripts are drawn in their letters, those from the right in their order', async () => {
    const other = {
      ...coverFacts,
      language: 'ja',
      sender: 'ليلى المنصوري',
      organisation: 'Верфь «Нева»',
      title: '総配置図 γ',
      sentTo: '海事造船所',
    };
    writeFileSync(
      at('other.pdf'),
      wrap(new Uint8Array(10), await covers.draw(other, new Uint8Array(16), NAME)),
    );
    const text = execFileSync('pdftotext', ['-layout', at('other.pdf'), '-'], {
      encoding: 'utf8',
    });
    expect(text).toContain('Верфь «Нева»');
    expect(text).toContain('総配置図 γ');
    expect(text).toContain('保護された文書が届いています');
    expect(text.normalize('NFKC')).toContain('ليلى المنصور');
    expect(text).not.toContain('?');
  });

  test.each(coverLanguages)(
    'the cover fits one page and checks in %s, also with long names',
    async (language) => {
      const long = {
        ...coverFacts,
        language,
        organisation: 'Aktiengesellschaft für Schiffsvermessung und Hafenentwässerung '.repeat(2),
        title: 'Ζeichnung żółw '.repeat(8),
        sender: 'Ægir Ødegård-Łukaszewicz',
        sentTo: 'x'.repeat(100),
      };
      writeFileSync(
        at('long.pdf'),
        wrap(new Uint8Array(10), await covers.draw(long, new Uint8Array(16), NAME)),
      );
      expect(execFileSync('qpdf', ['--check', at('long.pdf')], { encoding: 'utf8' })).toContain(
        'No syntax or stream encoding errors',
      );
      const text = execFileSync('pdftotext', ['-layout', at('long.pdf'), '-'], {
        encoding: 'utf8',
      });
      expect(text).toContain('age-encryption.org/v1');
      expect(text).toContain('Łukaszewicz');
    },
  );

  test('a language we do not have is answered in English, a related one in its own', () => {
    expect(coverWords('th').language).toBe('en');
    expect(coverWords('nn-NO').language).toBe('nb');
    expect(coverWords(null).words.heading).toContain('protected');
  });
});

describe('finding the payload', () => {
  const payload = utf8('age-encryption.org/v1\n… this stands for an age file');
  const file = wrap(payload);

  test('gives where it is, and the link', async () => {
    const { offset, length, link } = await find(file);
    expect(equalBytes(file.subarray(offset, offset + length), payload)).toBe(true);
    expect(link).toBe(coverFacts.link);
  });

  test.each([
    ['nothing at all', new Uint8Array(0)],
    ['text', utf8('Dear all,')],
    ['an age file', payload],
    ['another PDF', readFileSync('build/real-documents/intro.pdf')],
    ['the cover without its payload', cover.pdf],
  ])('%s is no protected file', async (_name, bytes) => {
    await expect(find(bytes)).rejects.toMatchObject({ code: 'NOT_PROTECTED' });
  });

  test('one that was cut anywhere, or has something behind it, is refused', async () => {
    for (let length = cover.pdf.length; length < file.length; length += 7)
      await expect(find(file.subarray(0, length))).rejects.toBeInstanceOf(WrapperError);
    await expect(find(concatBytes(file, utf8('\n')))).rejects.toMatchObject({ code: 'DAMAGED' });
    await expect(find(concatBytes(file, file.subarray(0, 4000)))).rejects.toMatchObject({
      code: 'DAMAGED',
    });
  });

  test('two behind one another are read as the second, whole or not at all', async () => {
    await expect(find(concatBytes(file, file))).rejects.toBeInstanceOf(WrapperError);
  });

  test('one that another program saved anew says so', async () => {
    writeFileSync(at('ours.pdf'), file);
    execFileSync('qpdf', ['--object-streams=disable', at('ours.pdf'), at('anew.pdf')]);
    await expect(find(readFileSync(at('anew.pdf')))).rejects.toMatchObject({ code: 'DAMAGED' });
  });

  test('one of a version to come is told apart from a broken one', async () => {
    const text = Buffer.from(file)
      .toString('latin1')
      .replace('%embargo protected file 1 ', '%embargo protected file 2 ');
    await expect(find(Buffer.from(text, 'latin1'))).rejects.toMatchObject({ code: 'NEWER' });
  });

  test('whatever bytes are altered, it finds the same payload or refuses in its own words', async () => {
    const whole = await find(file);
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.tuple(
            fc.integer({ min: cover.pdf.length - 200, max: file.length - 1 }),
            fc.integer({ min: 1, max: 255 }),
          ),
          { minLength: 1, maxLength: 4 },
        ),
        async (changes) => {
          const altered = file.slice();
          for (const [place, by] of changes) altered[place] = (altered[place] ?? 0) ^ by;
          const found = await find(altered).catch((error: unknown) => error);
          expect(
            found instanceof WrapperError ||
              isDeepStrictEqual({ ...whole, link: '' }, { ...(found as Payload), link: '' }),
          ).toBe(true);
        },
      ),
      { numRuns: 1500 },
    );
  });

  test('a large one is found by reading a little of it', async () => {
    let read = 0;
    const size = 4_000_000_000;
    const { head, tail } = envelope(cover, size, NAME);
    const whole = head.length + size + tail.length;
    const reader = (offset: number, length: number): Promise<Uint8Array> => {
      read += length;
      const bytes = new Uint8Array(Math.min(length, whole - offset));
      for (let i = 0; i < bytes.length; i++) {
        const place = offset + i;
        bytes[i] =
          place < head.length
            ? (head[place] ?? 0)
            : place < head.length + size
              ? 0
              : (tail[place - head.length - size] ?? 0);
      }
      return Promise.resolve(bytes);
    };
    expect(await findPayload(reader, whole)).toMatchObject({ offset: head.length, length: size });
    expect(read).toBeLessThan(4000);
  });
});
