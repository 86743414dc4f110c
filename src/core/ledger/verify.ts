import { bytesToHex } from '@noble/hashes/utils.js';
import { equalBytes } from '@/core/base/bytes';
import type { Checkpoint } from '@/core/ledger/checkpoint';
import type { Entry } from '@/core/ledger/entry';
import { GENESIS, type Hash } from '@/core/ledger/hash';
import { EMPTY_TREE, appendLeaf, leafHash, treeRoot, type Frontier } from '@/core/ledger/merkle';

/** The first thing found wrong, with the sequence number at which it shows. */
export type Problem = {
  readonly sequence: number;
  readonly kind:
    | 'malformed'
    | 'out-of-sequence'
    | 'altered'
    | 'chain-broken'
    | 'checkpoint-differs'
    | 'personal-differs'
    | 'personal-missing'
    | 'state-differs'
    | 'checkpoint-missing'
    | 'columns-differ'
    | 'counts-differ'
    | 'end-differs'
    | 'end-foreign'
    | 'row-foreign'
    | 'rows-missing'
    | 'reported';
  readonly detail: string;
};

/** What is stored for one entry: its text, and the hash kept beside it. */
export type StoredEntry = {
  readonly sequence: number;
  readonly text: string;
  readonly hash: string;
};

/**
 * Walks a stored ledger from its first entry on. An entry's hash is its RFC 6962 leaf hash, so the
 * one hash serves both the chain (`previous`) and the tree that checkpoints sign.
 */
export class LedgerWalk {
  #tree: Frontier = EMPTY_TREE;
  #last = GENESIS;

  constructor(private readonly hash: Hash) {}

  get size(): number {
    return this.#tree.size;
  }

  /** The hash of the last entry, in hex. */
  get last(): string {
    return this.#last;
  }

  get root(): Uint8Array {
    return treeRoot(this.#tree, this.hash);
  }

  /** Takes the next entry: the parsed entry, or the problem that ends the walk. */
  next(stored: StoredEntry): { readonly entry: Entry } | { readonly problem: Problem } {
    const expected = this.#tree.size + 1;
    if (stored.sequence !== expected)
      return problem(
        expected,
        'out-of-sequence',
        `entry ${String(expected)} is missing; entry ${String(stored.sequence)} follows`,
      );
    const leaf = leafHash(stored.text, this.hash);
    const hex = bytesToHex(leaf);
    if (hex !== stored.hash)
      return problem(expected, 'altered', `its text no longer has the hash kept beside it`);
    const entry = parseEntry(stored.text);
    if (entry?.sequence !== expected)
      return problem(expected, 'malformed', 'its text is not an entry with this number');
    if (entry.previous !== this.#last)
      return problem(expected, 'chain-broken', 'it does not follow the entry before it');
    this.#tree = appendLeaf(this.#tree, leaf, this.hash);
    this.#last = hex;
    return { entry };
  }

  /** Compares with a checkpoint whose size the walk has just reached. */
  compare(checkpoint: Checkpoint): Problem | null {
    if (checkpoint.size === this.size && equalBytes(checkpoint.root, this.root)) return null;
    return {
      sequence: checkpoint.size,
      kind: 'checkpoint-differs',
      detail: 'the entries up to here are not those the signed checkpoint stands for',
    };
  }
}

function problem(
  sequence: number,
  kind: Problem['kind'],
  detail: string,
): { readonly problem: Problem } {
  return { problem: { sequence, kind, detail } };
}

/** Checks the shape only as far as the walk relies on it: what was hashed was written by us. */
function parseEntry(text: string): Entry | null {
  try {
    const value = JSON.parse(text) as Partial<Entry> | null;
    return value !== null &&
      typeof value === 'object' &&
      value.v === 1 &&
      typeof value.previous === 'string'
      ? (value as Entry)
      : null;
  } catch {
    return null;
  }
}

/** What came of verifying a ledger. */
export type Verification = {
  readonly entries: number;
  readonly checkpoints: number;
  /** How many entries the newest signed checkpoint covers. */
  readonly signed: number;
  /** How many of them a checkpoint from outside the database covers; null: none was at hand. */
  readonly witnessed: number | null;
  /** Whether rows that decide were checked against their seals. */
  readonly sealed: boolean;
  /** Entries whose time lies before that of the entry ahead of them: a clock was set back. */
  readonly backwards: number;
  readonly problems: readonly Problem[];
};
