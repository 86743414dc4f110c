import { createHash } from 'node:crypto';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';
import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { canonicalJson, type Json } from '@/core/ledger/canonical';
import { openCheckpoint, signCheckpoint } from '@/core/ledger/checkpoint';
import { commitmentOf } from '@/core/ledger/commitment';
import { writeEntry, type LedgerEvent } from '@/core/ledger/entry';
import { applyEntry, differences, emptyAccess } from '@/core/ledger/fold';
import { GENESIS, type Hash } from '@/core/ledger/hash';
import { EMPTY_TREE, appendLeaf, leafHash, treeRoot } from '@/core/ledger/merkle';
import { LedgerWalk, type StoredEntry } from '@/core/ledger/verify';
import { fromUtf8, utf8 } from '@/core/base/bytes';
import { nodeHash } from '@/server/vault/node-hash';
import { newSigningKey, signerOf, verifyEd25519 } from '@/server/vault/vault';

describe('canonical JSON', () => {
  test('sorts by UTF-16 code units and spells numbers as RFC 8785 does', () => {
    // The examples of RFC 8785 §3.2.2 and §3.2.3, as far as they are values our records hold.
    expect(
      canonicalJson({
        numbers: [333333333.33333329, 1e30, 4.5, 2e-3, 1e-27],
        literals: [null, true, false],
      }),
    ).toBe('{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27]}');
    expect(
      canonicalJson({
        '€': 'Euro',
        '\r': 'CR',
        '\ufb33': 'Hebrew',
        '1': 'One',
        '😂': 'Emoji',
        '\u0080': 'Control',
        ö: 'o',
      }),
    ).toBe(
      '{"\\r":"CR","1":"One","\u0080":"Control","ö":"o","€":"Euro","😂":"Emoji","\ufb33":"Hebrew"}',
    );
  });

  test.each<[string, Json]>([
    ['a number that is not finite', { a: Number.NaN }],
    ['a lone surrogate', 'a\ud800'],
    ['a lone surrogate as key', { '\udc00': 1 }],
  ])('refuses %s', (_name, value) => {
    expect(() => canonicalJson(value)).toThrow(
      expect.objectContaining({ code: 'NOT_CANONICAL' }) as Error,
    );
  });

  prop.prop([fc.jsonValue({ stringUnit: 'binary' })])(
    'says the same as JSON, in one line, whatever order members came in',
    (value) => {
      const text = canonicalJson(value as Json);
      expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(value)));
      expect(text).not.toContain('\n');
      expect(canonicalJson(JSON.parse(text) as Json)).toBe(text);
    },
  );
});

/** RFC 6962 §2.1 word for word, as a second implementation. */
function mth(leaves: readonly Uint8Array[], hash: Hash): Uint8Array {
  if (leaves.length === 0) return hash();
  if (leaves.length === 1) return hash(Uint8Array.of(0), leaves[0] ?? new Uint8Array(0));
  const split = 2 ** Math.floor(Math.log2(leaves.length - 1));
  return hash(Uint8Array.of(1), mth(leaves.slice(0, split), hash), mth(leaves.slice(split), hash));
}

describe('the tree', () => {
  // Roots of the reference tests of certificate transparency: eight inputs of growing length.
  const inputs = [
    '',
    '00',
    '10',
    '2021',
    '3031',
    '40414243',
    '5051525354555657',
    '606162636465666768696a6b6c6d6e6f',
  ].map((hex) => fromUtf8(hexToBytes(hex)));
  const roots = [
    '6e340b9cffb37a989ca544e6bb780a2c78901d3fb33738768511a30617afa01d',
    'fac54203e7cc696cf0dfcb42c92a1d9dbaf70ad9e621f4bd8d98662f00e3c125',
    'aeb6bcfe274b70a14fb067a5e5578264db0fa9b51af5e0ba159158f329e06e77',
    'd37ee418976dd95753c1c73862b9398fa2a2cf9b4ff0fdfe8b30cd95209614b7',
    '4e3bbb1f7b478dcfe71fb631631519a3bca12c9aefca1612bfce4c13a86264d4',
    '76e67dadbcdf1e10e1b74ddc608abd2f98dfb16fbce75277b5232a127f2087ef',
    'ddb89be403809e325750d3d263cd78929c2942b7942a34b77e122c9594a74c8c',
    '5dc9da79a70659a9ad559cb701ded9a2ab9d823aad2f4960cfe370eff4604328',
  ];

  test('has the published roots', () => {
    let tree = EMPTY_TREE;
    const found = inputs.map((input) => {
      tree = appendLeaf(tree, leafHash(input, nodeHash), nodeHash);
      return bytesToHex(treeRoot(tree, nodeHash));
    });
    expect(found).toEqual(roots);
  });

  prop.prop([fc.array(fc.string({ unit: 'grapheme', maxLength: 8 }), { maxLength: 70 })])(
    'agrees with the definition',
    (leaves) => {
      const tree = leaves.reduce(
        (grown, leaf) => appendLeaf(grown, leafHash(leaf, nodeHash), nodeHash),
        EMPTY_TREE,
      );
      expect(bytesToHex(treeRoot(tree, nodeHash))).toBe(
        bytesToHex(mth(leaves.map(utf8), nodeHash)),
      );
    },
  );
});

test('a checkpoint opens with its key alone, and only unaltered', () => {
  const { privateKey, publicKey } = newSigningKey();
  const root = nodeHash(utf8('root'));
  const text = signCheckpoint(
    { origin: 'embargo-ledger', size: 7, root },
    signerOf(privateKey, publicKey),
    nodeHash,
  );
  expect(text.split('\n')[1]).toBe('7');
  expect(openCheckpoint(text, publicKey, nodeHash, verifyEd25519)).toEqual({
    origin: 'embargo-ledger',
    size: 7,
    root,
  });
  for (const altered of [
    text.replace('\n7\n', '\n8\n'),
    text.replace('embargo-ledger\n7', 'other-ledger\n7'),
    text.slice(0, -4),
    text.replaceAll('—', '-'),
  ]) {
    expect(() => openCheckpoint(altered, publicKey, nodeHash, verifyEd25519)).toThrow(
      expect.objectContaining({ code: 'BAD_CHECKPOINT' }) as Error,
    );
  }
  expect(() => openCheckpoint(text, newSigningKey().publicKey, nodeHash, verifyEd25519)).toThrow(
    'not signed',
  );
});

test('a commitment depends on salt, field and value, and needs a salt of 128 bits', () => {
  const salt = new Uint8Array(16);
  const expected = createHash('sha256')
    .update(salt)
    .update('address\0mira@brackwater.example')
    .digest('hex');
  expect(commitmentOf('address', 'mira@brackwater.example', salt, nodeHash)).toBe(expected);
  expect(commitmentOf('name', 'mira@brackwater.example', salt, nodeHash)).not.toBe(expected);
  expect(() => commitmentOf('address', 'x', new Uint8Array(8), nodeHash)).toThrow('No salt');
});

const happening = (over: Partial<LedgerEvent> = {}) =>
  ({
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: 'stf_1' },
    occurredAt: 1_700_000_000_000,
    ...over,
  }) as LedgerEvent;

function chain(events: readonly LedgerEvent[]): StoredEntry[] {
  let previous = GENESIS;
  return events.map((each, i) => {
    const text = writeEntry(
      each,
      { sequence: i + 1, previous },
      { address: new Uint8Array(16) },
      nodeHash,
    );
    previous = bytesToHex(leafHash(text, nodeHash));
    return { sequence: i + 1, text, hash: previous };
  });
}

function firstProblem(entries: readonly StoredEntry[]): { sequence: number; kind: string } | null {
  const walk = new LedgerWalk(nodeHash);
  for (const entry of entries) {
    const step = walk.next(entry);
    if ('problem' in step) return { sequence: step.problem.sequence, kind: step.problem.kind };
  }
  return null;
}

describe('walking a stored ledger', () => {
  const good = chain([
    happening(),
    happening({ personal: { address: 'mira@brackwater.example' } }),
    happening(),
    happening(),
  ]);
  const [first, second, third, fourth] = good as [
    StoredEntry,
    StoredEntry,
    StoredEntry,
    StoredEntry,
  ];
  /** What somebody with the database would do: alter the text and keep its hash in step. */
  const rehashed = (entry: StoredEntry, text: string): StoredEntry => ({
    ...entry,
    text,
    hash: bytesToHex(leafHash(text, nodeHash)),
  });

  test('finds nothing in one that is whole, and no personal value in it', () => {
    expect(firstProblem(good)).toBeNull();
    expect(second.text).not.toContain('mira');
  });

  test.each<[string, StoredEntry[], { sequence: number; kind: string }]>([
    [
      'an altered text',
      [first, { ...second, text: second.text.replace('done', 'granted') }, third, fourth],
      { sequence: 2, kind: 'altered' },
    ],
    [
      'an altered text with its hash in step',
      [first, rehashed(second, second.text.replace('done', 'granted')), third, fourth],
      { sequence: 3, kind: 'chain-broken' },
    ],
    ['a missing entry', [first, third, fourth], { sequence: 2, kind: 'out-of-sequence' }],
    [
      'two entries changed round',
      [first, third, second, fourth],
      { sequence: 2, kind: 'out-of-sequence' },
    ],
    [
      'a number that is not its own',
      [first, rehashed(second, second.text.replace('"sequence":2', '"sequence":9')), third, fourth],
      { sequence: 2, kind: 'malformed' },
    ],
  ])('names %s', (_name, entries, problem) => {
    expect(firstProblem(entries)).toEqual(problem);
  });

  prop.prop([fc.nat(3), fc.nat(10_000), fc.integer({ min: 1, max: 255 })])(
    'sees any flipped byte of any entry',
    (which, at, flip) => {
      const entry = good[which] ?? first;
      const bytes = utf8(entry.text);
      const place = at % bytes.length;
      bytes[place] = (bytes[place] ?? 0) ^ flip;
      const altered = good.map((each) =>
        each === entry ? { ...each, text: new TextDecoder().decode(bytes) } : each,
      );
      expect(firstProblem(altered)).not.toBeNull();
    },
  );
});

test('folding the ledger shows grants that were slipped in, widened, revived or lost', () => {
  const state = emptyAccess();
  const entries = chain([
    happening({ action: 'grant.given', grant: 'grt_1', details: { terms: 'read' } }),
    happening({ action: 'grant.given', grant: 'grt_2', details: { terms: 'read' } }),
    happening({
      action: 'grant.changed',
      grant: 'grt_2',
      details: { before: 'read', terms: 'read+copy' },
    }),
    happening({ action: 'grant.revoked', grant: 'grt_1' }),
    happening({ action: 'document.revoked', document: 'doc_1' }),
  ]);
  const walk = new LedgerWalk(nodeHash);
  for (const stored of entries) {
    const step = walk.next(stored);
    if ('entry' in step) applyEntry(state, step.entry);
  }
  const tables = (
    one: { terms: string; revoked: boolean },
    two: { terms: string; revoked: boolean },
  ) => ({
    grants: new Map([
      ['grt_1' as const, one],
      ['grt_2' as const, two],
    ]),
    revokedDocuments: new Set(['doc_1' as const]),
  });
  const asRecorded = tables(
    { terms: 'read', revoked: true },
    { terms: 'read+copy', revoked: false },
  );
  expect(differences(state, asRecorded)).toEqual([]);
  expect(
    differences(
      state,
      tables({ terms: 'read', revoked: false }, { terms: 'read+copy', revoked: false }),
    ),
  ).toEqual(['grt_1 is live in the database and revoked on the ledger']);
  expect(
    differences(
      state,
      tables({ terms: 'read', revoked: true }, { terms: 'read+keep', revoked: false }),
    )[0],
  ).toMatch('terms that were never recorded');
  asRecorded.grants.set('grt_3' as never, { terms: 'read', revoked: false });
  asRecorded.grants.delete('grt_2');
  asRecorded.revokedDocuments.clear();
  expect(differences(state, asRecorded)).toHaveLength(3);
});
