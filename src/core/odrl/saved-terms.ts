import type { SavedTerms } from '@/core/policy/saved-terms';
import { conditionsOf, permissionsOf } from '@/core/odrl/permissions';
import { Findings, isObject, listOf, type Json, type Unknown } from '@/core/odrl/report';
import type { Watermark } from '@/core/watermark/layers';
import { readWatermark, watermarkProblem } from '@/core/watermark/read-layers';
import { NAMESPACE, ODRL_CONTEXT, PREFIX, PROFILE } from '@/core/odrl/vocabulary';

export type NamedTerms = SavedTerms & { readonly name: string };
/**
 * One policy of a document: the terms it comes to, and what of it was not understood. Terms with
 * anything unknown are not to be used.
 */
export type ReadTerms = {
  readonly terms: NamedTerms | null;
  readonly name: string;
  readonly unknown: readonly Unknown[];
};

const ASSET = {
  target: { '@type': 'AssetCollection', source: `${NAMESPACE}documents-of-a-dispatch` },
};

function policyOf({ name, rights, days, prints, watermark, conditions }: NamedTerms): Json {
  return {
    '@type': 'Set',
    uid: `${NAMESPACE}terms/${encodeURIComponent(name)}`,
    profile: PROFILE,
    [`${PREFIX}:name`]: name,
    permission: permissionsOf({ rights, days, prints, from: null, until: null, conditions }, ASSET),
    ...(watermark.length === 0
      ? {}
      : {
          obligation: [
            {
              ...ASSET,
              action: 'watermark',
              [`${PREFIX}:layers`]: watermark.map((layer) => ({ ...layer })),
            },
          ],
        }),
  };
}

/** Saved terms as a W3C ODRL 2.2 document (JSON-LD): a Set for each. */
export function termsToOdrl(terms: readonly NamedTerms[]): Json {
  return { '@context': [ODRL_CONTEXT, { [PREFIX]: NAMESPACE }], '@graph': terms.map(policyOf) };
}

function watermarkOf(policy: Readonly<Record<string, Json>>, findings: Findings): Watermark {
  const duties = listOf(policy['obligation']);
  if (duties.length === 0) return [];
  const [duty] = duties;
  if (duties.length > 1 || !isObject(duty) || duty['action'] !== 'watermark') {
    findings.add('obligation', 'the only obligation known here is one watermark with its layers');
    return [];
  }
  findings.others(duty, ['action', 'target', '@type', 'uid', `${PREFIX}:layers`], 'obligation/0');
  const layers = duty[`${PREFIX}:layers`];
  const problem = watermarkProblem(layers);
  if (problem !== null) findings.add(`obligation/0/${PREFIX}:layers`, problem);
  return readWatermark(layers) ?? [];
}

type Policy = Readonly<Record<string, Json>>;

function nameOf(policy: Policy, index: number): string {
  const named = policy[`${PREFIX}:name`];
  return typeof named === 'string' && named.trim() !== ''
    ? named.trim()
    : `policy ${String(index + 1)}`;
}

/** Notes a policy that is of another kind than saved terms are, or of another profile than ours. */
function noteKind(policy: Policy, findings: Findings): void {
  const { '@type': type = null, profile } = policy;
  if (type !== 'Set' && type !== 'Policy')
    findings.add('@type', `saved terms are a Set, not ${JSON.stringify(type)}`);
  if (profile !== undefined && profile !== PROFILE)
    findings.add('profile', `the profile ${JSON.stringify(profile)} is not known here`);
}

function readPolicy(policy: Json, index: number): ReadTerms {
  const findings = new Findings();
  if (!isObject(policy))
    return {
      terms: null,
      name: `policy ${String(index + 1)}`,
      unknown: [{ path: '', what: 'a policy is an object' }],
    };
  const name = nameOf(policy, index);
  findings.others(
    policy,
    [
      '@context',
      '@type',
      '@id',
      'uid',
      'profile',
      'permission',
      'obligation',
      'conflict',
      `${PREFIX}:name`,
    ],
    '',
  );
  noteKind(policy, findings);
  const { rights, from, until, days, prints, conditions } = conditionsOf(
    listOf(policy['permission']),
    ['target'],
    'permission',
    findings,
  );
  if (from !== null || until !== null)
    findings.add('permission', 'saved terms end some days after a dispatch, not on a date');
  if (!rights.includes('read')) findings.add('permission', 'nothing can be read by these terms');
  const watermark = watermarkOf(policy, findings);
  return {
    name,
    unknown: findings.unknown,
    terms: {
      name,
      rights,
      days,
      prints,
      watermark,
      ...(conditions === undefined ? {} : { conditions }),
    },
  };
}

/** Reads a document of one policy or several. @returns a row for each, in order; empty where it holds none */
export function termsFromOdrl(document: Json): ReadTerms[] {
  if (!isObject(document)) return [];
  const policies = document['@graph'] === undefined ? [document] : listOf(document['@graph']);
  return policies.map(readPolicy);
}
