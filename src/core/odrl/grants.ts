import type { Terms } from '@/core/policy/rights';
import { conditionsOf, permissionsOf } from '@/core/odrl/permissions';
import { Findings, isObject, listOf, type Json, type Unknown } from '@/core/odrl/report';
import { NAMESPACE, ODRL_CONTEXT, PREFIX, PROFILE } from '@/core/odrl/vocabulary';

/**
 * A grant as others see it: by addresses and references. `id`: its own, where it was given here;
 * `null`: another program wrote it.
 */
export type StatedGrant = {
  readonly id: string | null;
  /** The grant it was passed on from, which bounds it. */ readonly parent: string | null;
  readonly reference: string;
  readonly giver: string;
  readonly address: string;
  readonly terms: Terms;
  readonly revoked: boolean;
};
export type ReadGrant = {
  readonly grant: StatedGrant | null;
  readonly unknown: readonly Unknown[];
};

const ADDRESSEES = `${NAMESPACE}addressees/`;
const GRANT = `${NAMESPACE}grant/`;
const PASSED_ON_FROM = `${PREFIX}:passedOnFrom`;

function assetOf(reference: string): string {
  return `${NAMESPACE}document/${encodeURIComponent(reference)}`;
}

/** An address as an IRI (RFC 6068). */
function mailto(address: string): string {
  return `mailto:${encodeURIComponent(address).replace('%40', '@')}`;
}

/** Whom a grant is for: a person by their address, or everybody of a group, at a domain or with a link. */
function assigneeOf(address: string): Json {
  return /^[^@]+@/.test(address)
    ? mailto(address)
    : { '@type': 'PartyCollection', uid: `${ADDRESSEES}${encodeURIComponent(address)}` };
}

function addresseeOf(assignee: Json | undefined, findings: Findings): string {
  if (!isObject(assignee)) return afterPrefix(assignee, 'mailto:', 'assignee', findings);
  findings.others(assignee, ['@type', 'uid'], 'assignee');
  if (assignee['@type'] !== 'PartyCollection')
    findings.add(
      'assignee/@type',
      `several people are a PartyCollection, not ${JSON.stringify(assignee['@type'] ?? null)}`,
    );
  return afterPrefix(assignee['uid'], ADDRESSEES, 'assignee/uid', findings);
}

/** Grants as a W3C ODRL 2.2 document (JSON-LD): an Agreement for each. */
export function grantsToOdrl(grants: readonly StatedGrant[]): Json {
  return {
    '@context': [ODRL_CONTEXT, { [PREFIX]: NAMESPACE }],
    '@graph': grants.map(({ id, parent, reference, giver, address, terms, revoked }) => ({
      '@type': 'Agreement',
      ...(id === null ? {} : { uid: `${GRANT}${id}` }),
      profile: PROFILE,
      assigner: mailto(giver),
      assignee: assigneeOf(address),
      ...(parent === null ? {} : { [PASSED_ON_FROM]: `${GRANT}${parent}` }),
      ...(revoked ? { [`${PREFIX}:revoked`]: true } : {}),
      permission: permissionsOf({ ...terms, days: null }, { target: assetOf(reference) }),
    })),
  };
}

function afterPrefix(
  value: Json | undefined,
  prefix: string,
  path: string,
  findings: Findings,
): string {
  try {
    if (typeof value === 'string' && value.startsWith(prefix) && value.length > prefix.length)
      return decodeURIComponent(value.slice(prefix.length));
  } catch {
    // A broken percent sign: no name of ours.
  }
  findings.add(path, `${JSON.stringify(value ?? null)} does not begin with ${prefix}`);
  return '';
}

function readAgreement(policy: Json): ReadGrant {
  if (!isObject(policy))
    return { grant: null, unknown: [{ path: '', what: 'a policy is an object' }] };
  const findings = new Findings();
  findings.others(
    policy,
    [
      '@context',
      '@type',
      '@id',
      'uid',
      'profile',
      'permission',
      'assigner',
      'assignee',
      PASSED_ON_FROM,
      `${PREFIX}:revoked`,
    ],
    '',
  );
  if (policy['@type'] !== 'Agreement')
    findings.add(
      '@type',
      `a grant is an Agreement, not ${JSON.stringify(policy['@type'] ?? null)}`,
    );
  if (policy['profile'] !== PROFILE)
    findings.add(
      'profile',
      `the profile ${JSON.stringify(policy['profile'] ?? null)} is not known here`,
    );
  const permissions = listOf(policy['permission']);
  const targets = new Set(
    permissions.map((permission) =>
      isObject(permission) ? JSON.stringify(permission['target'] ?? null) : '',
    ),
  );
  if (targets.size !== 1) findings.add('permission', 'a grant is for one document');
  const [first] = permissions;
  const { days, ...terms } = conditionsOf(permissions, ['target'], 'permission', findings);
  if (days !== null) findings.add('permission', 'a grant ends on a date');
  // Another program names its agreements as it likes: only a name of ours leads to a grant there is.
  const uid = policy['uid'];
  const id =
    typeof uid === 'string' && uid.startsWith(GRANT)
      ? afterPrefix(uid, GRANT, 'uid', findings)
      : null;
  const parent =
    policy[PASSED_ON_FROM] === undefined
      ? null
      : afterPrefix(policy[PASSED_ON_FROM], GRANT, PASSED_ON_FROM, findings);
  const grant: StatedGrant = {
    id,
    parent,
    reference: afterPrefix(
      isObject(first) ? first['target'] : undefined,
      `${NAMESPACE}document/`,
      'permission/0/target',
      findings,
    ),
    giver: afterPrefix(policy['assigner'], 'mailto:', 'assigner', findings),
    address: addresseeOf(policy['assignee'], findings),
    terms,
    revoked: policy[`${PREFIX}:revoked`] === true,
  };
  return { grant, unknown: findings.unknown };
}

/** Reads a document of agreements. @returns a row for each, in order */
export function grantsFromOdrl(document: Json): ReadGrant[] {
  if (!isObject(document)) return [];
  return (document['@graph'] === undefined ? [document] : listOf(document['@graph'])).map(
    readAgreement,
  );
}
