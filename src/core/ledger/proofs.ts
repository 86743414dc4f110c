import type { Hash } from '@/core/ledger/hash';

const NODE = Uint8Array.of(0x01);

/** A complete subtree: its root, how many leaves it holds, and which of the wanted leaves are among them. */
type Subtree = {
  readonly root: Uint8Array;
  readonly leaves: number;
  readonly wanted: readonly number[];
};

/**
 * The audit paths (RFC 6962 §2.1.1) of some leaves in the tree over all of them, found in one pass.
 * An index counts from 0; a path goes from the leaf up.
 */
export class InclusionProofs {
  readonly #paths = new Map<number, Uint8Array[]>();
  readonly #stack: Subtree[] = [];
  #size = 0;

  constructor(
    wanted: Iterable<number>,
    private readonly hash: Hash,
  ) {
    for (const index of wanted) this.#paths.set(index, []);
  }

  /** Takes the next leaf, given by its leaf hash. */
  add(leaf: Uint8Array): void {
    let tree: Subtree = {
      root: leaf,
      leaves: 1,
      wanted: this.#paths.has(this.#size) ? [this.#size] : [],
    };
    this.#size++;
    for (;;) {
      const left = this.#stack.at(-1);
      if (left?.leaves !== tree.leaves) break;
      this.#stack.pop();
      tree = this.#join(left, tree);
    }
    this.#stack.push(tree);
  }

  /** The paths once every leaf was taken. */
  finish(): ReadonlyMap<number, readonly Uint8Array[]> {
    const [last, ...before] = this.#stack.toReversed();
    if (last !== undefined) before.reduce((right, left) => this.#join(left, right), last);
    return this.#paths;
  }

  #join(left: Subtree, right: Subtree): Subtree {
    for (const index of left.wanted) this.#paths.get(index)?.push(right.root);
    for (const index of right.wanted) this.#paths.get(index)?.push(left.root);
    return {
      root: this.hash(NODE, left.root, right.root),
      leaves: left.leaves + right.leaves,
      wanted: [...left.wanted, ...right.wanted],
    };
  }
}

/**
 * The root of a tree of `size` leaves that a leaf and its audit path lead to (RFC 9162 §2.1.3.2);
 * `null` where the path cannot belong to that place.
 */
export function rootOf(
  leaf: Uint8Array,
  index: number,
  size: number,
  path: readonly Uint8Array[],
  hash: Hash,
): Uint8Array | null {
  if (index >= size) return null;
  let [at, last, root] = [index, size - 1, leaf];
  for (const node of path) {
    if (last === 0) return null;
    if (at % 2 === 1 || at === last) {
      root = hash(NODE, node, root);
      while (at % 2 === 0 && at !== 0) [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
    } else {
      root = hash(NODE, root, node);
    }
    [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
  }
  return last === 0 ? root : null;
}
