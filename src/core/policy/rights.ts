import type { Conditions } from '@/core/policy/conditions';

/** What a person may do with a document. The order is the order in which they are shown. */
export const RIGHTS = ['read', 'comment', 'copy', 'print', 'revise', 'keep', 'pass-on'] as const;
export type Right = (typeof RIGHTS)[number];

/** The rights that this version of the product gives effect to. */
export const OFFERED_RIGHTS = [
  'read',
  'comment',
  'copy',
  'print',
  'revise',
  'keep',
  'pass-on',
] as const satisfies readonly Right[];

/** The conditions of one grant. */
export type Terms = {
  readonly rights: readonly Right[];
  /** First moment of the access window in ms since the epoch; `null`: from the dispatch on. */
  readonly from: number | null;
  /** The window's end in ms since the epoch, itself outside; `null`: no end. */
  readonly until: number | null;
  /** How many print renditions may be made in all; `null`: as many as wanted. */
  readonly prints: number | null;
  /** What else must hold; absent: nothing. */
  readonly conditions?: Conditions | undefined;
};

/** Why a right cannot stand as it was asked for. */
export type Dependency = {
  readonly right: Right;
  readonly needs: 'read' | 'copy' | 'keep' | 'unlimited-print';
};

/** Every dependency between rights that these terms break; an empty list: they can stand. */
export function brokenDependencies({ rights, prints }: Terms): Dependency[] {
  const has = new Set(rights);
  const broken: Dependency[] = [];
  for (const right of rights)
    if (right !== 'read' && !has.has('read')) broken.push({ right, needs: 'read' });
  // A kept file can be copied from and printed at will, so keep is possible only where both are unlimited.
  if (has.has('keep') && !has.has('copy')) broken.push({ right: 'keep', needs: 'copy' });
  if (has.has('keep') && !(has.has('print') && prints === null))
    broken.push({ right: 'keep', needs: 'unlimited-print' });
  // Changing a document takes having it; nothing here is of a kind that is changed in the browser.
  if (has.has('revise') && !has.has('keep')) broken.push({ right: 'revise', needs: 'keep' });
  return broken;
}

/** Terms without the rights that cannot stand, and those that cannot stand without them. */
export function standingTerms<T extends Terms>(terms: T): T {
  const broken = brokenDependencies(terms);
  if (broken.length === 0) return terms;
  const rights = terms.rights.filter((right) => !broken.some((each) => each.right === right));
  return standingTerms({ ...terms, rights });
}

/** Terms with what their rights rest on added, so that they can stand. */
export function withNeeds<T extends Terms>(terms: T): T {
  const broken = brokenDependencies(terms);
  if (broken.length === 0) return terms;
  const rights = new Set(terms.rights);
  let { prints } = terms;
  for (const { needs } of broken) {
    rights.add(needs === 'unlimited-print' ? 'print' : needs);
    if (needs === 'unlimited-print') prints = null;
  }
  // What was added may rest on something itself.
  return withNeeds({ ...terms, rights: RIGHTS.filter((right) => rights.has(right)), prints });
}

/** One line that stands for the terms, the same for equal terms however they were written. */
export function termsText(terms: Terms): string {
  const rights = RIGHTS.filter((right) => terms.rights.includes(right)).join('+');
  const conditions = Object.entries(terms.conditions ?? {})
    .filter(([, value]) => value != null && value !== false)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, value]) => ` ${name}=${JSON.stringify(value)}`);
  const { from, until, prints } = terms;
  const limits = `from=${String(from)} until=${String(until)} prints=${String(prints)}`;
  return `${rights} ${limits}${conditions.join('')}`;
}

const number = (text: string | undefined): number | null =>
  text === undefined || text === 'null' ? null : Number(text);

function isRight(text: string): text is Right {
  return RIGHTS.some((right) => right === text);
}

/**
 * The terms that a line of `termsText` stands for. Conditions that are `false` or `null` there say
 * the same as none.
 */
export function parseTerms(text: string): Terms {
  const [rights = '', ...rest] = text.split(/ (?=[A-Za-z]+=)/);
  const values = new Map(
    rest.map((part): [string, string] => [
      part.slice(0, part.indexOf('=')),
      part.slice(part.indexOf('=') + 1),
    ]),
  );
  const named = [...values].filter(([name]) => !['from', 'until', 'prints'].includes(name));
  const conditions = Object.fromEntries(
    named.map(([name, value]) => [name, JSON.parse(value) as unknown]),
  );
  return {
    rights: rights.split('+').filter(isRight),
    from: number(values.get('from')),
    until: number(values.get('until')),
    prints: number(values.get('prints')),
    ...(named.length === 0 ? {} : { conditions }),
  };
}
