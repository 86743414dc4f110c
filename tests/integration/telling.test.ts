// What the ledger tells of every change: to whom, what it was, what it is.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type {
  DispatchId,
  DocumentId,
  FolderId,
  GrantId,
  MarkingId,
  RecipientId,
} from '@/core/base/ids';
import { didWords } from '@/core/insight/did-words';
import { factsOf } from '@/core/insight/entry-facts';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { Action } from '@/core/ledger/entry';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { putTerms } from '@/server/services/access/change-saved-terms';
import { revokeAccess } from '@/server/services/access/revoke-access';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { putText, removeText } from '@/server/services/dispatching/saved-texts';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { listLedger } from '@/server/services/ledger/list-entries';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import {
  makeFolder,
  changeFolder,
  putMarking,
  removeTerms,
} from '@/server/services/filing/manage-filing';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { changePerson } from '@/server/services/people/manage-people';
import { putRule } from '@/server/services/policy/manage-rules';
import { noteCopied, readText, renderPage } from '@/server/services/reading/read-pages';
import { openDocument } from '@/server/services/reading/open-document';
import { workSettings } from '@/contracts/settings';
import { putWorkSettings } from '@/server/services/base/work-settings';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let grant: GrantId;
let recipient: RecipientId;
let folder: FolderId;
let marking: MarkingId;
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida } = product;
  document = await protect(product, await drawing(1), 'Lines plan');
  const sent = await dispatch(product, [document], ['mira@yard.example'], {
    rights: ['read', 'print'],
    until: START + 20 * DAY,
  });
  grant = sent.grants[0]?.id ?? 'grt_';
  recipient = sent.grants[0]?.recipientId ?? 'rcp_';
  ({ id: folder } = await makeFolder(deps, ida, { name: 'Hull 412', parentId: null }));
  ({ id: marking } = await putMarking(deps, ida, {
    id: null,
    name: 'Yard only',
    meaning: 'For the yard',
  }));
});
afterAll(async () => {
  await product.close();
});

/** The tokens of the links of a dispatch. */
async function tokensOf(id: DispatchId): Promise<string[]> {
  return (await grantRows(product.deps, product.ida, { dispatch: id })).map(
    ({ link }) => link.split('/').at(-1) ?? '',
  );
}

/** The newest entry of an action as it is told: who did what, and its facts, `label: before → after`. */
async function told(
  action: Action,
): Promise<{ readonly line: string; readonly facts: readonly string[] }> {
  const { rows, named } = await listLedger(product.deps, product.ida, { each: 'yes' });
  const row = rows.find((each) => each.action === action);
  if (row === undefined) throw new Error(`nothing was recorded of ${action}`);
  const facts = factsOf(row, {
    nameOf: (id) => named[id] ?? id,
    moment: (at) => new Date(at).toISOString().slice(0, 10),
  });
  return {
    line: `${row.who} ${didWords(row)}`,
    facts: facts.map(
      ({ label, before, after }) => `${label}: ${before === null ? '' : `${before} → `}${after}`,
    ),
  };
}

describe('an entry about access', () => {
  test('given says to whom, what, until when, by which dispatch', async () => {
    const { line, facts } = await told('grant.given');
    expect(line).toBe('Ida Roe gave access');
    expect(facts).toEqual(
      expect.arrayContaining([
        'To: mira@yard.example',
        'Rights: Read · Print',
        'Until: 2026-12-15',
        'Dispatch: D-0001',
      ]),
    );
  });

  test('changed says what it was and what it is, and nothing that stayed', async () => {
    const [row] = await grantsByIds(product.deps.db.read, [grant]);
    await changeGrants(product.deps, product.ida, {
      changes: [
        {
          grant,
          revision: row?.revision ?? 0,
          rights: ['read'],
          until: START + 10 * DAY,
          conditions: { opens: 3 },
        },
      ],
      reason: 'Less is enough',
    });
    expect((await told('grant.changed')).facts).toEqual([
      'To: mira@yard.example',
      'Rights: Read · Print → Read',
      'Until: 2026-12-15 → 2026-12-05',
      'Conditions: none → opens 3 times',
      'Dispatch: D-0001',
      'Said: Less is enough',
    ]);
  });

  test('revoked and reinstated say what was taken away and came back', async () => {
    await revokeGrants(product.deps, product.ida, { grants: [grant] });
    expect((await told('grant.revoked')).facts).toEqual(
      expect.arrayContaining(['To: mira@yard.example', 'Rights: Read', 'Until: 2026-12-05']),
    );
    await reinstateGrants(product.deps, product.ida, { grants: [grant] });
    expect((await told('grant.reinstated')).facts).toEqual(
      expect.arrayContaining(['To: mira@yard.example', 'Rights: Read']),
    );
    await revokeAccess(product.deps, product.ida, { scope: { kind: 'person', recipient } });
    expect((await told('grant.revoked')).facts).toEqual(
      expect.arrayContaining(['Rights: Read', 'With: everything of this person']),
    );
    await reinstateGrants(product.deps, product.ida, { grants: [grant] });
  });

  test('of everyone at a domain says whose access was used', async () => {
    const other = await protect(product, await drawing(1), 'Rudder');
    const { id } = await dispatchDocuments(product.deps, product.ida, {
      documents: [other],
      recipients: [],
      domains: [{ domain: '@works.example' }],
      terms: { rights: ['read'], from: null, until: null, prints: null },
      subject: 'x',
      note: '',
      watermark: [],
      delivery: 'by-hand' as const,
    });
    const [token = ''] = await tokensOf(id);
    const reader = await prove(product, token, 'jon@works.example');
    await openDocument(product.deps, reader, { token, document: other });
    const { line, facts } = await told('grant.given');
    expect(line).toBe('jon@works.example used shared access');
    expect(facts).toContain('From the grant of: everyone at works.example, D-0002');
  });
});

describe('an entry about how things are set says what it was and is', () => {
  test.each<readonly [string, Action, () => Promise<unknown>, readonly string[]]>([
    [
      'filing',
      'document.filed',
      () =>
        fileDocuments(product.deps, product.ida, {
          documents: [document],
          folderId: folder,
          markingId: marking,
          title: 'Lines plan B',
        }),
      ['Folder: none → Hull 412', 'Marking: none → Yard only', 'Title: Lines plan → Lines plan B'],
    ],
    [
      'a folder’s name',
      'settings.changed',
      () => changeFolder(product.deps, product.ida, { id: folder, name: 'Hull 413' }),
      ['Folder: Hull 412 → Hull 413'],
    ],
    [
      'a marking',
      'settings.changed',
      () =>
        putMarking(product.deps, product.ida, {
          id: marking,
          name: 'Yard only',
          meaning: 'For one yard',
        }),
      ['Marking: Yard only', 'Meaning: For the yard → For one yard'],
    ],
    [
      'a ceiling',
      'ceiling.changed',
      () =>
        putCeiling(product.deps, product.ida, {
          level: 'folder',
          subject: folder,
          limits: { ...NO_LIMITS, rights: ['read'], days: 30 },
          seen: null,
        }),
      ['For: the folder Hull 413', 'Rights: no limit → Read', 'Days: no limit → 30'],
    ],
    [
      'a rule',
      'settings.changed',
      () =>
        putRule(product.deps, product.ida, {
          way: 'open-link',
          leave: 'forbidden',
          reason: 'Nobody is known',
          seen: null,
        }),
      ['Reason: Nobody is known'],
    ],
    [
      'how work is done',
      'settings.changed',
      () => putWorkSettings(product.deps, product.ida, { ...workSettings.parse({}), endsTold: 3 }),
      ['Days before an end that recipients are told: 0 → 3'],
    ],
    [
      'a person',
      'recipient.changed',
      () =>
        changePerson(product.deps, product.ida, {
          id: recipient,
          name: 'Mira Kolbe',
          zone: 'Europe/Oslo',
        }),
      ['Person: Mira Kolbe', 'Zone: none → Europe/Oslo', 'Said: ,  → Mira Kolbe,'],
    ],
  ])('%s', async (_name, action, act, facts) => {
    await act();
    expect((await told(action)).facts).toEqual(expect.arrayContaining([...facts]));
  });

  test('a saved text, that it was made, changed and removed', async () => {
    const text = { name: 'To a yard', subject: 'Lines plan', note: '' };
    const { texts } = await putText(product.deps, product.ida, text);
    expect((await told('settings.changed')).facts).toEqual(['Saved text made: To a yard']);
    await putText(product.deps, product.ida, { ...text, note: 'Read it' });
    expect((await told('settings.changed')).facts).toEqual(['Saved text changed: To a yard']);
    const [made] = texts;
    await removeText(product.deps, product.ida, { id: made?.id ?? 'txt_' });
    expect((await told('settings.changed')).facts).toEqual(['Saved text removed: To a yard']);
  });

  test('a group, who came in and who went out', async () => {
    const { id } = await putGroup(product.deps, product.ida, { id: null, name: 'Class surveyors' });
    expect((await told('settings.changed')).facts).toEqual(['Group made: Class surveyors']);
    await changeMembers(product.deps, product.ida, { id, add: [recipient], remove: [] });
    expect(await told('settings.changed')).toEqual({
      line: 'Ida Roe changed a group',
      facts: ['Group: Class surveyors', 'In: Mira Kolbe'],
    });
    await changeMembers(product.deps, product.ida, { id, add: [], remove: [recipient] });
    expect((await told('settings.changed')).facts).toEqual([
      'Group: Class surveyors',
      'Out: Mira Kolbe',
    ]);
  });

  test('saved terms', async () => {
    const { id } = await putTerms(product.deps, product.ida, {
      id: null,
      name: 'For survey',
      rights: ['read'],
      days: 30,
      prints: null,
      watermark: [],
    });
    expect((await told('settings.changed')).facts).toEqual([
      'Saved terms made: For survey',
      'Rights: not set → Read',
      'Days: not set → 30',
    ]);
    await putTerms(product.deps, product.ida, {
      id,
      name: 'For survey',
      rights: ['read', 'print'],
      days: 10,
      prints: null,
      watermark: [],
    });
    expect(await told('settings.changed')).toEqual({
      line: 'Ida Roe changed saved terms',
      facts: ['Saved terms: For survey', 'Rights: Read → Read · Print', 'Days: 30 → 10'],
    });
    await removeTerms(product.deps, product.ida, { id });
    expect((await told('settings.changed')).facts).toEqual(['Saved terms removed: For survey']);
  });
});

describe('an entry about reading', () => {
  test('says by which device and which version, and copied only where text was copied', async () => {
    const paper = await protect(product, await drawing(2), 'Specification');
    const { id } = await dispatch(product, [paper], ['mira@yard.example'], {
      rights: ['read', 'copy'],
    });
    const [token = ''] = await tokensOf(id);
    const reader = await prove(product, token, 'mira@yard.example');
    const opened = await openDocument(product.deps, reader, { token, document: paper });
    if (opened.outcome !== 'granted') throw new Error('it was refused');
    expect((await told('document.opened')).facts).toEqual(
      expect.arrayContaining([
        'Version: 1',
        expect.stringMatching(/^Device: .+, (kept|for one visit)$/),
      ]),
    );
    await renderPage(product.deps, reader, { licence: opened.licence, page: 1, width: 300 });
    await readText(product.deps, reader, { licence: opened.licence, page: 1 });
    const { rows } = await listLedger(product.deps, product.ida, {
      document: [paper],
      each: 'yes',
    });
    expect(rows.map(({ action }) => action).filter((action) => action.startsWith('text.'))).toEqual(
      ['text.sent'],
    );
    expect((await told('text.sent')).line).toBe('Mira Kolbe was sent the text of a page');
    await noteCopied(product.deps, reader, { licence: opened.licence, page: 1, characters: 12 });
    const { line, facts } = await told('text.copied');
    expect([line, ...facts]).toEqual(
      expect.arrayContaining(['Mira Kolbe copied text', 'Page: 1', 'Copied: 12 characters']),
    );
  });

  test('that was refused says that it was tried', async () => {
    await revokeGrants(product.deps, product.ida, { grants: [grant] });
    const [row] = await grantsByIds(product.deps.db.read, [grant]);
    const [token = ''] = await tokensOf(row?.dispatchId ?? 'dsp_');
    const reader = await prove(product, token, 'mira@yard.example');
    await openDocument(product.deps, reader, { token, document });
    const { line, facts } = await told('document.opened');
    expect([line, ...facts]).toEqual(
      expect.arrayContaining(['Mira Kolbe tried to open', 'Why not: revoked']),
    );
  });
});
