import type { Conditions as OtherConditions } from '@/core/policy/conditions';
import type { Right } from '@/core/policy/rights';
import { RIGHTS } from '@/core/policy/rights';
import { conditionIn, constraintsOf, type Constraint } from '@/core/odrl/constraints';
import { PREFIX, actions, rightOf } from '@/core/odrl/vocabulary';
import type { Findings } from '@/core/odrl/report';
import { isObject, listOf, type Json } from '@/core/odrl/report';

/** What both saved terms and grants say, in the shape that permissions are written from. */
export type Conditions = {
  readonly rights: readonly Right[];
  /** Moments in ms since the epoch; the window is [from, until). */
  readonly from: number | null;
  readonly until: number | null;
  /** Whole days from the dispatch on. */
  readonly days: number | null;
  readonly prints: number | null;
  /** What else must hold; absent: nothing. */
  readonly conditions?: OtherConditions | undefined;
};

type Limit = 'from' | 'until' | 'days' | 'prints';

function moment(at: number): Json {
  return { '@value': new Date(at).toISOString(), '@type': 'xsd:dateTime' };
}

/** One permission a right; each bears the conditions that hold for it, so that none is lost where it stands alone. */
export function permissionsOf(
  { rights, from, until, days, prints, conditions }: Conditions,
  about: Readonly<Record<string, Json>>,
): Json[] {
  const window: Constraint[] = [
    ...(from === null
      ? []
      : [{ leftOperand: 'dateTime', operator: 'gteq', rightOperand: moment(from) }]),
    ...(until === null
      ? []
      : [{ leftOperand: 'dateTime', operator: 'lt', rightOperand: moment(until) }]),
    ...(days === null
      ? []
      : [
          {
            leftOperand: `${PREFIX}:sinceDispatch`,
            operator: 'lt',
            rightOperand: { '@value': `P${String(days)}D`, '@type': 'xsd:duration' },
          },
        ]),
    ...constraintsOf(conditions),
  ];
  return RIGHTS.filter((right) => rights.includes(right)).map((right) => {
    const constraint =
      right === 'print' && prints !== null
        ? [...window, { leftOperand: 'count', operator: 'lteq', rightOperand: prints }]
        : window;
    return { ...about, action: actions[right], ...(constraint.length === 0 ? {} : { constraint }) };
  });
}

/** The plain value of a right operand, typed or not. */
function valueOf(operand: Json | undefined): Json | undefined {
  return isObject(operand) ? operand['@value'] : operand;
}

/** A moment as a document states it, in ms since the epoch; `null` where it is none. */
function momentIn(right: Json | undefined): number | null {
  const at = typeof right === 'string' ? Date.parse(right) : Number.NaN;
  return Number.isNaN(at) ? null : at;
}

/** How each limit is stated: by which operand, compared how, and what its value is read from. */
const STATED: readonly {
  readonly limit: Limit;
  readonly left: string;
  readonly operator: string;
  readonly read: (right: Json | undefined) => number | null;
}[] = [
  { limit: 'from', left: 'dateTime', operator: 'gteq', read: momentIn },
  { limit: 'until', left: 'dateTime', operator: 'lt', read: momentIn },
  {
    limit: 'days',
    left: `${PREFIX}:sinceDispatch`,
    operator: 'lt',
    read: (right) => {
      const days = typeof right === 'string' ? /^P([1-9]\d{0,4})D$/.exec(right)?.[1] : undefined;
      return days === undefined ? null : Number(days);
    },
  },
  {
    limit: 'prints',
    left: 'count',
    operator: 'lteq',
    read: (right) =>
      typeof right === 'number' && Number.isInteger(right) && right > 0 ? right : null,
  },
];

/** A constraint as a limit or condition of ours; `null` where it is none, which is then noted. */
function limitOf(
  constraint: Json,
  path: string,
  findings: Findings,
):
  | { readonly limit: Limit; readonly value: number }
  | Exclude<ReturnType<typeof conditionIn>, null>
  | null {
  if (!isObject(constraint)) {
    findings.add(path, 'a constraint is an object');
    return null;
  }
  findings.others(constraint, ['leftOperand', 'operator', 'rightOperand', '@type', 'uid'], path);
  const [left, operator, right] = [
    constraint['leftOperand'],
    constraint['operator'],
    valueOf(constraint['rightOperand']),
  ];
  for (const stated of STATED) {
    if (stated.left !== left || stated.operator !== operator) continue;
    const value = stated.read(right);
    if (value !== null) return { limit: stated.limit, value };
  }
  const condition = conditionIn(left, operator, constraint['rightOperand']);
  if (condition !== null) return condition;
  findings.add(
    path,
    `the condition ${JSON.stringify([left ?? null, operator ?? null, right ?? null])} is not known here`,
  );
  return null;
}

type Read = {
  readonly right: Right;
  readonly limits: ReadonlyMap<Limit, number>;
  readonly conditions: OtherConditions;
};

function readPermission(
  permission: Json,
  known: readonly string[],
  path: string,
  findings: Findings,
): Read | null {
  if (!isObject(permission)) {
    findings.add(path, 'a permission is an object');
    return null;
  }
  findings.others(permission, ['action', 'constraint', '@type', 'uid', ...known], path);
  const action = permission['action'];
  const right = typeof action === 'string' ? rightOf(action) : undefined;
  if (right === undefined) {
    findings.add(
      `${path}/action`,
      `the action ${JSON.stringify(action ?? null)} is not known here`,
    );
    return null;
  }
  const limits = new Map<Limit, number>();
  let conditions: OtherConditions = {};
  listOf(permission['constraint']).forEach((constraint, index) => {
    const place = `${path}/constraint/${String(index)}`;
    const found = limitOf(constraint, place, findings);
    if (found === null) return;
    if ('name' in found) {
      if (found.name in conditions) findings.add(place, 'this condition stands twice');
      else conditions = { ...conditions, [found.name]: found.value };
    } else if (found.limit === 'prints' && right !== 'print')
      findings.add(place, 'a count is for printing alone');
    else if (limits.has(found.limit)) findings.add(place, 'this condition stands twice');
    else limits.set(found.limit, found.value);
  });
  return { right, limits, conditions };
}

/**
 * The conditions that permissions state together. What differs between rights, where ours are the
 * same for all, is noted as not known: nothing is rounded to what we have.
 */
export function conditionsOf(
  permissions: readonly Json[],
  known: readonly string[],
  path: string,
  findings: Findings,
): Conditions {
  const read = permissions.flatMap(
    (permission, index) =>
      readPermission(permission, known, `${path}/${String(index)}`, findings) ?? [],
  );
  const same = (limit: Limit): number | null => {
    const values = new Set(read.map(({ limits }) => limits.get(limit) ?? null));
    if (values.size > 1) findings.add(path, `“${limit}” differs from one right to another`);
    return [...values][0] ?? null;
  };
  // In an order of their own: how they were written down says nothing.
  const conditions = new Map(
    read.map((each) => [JSON.stringify(constraintsOf(each.conditions)), each.conditions]),
  );
  if (conditions.size > 1) findings.add(path, 'the conditions differ from one right to another');
  const others = [...conditions.values()][0] ?? {};
  const rights = RIGHTS.filter((right) => read.some((each) => each.right === right));
  if (rights.length < read.length) findings.add(path, 'one right is permitted twice');
  return {
    rights,
    from: same('from'),
    until: same('until'),
    days: same('days'),
    prints: read.find(({ right }) => right === 'print')?.limits.get('prints') ?? null,
    ...(Object.keys(others).length === 0 ? {} : { conditions: others }),
  };
}
