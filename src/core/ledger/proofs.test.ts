import { createHash } from 'node:crypto';
import { fc, test as prop } from '@fast-check/vitest';
import { expect, test } from 'vitest';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';
import type { Hash } from '@/core/ledger/hash';
import { appendLeaf, EMPTY_TREE, leafHash, treeRoot } from '@/core/ledger/merkle';
import { InclusionProofs, rootOf } from '@/core/ledger/proofs';

const hash: Hash = (...parts) => {
  const sum = createHash('sha256');
  for (const part of parts) sum.update(part);
  return new Uint8Array(sum.digest());
};

function pathsIn(
  leaves: readonly Uint8Array[],
  wanted: readonly number[],
): ReadonlyMap<number, readonly Uint8Array[]> {
  const proofs = new InclusionProofs(wanted, hash);
  for (const leaf of leaves) proofs.add(leaf);
  return proofs.finish();
}

// The tree of seven leaves that RFC 6962 §2.1.3 draws, over the leaves that the test vectors of
// Certificate Transparency use.
const LEAVES = ['', '00', '10', '2021', '3031', '40414243', '5051525354555657'].map((hex) =>
  hash(Uint8Array.of(0), hexToBytes(hex)),
);
const node = (left: Uint8Array, right: Uint8Array): Uint8Array =>
  hash(Uint8Array.of(1), left, right);
const at = (index: number): Uint8Array => LEAVES[index] ?? new Uint8Array();
const [g, h, i] = [node(at(0), at(1)), node(at(2), at(3)), node(at(4), at(5))];
const [k, l] = [node(g, h), node(i, at(6))];

test.each([
  [0, [at(1), h, l]],
  [3, [at(2), g, l]],
  [4, [at(5), at(6), k]],
  [6, [i, k]],
])('the path of d%i in the tree of the RFC is the one it names', (index, path) => {
  expect(pathsIn(LEAVES, [index]).get(index)?.map(bytesToHex)).toEqual(path.map(bytesToHex));
  expect(rootOf(at(index), index, 7, path, hash)).toEqual(node(k, l));
});

prop.prop([fc.integer({ min: 1, max: 200 }), fc.array(fc.nat(), { minLength: 1, maxLength: 8 })])(
  'every leaf is proven in a tree of any size, and nowhere else',
  (size, picks) => {
    const leaves = Array.from({ length: size }, (_, n) => leafHash(String(n), hash));
    let tree = EMPTY_TREE;
    for (const leaf of leaves) tree = appendLeaf(tree, leaf, hash);
    const root = treeRoot(tree, hash);
    const wanted = [...new Set(picks.map((pick) => pick % size))];
    for (const [index, path] of pathsIn(leaves, wanted)) {
      const leaf = leaves[index] ?? new Uint8Array();
      expect(rootOf(leaf, index, size, path, hash)).toEqual(root);
      expect(rootOf(leafHash('another', hash), index, size, path, hash)).not.toEqual(root);
      expect(rootOf(leaf, (index + 1) % size, size, path, hash)).toEqual(
        size === 1 ? root : expect.not.arrayContaining([...root, 0]),
      );
      expect(rootOf(leaf, index, size, [...path, leaf], hash)).toBeNull();
      expect(rootOf(leaf, size, size, path, hash)).toBeNull();
    }
  },
);
