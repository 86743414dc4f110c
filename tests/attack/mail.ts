import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { newId } from '@/core/base/ids';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { requestCode } from '@/server/services/reading/prove-address';
import { startSink } from '../support/smtp-sink';
import { dispatch, drawing, protect, startProduct, stranger } from '../support/product';

/** How long a code takes to reach a mail server that takes 50 ms a message, behind so many others. */
export async function mailBehind(
  messages: number,
): Promise<{ readonly ms: number; readonly waiting: number }> {
  const sink = await startSink();
  const product = await startProduct(mkdtempSync(path.join(tmpdir(), 'embargo-mail-')), {
    MAIL_URL: sink.url,
    MAIL_FROM: 'Tern & Quill <documents@tern-quill.example>',
  });
  const address = 'mira@yard.example';
  const { tokenOf } = await dispatch(
    product,
    [await protect(product, await drawing(1))],
    [address],
  );
  await product.deps.db.write((tx) =>
    queueMail(
      tx,
      Array.from({ length: messages }, (_, i) => ({
        id: newId('message', product.deps.random),
        toAddress: `many.${String(i)}@yard.example`,
        subject: 's',
        body: 'b',
        state: 'waiting' as const,
        nextAttemptAt: 0,
        createdAt: 0,
      })),
    ),
  );
  sink.slow(50);
  product.container.startBackground();
  await new Promise((resolve) => {
    setTimeout(resolve, 1_500);
  });
  const waiting = messages - sink.received.length;
  const began = Date.now();
  await requestCode(product.deps, stranger(), { token: tokenOf(address), address });
  while (
    !sink.received.some((mail) => mail.subject?.endsWith('is your code') === true) &&
    Date.now() - began < 30_000
  )
    await new Promise((resolve) => {
      setTimeout(resolve, 20);
    });
  const ms = Date.now() - began;
  sink.slow(0);
  await deliverMail(product.deps);
  await product.close();
  await sink.close();
  return { ms, waiting };
}
