import type { Right, Terms } from '@/core/policy/rights';

/**
 * What holds a restriction: no key and so no content; content that the server never sends; the page
 * a recipient reads on, which a determined person can get around; or nothing any more.
 */
export type Assurance = 'cryptography' | 'server' | 'reader' | 'nothing';

/** What an assurance is told of. */
export type Held =
  | 'file'
  | 'end'
  | 'comment'
  | 'copy'
  | 'print'
  | 'revise'
  | 'keep'
  | 'pass-on'
  | 'watermark'
  | 'place'
  | 'capture';

export type AssuranceLine = {
  readonly held: Held;
  /** Whether the right is given: then what is held is what was made of it. */
  readonly given: boolean;
  readonly by: Assurance;
  /** It is left to the reader because the key comes to the person’s own machine. */
  readonly onOwnMachine: boolean;
};

const RIGHTS_HELD: readonly (Right & Held)[] = [
  'comment',
  'copy',
  'print',
  'revise',
  'keep',
  'pass-on',
];

/** Remarks and changed files are kept here, and what is passed on is decided here at every open. */
const KEPT_HERE: ReadonlySet<Right> = new Set(['comment', 'revise', 'pass-on']);

/** What only the page that a person reads on holds, once they have the key on their own machine. */
const HELD_THERE: ReadonlySet<Held> = new Set([
  'end',
  'copy',
  'print',
  'keep',
  'watermark',
  'place',
]);

/**
 * What holds each right and condition. Where pages are drawn by the server alone, the server does;
 * where a document opens on the person's own machine as well, whoever opened it there has held the
 * key, and most is left to the reader. Never more than is true: what somebody was given in the clear
 * is held by nothing.
 *
 * @param carriesFile whether an encrypted file travels as well
 */
export function assurances(
  { rights, conditions }: Terms,
  {
    carriesFile,
    marked,
    readingAids = false,
  }: {
    readonly carriesFile: boolean;
    readonly marked: boolean;
    /** Text comes to them for a screen reader. */
    readonly readingAids?: boolean;
  },
): AssuranceLine[] {
  const has = new Set(rights);
  const isThere = conditions?.offline != null;
  const withheld = (held: Held, by: Assurance): AssuranceLine => {
    const onOwnMachine = isThere && by === 'server' && HELD_THERE.has(held);
    return { held, given: false, by: onOwnMachine ? 'reader' : by, onOwnMachine };
  };
  const given = (right: Right & Held): AssuranceLine => ({
    held: right,
    given: true,
    onOwnMachine: false,
    // What was copied, printed or kept is out.
    by: KEPT_HERE.has(right) ? 'server' : 'nothing',
  });
  const isPlaced = conditions?.countries != null || conditions?.networks != null;
  return [
    ...(carriesFile ? [withheld('file', 'cryptography')] : []),
    withheld('end', 'server'),
    ...RIGHTS_HELD.map((right) =>
      has.has(right)
        ? given(right)
        : withheld(right, right === 'copy' && readingAids ? 'reader' : 'server'),
    ),
    ...(marked ? [withheld('watermark', 'server')] : []),
    ...(isPlaced ? [withheld('place', 'server')] : []),
    ...(conditions?.captureDeterrent === true ? [withheld('capture', 'reader')] : []),
  ];
}
