import type { Hash } from '@/core/ledger/hash';

const NODE = Uint8Array.of(0x01);

/** RFC 6962 §2.1: leaves are hashed behind 0x00, nodes behind 0x01, so that neither passes for the other. */
export function leafHash(leaf: string, hash: Hash): Uint8Array {
  // U+0000 is the byte 0x00 in UTF-8.
  return hash(`\0${leaf}`);
}

/**
 * The right edge of a growing RFC 6962 tree: the roots of its complete subtrees, largest first.
 * All that appending and the tree's root need, however many entries stand behind it.
 */
export type Frontier = { readonly size: number; readonly nodes: readonly Uint8Array[] };

export const EMPTY_TREE: Frontier = { size: 0, nodes: [] };

/** The tree with one more leaf, given by its leaf hash. */
export function appendLeaf({ size, nodes }: Frontier, leaf: Uint8Array, hash: Hash): Frontier {
  const kept = nodes.slice();
  let node = leaf;
  // Every 1 bit at the low end of `size` is a complete subtree that the new leaf completes further.
  for (let rest = size; rest % 2 === 1; rest = Math.floor(rest / 2)) {
    const left = kept.pop();
    if (left !== undefined) node = hash(NODE, left, node);
  }
  kept.push(node);
  return { size: size + 1, nodes: kept };
}

/** Merkle Tree Hash (RFC 6962 §2.1): of nothing, the hash of nothing. */
export function treeRoot({ nodes }: Frontier, hash: Hash): Uint8Array {
  const last = nodes.at(-1);
  if (last === undefined) return hash();
  return nodes.slice(0, -1).reduceRight((right, left) => hash(NODE, left, right), last);
}
