import 'server-only';
import { groupBy } from '@/core/base/group';
import { newId, type DispatchId, type GrantId, type RecipientId } from '@/core/base/ids';
import { DAY, MINUTE } from '@/core/base/time';
import { endSoonMail } from '@/server/mail/notice-mail';
import { grantsOf } from '@/server/repositories/access/grant-reader';
import { type RecipientRecord } from '@/server/repositories/people/recipient-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { documentsEnding, senderOf } from '@/server/repositories/mailing/notice-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { linkOf } from '@/server/repositories/reading/reader-repository';
import { findSetting, putSetting } from '@/server/repositories/staff/settings-repository';
import { languageOf } from '@/core/base/languages';
import { mailTitles, type Titled } from '@/server/services/base/mail-titles';
import type { Deps } from '@/server/services/base/deps';
import { reachedWithout } from '@/server/services/access/reach-now';
import { readWorkSettings } from '@/server/services/base/work-settings';

const NAME = 'ends told';
const STEP = 10 * MINUTE;
type Told = { readonly upTo: number };
type End = {
  readonly person: RecipientRecord;
  readonly dispatch: DispatchId;
  readonly document: Titled;
  readonly until: number;
};

/** Whose access to what ends in (`from`, `to`], by everything that each of them has. */
async function endsIn(deps: Pick<Deps, 'db' | 'clock'>, from: number, to: number): Promise<End[]> {
  const ends: End[] = [];
  for (const document of await documentsEnding(deps.db.read, from, to)) {
    const rows = await grantsOf(deps.db.read, { document });
    for (const { person, after } of await reachedWithout(deps, rows, new Set<GrantId>())) {
      if (
        person.kind !== 'person' ||
        !after.opens ||
        after.until === null ||
        after.until <= from ||
        after.until > to
      )
        continue;
      const row = rows.find(
        ({ grant, dispatch, recipient }) =>
          after.routes.includes(grant.id) &&
          recipient.id === person.id &&
          dispatch.delivery === 'mail',
      );
      if (row !== undefined)
        ends.push({
          person,
          dispatch: row.dispatch.id,
          document: row.document,
          until: after.until,
        });
    }
  }
  return ends;
}

type Mail = Parameters<typeof queueMail>[1][number];

/** One message about what of one person's by one dispatch ends; `null` where they have no link. */
async function mailOf(deps: Deps, ends: readonly End[], now: number): Promise<Mail | null> {
  const [first] = ends;
  if (first === undefined) return null;
  const { person, dispatch } = first;
  const db = deps.db.read;
  const token = await linkOf(db, dispatch, person.id);
  if (token === null) return null;
  const organisation = await findOrganisation(db);
  const language = languageOf(person.language);
  const titleOf = await mailTitles(db);
  const sender = await senderOf(db, dispatch);
  const mail = endSoonMail({
    senderName: sender.name,
    organisation: organisation?.name ?? '',
    ends: ends.map(({ document, until }) => ({ title: titleOf(document, language), until })),
    language,
    zone: person.zone ?? organisation?.zone ?? 'UTC',
    link: `${deps.publicUrl}/r/${token}`,
  });
  return {
    id: newId('message', deps.random),
    recipientId: person.id,
    toAddress: person.address,
    replyTo: sender.email,
    ...mail,
    state: 'waiting',
    nextAttemptAt: now,
    createdAt: now,
  };
}

/**
 * Where the organisation wants it, tells recipients so many days before that their access ends. Who
 * has longer access by another way is not told.
 *
 * @returns how many messages are on their way
 */
export async function tellOfEnds(deps: Deps): Promise<number> {
  const db = deps.db.read;
  const { endsTold } = await readWorkSettings(db);
  const told = (await findSetting(db, NAME)) as Told | null;
  if (endsTold === 0) {
    if (told !== null) await deps.db.write((tx) => putSetting(tx, NAME, null));
    return 0;
  }
  const now = deps.clock.now();
  const [from, to] = [Math.max(told?.upTo ?? now, now), now + endsTold * DAY];
  // A long list is not gone through for a few minutes more.
  if (to - from < STEP) return 0;
  const ends = await endsIn(deps, from, to);
  const mails: Mail[] = [];
  for (const mine of groupBy(
    ends,
    ({ person, dispatch }): `${RecipientId} ${DispatchId}` => `${person.id} ${dispatch}`,
  ).values()) {
    const mail = await mailOf(deps, mine, now);
    if (mail !== null) mails.push(mail);
  }
  return deps.db.write(async (tx) => {
    // Another process may have told them meanwhile.
    const current = (await findSetting(tx, NAME)) as Told | null;
    if (current?.upTo !== told?.upTo) return 0;
    await putSetting(tx, NAME, { upTo: to } satisfies Told);
    if (mails.length > 0) await queueMail(tx, mails);
    return mails.length;
  });
}
