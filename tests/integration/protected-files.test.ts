// Sent as a protected file: mailed or carried, with the same record, and opening nothing that was not given.
import { createHash } from 'node:crypto';
import { rmSync } from 'node:fs';
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { DispatchId, DocumentId, RecipientId, VersionId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { CHUNK, PAYLOAD_NONCE, openChunk, payloadKey } from '@/core/age/chunks';
import { parseHeader } from '@/core/age/header';
import { unwrapFileKey } from '@/core/age/recipients';
import { inspectFile } from '@/core/wrapper/inspect';
import type { DispatchInput } from '@/contracts/dispatch';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { outbox } from '@/server/db/schema/mailing';
import { recipients } from '@/server/db/schema/people';
import { versions } from '@/server/db/schema/documents';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { addPeople } from '@/server/services/dispatching/add-people';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { inspectForStaff } from '@/server/services/documents/inspect-file';
import {
  beginDrill,
  changeRecoveryKey,
  failDrill,
  finishDrill,
  viewKeys,
} from '@/server/services/keys/manage-keys';
import { openDocument } from '@/server/services/reading/open-document';
import { sharedWith } from '@/server/services/reading/shared-with';
import { proofAsked } from '@/server/services/reading/visit-link';
import { replaceLink, switchOffLink } from '@/server/services/dispatching/change-link';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { setWay } from '../support/rules';
import { joinStaff } from '../support/staff';
import { eq } from 'drizzle-orm';
import { blobFile } from '../support/blob-file';

let product: Product;
let document: DocumentId;
let round = 0;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(() => product.close());
beforeEach(async () => {
  round++;
  document = await protect(product, await drawing(1), 'Weight list');
});

const address = (name: string): string => `${name}${String(round)}@yard.example`;
const terms = { rights: ['read'] as 'read'[], from: null, until: START + 30 * DAY, prints: null };
async function send(change: Partial<DispatchInput>, ...names: string[]) {
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: names.map((name) => ({
      address: address(name),
      name: '',
      organisation: 'The Yard',
    })),
    terms,
    subject: `Round ${String(round)}`,
    note: '',
    watermark: [],
    delivery: 'mail',
    form: 'file',
    ...change,
  });
  return { id, grants: await grantRows(product.deps, product.ida, { dispatch: id }) };
}
async function mailTo(to: string) {
  await deliverMail(product.deps);
  const { messages } = await readMailroom(product.deps, { address: to });
  return messages[0] === undefined
    ? null
    : simpleParser((await readMessage(product.deps, { id: messages[0].id })).raw);
}
const look = (bytes: Uint8Array) =>
  inspectFile(
    (offset, length) => Promise.resolve(bytes.subarray(offset, offset + length)),
    bytes.length,
  );
async function whole(pieces: AsyncIterable<Uint8Array>): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  for await (const piece of pieces) parts.push(piece);
  return Buffer.concat(parts);
}

describe('mailed', () => {
  test('instead of the link: the message has the file, whose page has the link; the mail itself has none', async () => {
    const { grants } = await send({}, 'mira');
    const mail = await mailTo(address('mira'));
    expect(mail?.attachments.map(({ filename }) => filename)).toEqual([
      expect.stringMatching(/^REF-\d+ - for The Yard\.pdf$/),
    ]);
    expect(mail?.text).not.toContain('/r/');
    const found = await look(mail?.attachments[0]?.content ?? Buffer.alloc(0));
    expect(found.link).toBe(grants[0]?.link);
    expect(found.stanza?.version).toMatch(/^ver_/);
  });

  test('beside the link, with the title where the sender lets it; the ledger says how', async () => {
    const { id, grants } = await send({ form: 'both', titleOnCover: true }, 'mira');
    const mail = await mailTo(address('mira'));
    expect(mail?.attachments[0]?.filename).toMatch(/^REF-\d+ Weight list - for The Yard\.pdf$/);
    expect(mail?.text).toContain(grants[0]?.link);
    const [sent] = await product.deps.db.read
      .select()
      .from(ledgerEntries)
      .where(eq(ledgerEntries.dispatchId, id));
    expect(sent?.body).toContain('"delivery":"reader-link-and-protected-file"');
    await addPeople(product.deps, product.ida, {
      id,
      recipients: [{ address: address('late'), name: '', organisation: 'The Yard' }],
      terms,
    });
    expect((await mailTo(address('late')))?.attachments).toHaveLength(1);
  });

  test('more than mail carries is refused before anything is sent', async () => {
    await product.deps.db.write(async (tx) => {
      await tx
        .update(versions)
        .set({ bytes: 19 * 1024 * 1024 })
        .where(eq(versions.documentId, document));
    });
    await expect(send({}, 'mira')).rejects.toMatchObject({ code: 'TOO_LARGE' });
    expect(
      await product.deps.db.read.$count(recipients, eq(recipients.address, address('mira'))),
    ).toBe(0);
  });

  test('a file that cannot be made fails alone, and holds up nobody else’s mail', async () => {
    await send({}, 'mira');
    const [version] = await product.deps.db.read
      .select()
      .from(versions)
      .where(eq(versions.documentId, document));
    rmSync(blobFile(product, version?.blobKey ?? ''));
    await dispatch(product, [document], [address('jonas')]);
    expect(await mailTo(address('jonas'))).not.toBeNull();
    expect(
      await product.deps.db.read
        .select({ state: outbox.state })
        .from(outbox)
        .where(eq(outbox.toAddress, address('mira'))),
    ).toEqual([{ state: 'failed' }]);
  });
});

describe('carried by hand', () => {
  test('it is taken for one person, on the record, and by nobody whom it does not concern', async () => {
    const { id, grants } = await send({ delivery: 'by-hand' }, 'mira');
    expect(await mailTo(address('mira'))).toBeNull();
    const recipient: RecipientId = grants[0]?.recipientId ?? 'rcp_';
    const file = await takeProtectedFile(product.deps, product.ida, { id, recipient, document });
    const bytes = await whole(file.read());
    expect(bytes.length).toBe(file.bytes);
    expect((await look(bytes)).link).toBe(grants[0]?.link);
    expect(
      (
        await product.deps.db.read
          .select()
          .from(ledgerEntries)
          .where(eq(ledgerEntries.action, 'file.taken'))
      ).at(-1)?.grantId,
    ).toBe(grants[0]?.id);
    const other = await joinStaff(product, 'sender', `carrier${String(round)}`);
    await expect(
      takeProtectedFile(product.deps, other, { id, recipient, document }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await revokeDocument(product.deps, product.ida, { id: document });
    await expect(
      takeProtectedFile(product.deps, product.ida, { id, recipient, document }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
  });

  test('its link lets in anyone who was given the document by another dispatch, and nobody else', async () => {
    const { grants } = await send({ delivery: 'by-hand' }, 'mira');
    const token = grants[0]?.link.split('/').at(-1) ?? '';
    await dispatch(product, [document], [address('elsewhere')]);
    expect(
      (await sharedWith(product.deps, await prove(product, token, address('elsewhere')), { token }))
        .documents,
    ).toHaveLength(1);
    expect(
      await sharedWith(product.deps, await prove(product, token, 'stranger@outsider.example'), {
        token,
      }),
    ).toEqual({ address: 'stranger@outsider.example', sender: null, note: '', documents: [] });
  });

  test('inspected, it says document, version and whom it was made for; another service’s says nothing', async () => {
    const { id, grants } = await send({ delivery: 'by-hand' }, 'mira', 'jonas');
    const { stanza, link } = await look(
      await whole(
        (
          await takeProtectedFile(product.deps, product.ida, {
            id,
            recipient: grants[0]?.recipientId ?? 'rcp_',
            document,
          })
        ).read(),
      ),
    );
    const input = {
      version: stanza?.version as `ver_${string}`,
      serviceUrl: stanza?.serviceUrl ?? '',
      link,
    };
    const { found } = await inspectForStaff(product.deps, product.ida, input);
    expect(found).toMatchObject({
      document: { id: document, title: 'Weight list' },
      version: { number: 1, current: true, recoverable: true },
      madeFor: { dispatch: id, address: grants[0]?.address },
    });
    expect(found?.grants).toHaveLength(2);
    expect(
      await inspectForStaff(product.deps, product.ida, {
        ...input,
        version: 'ver_00000000000000000000',
      }),
    ).toEqual({ found: null });
  });
});

describe('the drill', () => {
  // Others here lose their content on purpose.
  beforeAll(async () => {
    await product.close();
    product = await startProduct();
    document = await protect(product, await drawing(1), 'Weight list');
  });

  test('is passed by who opens the piece, and by nobody else; both stand on the record', async () => {
    const drill = await beginDrill(product.deps);
    const head = Buffer.from(drill.head, 'base64');
    const header = parseHeader(head);
    const key = payloadKey(
      await unwrapFileKey(header, product.privateKey),
      head.subarray(header.length, header.length + PAYLOAD_NONCE),
    );
    const chunk = Buffer.from(drill.chunk, 'base64');
    expect(chunk.length).toBeLessThanOrEqual(CHUNK + 16);
    const proof = createHash('sha256')
      .update(openChunk(nodeChunkCipher(key), 0, drill.only, chunk))
      .digest('hex');
    await expect(
      finishDrill(product.deps, product.ida, { document: drill.document, proof: '0'.repeat(64) }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    expect((await viewKeys(product.deps, product.ida)).lastTried).toMatchObject({
      opened: false,
      who: 'Ida Roe',
    });
    await finishDrill(product.deps, product.ida, { document: drill.document, proof });
    expect((await viewKeys(product.deps, product.ida)).lastTried).toMatchObject({ opened: true });
    await failDrill(product.deps, product.ida);
    expect((await viewKeys(product.deps, product.ida)).lastTried).toMatchObject({ opened: false });
  });

  test('a new version keeps its document out of recovery where it was left out; no valid key is refused', async () => {
    const { recoverable, versions: all } = await viewKeys(product.deps, product.ida);
    expect(recoverable).toBe(all);
    await product.deps.db.write(async (tx) => {
      const { documents } = await import('@/server/db/schema/documents');
      await tx.update(documents).set({ recoverable: false }).where(eq(documents.id, document));
    });
    const { id } = await beginUpload(product.deps, product.ida, {
      fileName: 'a.pdf',
      bytes: 10,
      revises: document,
      recoverable: true,
    });
    expect(
      (
        await product.deps.db.read.query.uploads.findFirst({
          where: (table, { eq: same }) => same(table.id, id),
        })
      )?.recoveryKey,
    ).toBeNull();
    await expect(
      changeRecoveryKey(product.deps, product.ida, { recoveryKey: 'age1nothing' }),
    ).rejects.toMatchObject({ code: 'INVALID' });
  });
});

describe('one for everybody', () => {
  const takeShared = async (id: DispatchId) => {
    const file = await takeProtectedFile(product.deps, product.ida, { id, document });
    const { link, stanza } = await look(await whole(file.read()));
    return { name: file.name, link: link ?? '', version: stanza?.version as VersionId };
  };
  const tokenIn = (link: string): string => link.split('/').at(-1) ?? '';
  const opensFor = async (link: string, who: string) => {
    const token = tokenIn(link);
    const reader = await prove(product, token, address(who));
    return openDocument(product.deps, reader, { token, document });
  };

  test('leads each to what is theirs, names nobody, and opens nothing for a stranger', async () => {
    const { id } = await send({ delivery: 'by-hand' }, 'mira', 'jonas');
    const { name, link, version } = await takeShared(id);
    expect(name).toMatch(/^REF-\d+ - for recipients of D-\d+\.pdf$/);
    expect(await proofAsked(product.deps, tokenIn(link))).toBe('address');
    for (const who of ['mira', 'jonas'])
      expect((await opensFor(link, who)).outcome).toBe('granted');
    expect(await opensFor(link, 'stranger')).toMatchObject({
      outcome: 'refused',
      reason: 'not-addressed',
      sender: null,
    });
    const entries = await product.deps.db.read
      .select()
      .from(ledgerEntries)
      .where(eq(ledgerEntries.dispatchId, id));
    const of = (action: string) => entries.filter((entry) => entry.action === action);
    expect(of('file.taken')).toMatchObject([{ recipientId: null, grantId: null }]);
    expect(of('document.opened').map(({ linkOf }) => linkOf)).toEqual([null, null, null]);
    const { found } = await inspectForStaff(product.deps, product.ida, {
      version,
      serviceUrl: product.deps.publicUrl,
      link,
    });
    expect(found?.madeFor).toMatchObject({ dispatch: id, address: null });
  });

  test('has one link, however many take it at once, which is replaced and switched off alone', async () => {
    const { deps, ida } = product;
    const { id, grants } = await send({ delivery: 'by-hand', form: 'both' }, 'mira');
    const taken = await Promise.all(Array.from({ length: 20 }, () => takeShared(id)));
    expect(new Set(taken.map(({ link }) => link)).size).toBe(1);
    const [first = { link: '' }] = taken;
    const { link } = await replaceLink(deps, ida, { id });
    expect(await proofAsked(deps, tokenIn(first.link))).toBeNull();
    expect((await takeShared(id)).link).toBe(link);
    await switchOffLink(deps, ida, { id });
    expect(await proofAsked(deps, tokenIn(link))).toBeNull();
    await expect(takeShared(id)).rejects.toMatchObject({ problem: 'link-off' });
    expect((await viewDispatch(deps, ida, { id })).sharedLink).toEqual({ off: true });
    // Everybody's own link is as it was.
    expect(await proofAsked(deps, tokenIn(grants[0]?.link ?? ''))).toBe('address');
    expect((await grantRows(deps, ida, { dispatch: id })).map((row) => row.link)).toEqual([
      grants[0]?.link,
    ]);
  });

  test('is taken by who sent it, of what it carries', async () => {
    const { id } = await send({ delivery: 'by-hand' }, 'mira');
    const other = await joinStaff(product, 'sender', `everybody${String(round)}`);
    await expect(takeProtectedFile(product.deps, other, { id, document })).rejects.toMatchObject({
      problem: 'dispatch-of-others',
    });
    await expect(replaceLink(product.deps, product.ida, { id })).rejects.toMatchObject({
      problem: 'link-unknown',
    });
    const elsewhere = await protect(product, await drawing(1), 'Elsewhere');
    await expect(
      takeProtectedFile(product.deps, product.ida, { id, document: elsewhere }),
    ).rejects.toMatchObject({ problem: 'not-sent-in-dispatch' });
    await setWay(product, 'unprotected', 'allowed');
    const clear = await send({ form: 'unprotected', reason: 'They have no browser' }, 'clear');
    await expect(
      takeProtectedFile(product.deps, product.ida, { id: clear.id, document }),
    ).rejects.toMatchObject({ problem: 'no-protected-file' });
    expect((await viewDispatch(product.deps, product.ida, clear)).sharedLink).toBeNull();
    // What was refused left no link behind.
    expect((await viewDispatch(product.deps, product.ida, { id })).sharedLink).toBeNull();
  });
});
