import { hexToBytes } from '@noble/hashes/utils.js';
import { equalBytes } from '@/core/base/bytes';
import { canonicalJson } from '@/core/ledger/canonical';
import { openCheckpoint } from '@/core/ledger/checkpoint';
import { LedgerError } from '@/core/ledger/errors';
import type { Hash } from '@/core/ledger/hash';
import { leafHash } from '@/core/ledger/merkle';
import { openNote, signNote, type Signer, type VerifySignature } from '@/core/ledger/note';
import { rootOf } from '@/core/ledger/proofs';

/** One person on one document after access was pulled back. Moments as ISO 8601 in UTC; empty: none. */
export type StatementRow = {
  readonly who: string;
  readonly address: string;
  readonly document: string;
  readonly dispatch: string;
  /**
   * `closed`: they open nothing of it; `offline`: they may go on reading what they opened; `open`:
   * they still come in.
   */
  readonly state: 'closed' | 'offline' | 'open';
  /** Since when they are shut out. */
  readonly since: string;
  /** Until when they can still read; empty with `open`: no end is set. */
  readonly until: string;
  readonly by: string;
  readonly reason: string;
  readonly ways: readonly string[];
  readonly tries: number;
  /** How often others tried by their link, or by what many were given. */
  readonly triesByOthers: number;
  readonly lastTry: string;
  readonly copies: readonly string[];
};

/** An entry of the ledger with its audit path (RFC 6962 §2.1.1) in the tree of the checkpoint, hashes in hex. */
export type ProvenEntry = {
  readonly sequence: number;
  readonly text: string;
  readonly path: readonly string[];
};

/** What came of pulling access back, as the ledger has it at one moment. */
export type Statement = {
  readonly v: 1;
  readonly organisation: string;
  readonly about: string;
  readonly madeAt: string;
  readonly madeBy: string;
  readonly rows: readonly StatementRow[];
  /** Open links of other dispatches by which anyone who has one still reads: document and dispatch. */
  readonly openLinks: readonly string[];
  readonly checkpoint: string;
  readonly entries: readonly ProvenEntry[];
};

/** The name that signs statements: none of them passes for a checkpoint. */
const nameOf = (origin: string): string => `${origin}/statement`;

const oneLine = (text: string): string => text.replaceAll(/\s+/g, ' ').trim();

function rowLine({
  who,
  address,
  document,
  dispatch,
  state,
  since,
  until,
  by,
  reason,
  ways,
  tries,
  triesByOthers,
  lastTry,
  copies,
}: StatementRow): string {
  const stands = {
    closed: `shut out since ${since}${by === '' ? '' : `, by ${by}`}${reason === '' ? '' : `: “${reason}”`}`,
    offline: `shut out since ${since}; may read what was opened before until ${until}`,
    open: `can still read${until === '' ? ', with no end set' : ` until ${until}`}: ${ways.join(', ')}`,
  }[state];
  const after =
    tries === 0
      ? 'has not tried since'
      : `has tried ${String(tries)} ${tries === 1 ? 'time' : 'times'} since, last at ${lastTry}`;
  const others =
    triesByOthers === 0
      ? ''
      : `; others have tried ${String(triesByOthers)} ${triesByOthers === 1 ? 'time' : 'times'} by what they were sent`;
  return oneLine(
    `${[who, address === '' || who === '' ? address : `<${address}>`].filter((part) => part !== '').join(' ')} ` +
      `| ${document} | ${dispatch} | ${stands} | ${after}${others} | ` +
      (copies.length === 0 ? 'nothing recorded as taken' : copies.join(', ')),
  );
}

/** What a person reads of it, a line each. */
function linesOf({
  organisation,
  about,
  madeAt,
  madeBy,
  rows,
  openLinks,
  entries,
}: Statement): string[] {
  const closed = rows.filter(({ state }) => state === 'closed').length;
  return [
    `After the revocation: ${oneLine(about)}`,
    `${oneLine(organisation)}, as of ${madeAt}, asked for by ${oneLine(madeBy)}`,
    `Shut out: ${String(closed)} of ${String(rows.length)}. Entries of the ledger that prove ` +
      `it: ${String(entries.length)}.`,
    'Prints and kept copies cannot be revoked. What was done with them outside is not known here.',
    ...openLinks.map((link) => `Anyone with this link can still read: ${oneLine(link)}`),
    ...rows.map(rowLine),
  ];
}

/**
 * A signed statement: lines for people, then the same for programs in one line of canonical JSON
 * (RFC 8785), in a C2SP signed-note.
 */
export function signStatement(
  statement: Statement,
  origin: string,
  signer: Signer,
  hash: Hash,
): string {
  return signNote(
    `${[nameOf(origin), ...linesOf(statement), canonicalJson(statement)].join('\n')}\n`,
    nameOf(origin),
    signer,
    hash,
  );
}

/**
 * Reads a signed statement and checks all of it: the signature, that its lines say what its data
 * says, the checkpoint within, and that each of its entries stands in the ledger that the
 * checkpoint is about.
 *
 * @throws LedgerError `BAD_STATEMENT`, `BAD_CHECKPOINT`
 */
export function openStatement(
  text: string,
  publicKey: Uint8Array,
  hash: Hash,
  verify: VerifySignature,
): Statement {
  const note = openNote(text, publicKey, hash, verify);
  const lines = note?.body.trimEnd().split('\n') ?? [];
  const data = lines.at(-1);
  if (note === null || lines[0] !== note.name || data === undefined)
    throw new LedgerError(
      'BAD_STATEMENT',
      'The statement is malformed, was changed, or was not signed with this organisation’s key.',
    );
  const statement = JSON.parse(data) as Statement;
  const checkpoint = openCheckpoint(statement.checkpoint, publicKey, hash, verify);
  if (
    note.name !== nameOf(checkpoint.origin) ||
    lines.slice(1, -1).join('\n') !== linesOf(statement).join('\n')
  )
    throw new LedgerError(
      'BAD_STATEMENT',
      'The lines of the statement do not say what its data says.',
    );
  for (const { sequence, text: entry, path } of statement.entries) {
    const root = rootOf(
      leafHash(entry, hash),
      sequence - 1,
      checkpoint.size,
      path.map(hexToBytes),
      hash,
    );
    if (root === null || !equalBytes(root, checkpoint.root))
      throw new LedgerError(
        'BAD_STATEMENT',
        `Entry ${String(sequence)} does not stand in the ledger that the checkpoint is about.`,
      );
  }
  return statement;
}
