import { existsSync } from 'node:fs';
import { mkdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { groupBy } from '@/core/base/group';
import type { DispatchId, DocumentId } from '@/core/base/ids';
import { referenceFrom, titleFrom } from '@/core/content/names';
import { parseAddresses } from '@/core/policy/address';
import { DELIVERY_FORMS, type DeliveryForm } from '@/core/policy/delivery';
import { termsAt, type SavedTerms } from '@/core/policy/saved-terms';
import { beginUploadInput, finishUploadInput } from '@/contracts/document';
import { dispatchInput } from '@/contracts/dispatch';
import { UsageError, checked, needed, type Call, type Command } from '@/cli/command';
import { actorNamed, withService } from '@/cli/open-service';
import { withSealedFiles } from '@/cli/sealed-files';
import { takeLocal } from '@/cli/take-local';
import { writeWhole } from '@/cli/write-whole';
import type { Terms } from '@/core/policy/rights';
import { grantsOf } from '@/server/repositories/access/grant-reader';
import { allReferences } from '@/server/repositories/documents/document-repository';
import { listSavedTerms } from '@/server/repositories/documents/filing-repository';
import { beginUpload } from '@/server/services/documents/begin-upload';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { beginningOf } from '@/server/services/policy/manage-defaults';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { cancelUpload, protectDocument } from '@/server/services/documents/protect-document';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { receivePart } from '@/server/services/documents/receive-part';
import { readAhead } from '@/server/storage/read-ahead';

type Taken = {
  readonly path: string;
  readonly id: DocumentId;
  readonly reference: string;
  /** Its protected file, where that is written at once. */
  readonly target?: string;
};

export const protectCommand: Command = {
  name: 'protect',
  usage: 'FILE… --to ADDRESSES [--terms NAME] [--out FOLDER]',
  summary:
    'Encrypts files, gives the email addresses access, and writes the protected files for you to hand over.',
  help: `--to ADDRESSES     who may open them, separated by commas, spaces or lines; may be given several times
--terms NAME       saved terms; without them: Read, for 30 days
--out FOLDER       where the protected files go; else here
--one-file         one file for everybody, instead of one for each organisation
--subject TEXT     what recipients are told it is; else the first title
--title, --reference   for one file: else both follow from its name
--title-on-cover   the first page and the name say the title as well
--mail FORM        mail it instead: link, file or both
--again            make another document of a file that is protected already
--local            keep the content out of the store: it is in the protected file alone (PDF only)
--no-recovery      leave the organisation's recovery key out
--as ADDRESS       which member of staff this is, where there are several administrators`,
  options: {
    to: { type: 'string', multiple: true },
    terms: { type: 'string' },
    out: { type: 'string' },
    'one-file': { type: 'boolean' },
    subject: { type: 'string' },
    title: { type: 'string' },
    reference: { type: 'string' },
    'title-on-cover': { type: 'boolean' },
    mail: { type: 'string' },
    again: { type: 'boolean' },
    local: { type: 'boolean' },
    'no-recovery': { type: 'boolean' },
    as: { type: 'string' },
  },
  run: async (call) => {
    if (call.files.length === 0) throw new UsageError('Name at least one file to protect.');
    if (call.files.length > 1 && (call.text('title') ?? call.text('reference')) !== undefined)
      throw new UsageError('--title and --reference are for one file at a time.');
    const addressees = recipientsOf(call);
    const form = mailedForm(call);
    const isLocal = call.flag('local');
    for (const file of call.files) await needFile(file);
    return withService(call.config(), async (container) => {
      const { deps } = container;
      const actor = await actorNamed(container, call.text('as'));
      if (form !== undefined) needMailer(deps);
      const named = await termsNamed(deps, call.text('terms'));
      const taken: Taken[] = [];
      const take = isLocal ? takeHere : takeIn;
      for (const file of call.files) taken.push(await take(call, deps, actor, file));
      const terms =
        named ??
        (
          await beginningOf(
            deps,
            taken.map(({ id }) => id),
          )
        ).terms;
      const dispatch = checked(
        dispatchInput.safeParse({
          documents: taken.map(({ id }) => id),
          ...addressees,
          terms: asRead(isLocal, termsAt(terms, deps.clock.now())),
          subject: call.text('subject') ?? titleOf(call, call.files[0] ?? ''),
          note: '',
          watermark: terms.watermark,
          delivery: form === undefined ? 'by-hand' : 'mail',
          form: formOf(form, isLocal),
          titleOnCover: call.flag('title-on-cover'),
        }),
      );
      const { id, reference } = await sendDocuments(deps, actor, dispatch);
      if (id === null)
        return {
          code: 0,
          json: {
            dispatch: null,
            waits: true,
            documents: taken.map(({ path: from, reference: named }) => ({
              path: from,
              reference: named,
            })),
            files: [],
          },
          text:
            `${taken.map(({ reference: named }) => named).join(', ')}: protected. A second ` +
            'person has to agree before it is sent; it waits on their Today.\n',
        };
      const written = taken.flatMap(({ target }) => target ?? []);
      const isWritten = form !== undefined || isLocal;
      const files = isWritten ? written : await writeFiles(call, deps, actor, id);
      return {
        code: 0,
        json: {
          dispatch: reference,
          documents: taken.map(({ path: from, reference: named }) => ({
            path: from,
            reference: named,
          })),
          files,
        },
        text:
          `${reference}: ${taken.map(({ reference: named }) => named).join(', ')}\n` +
          files.map((file) => `${file}\n`).join('') +
          (form === undefined
            ? 'The clear originals are still where they were.\n'
            : 'The server mails it as soon as it runs.\n'),
      };
    });
  },
};

function recipientsOf(call: Call) {
  if (call.texts('to').length === 0) needed(call, 'to', 'the email addresses that may open it');
  const { addresses, domains, unreadable } = parseAddresses(call.texts('to').join(', '));
  if (unreadable.length > 0)
    throw new UsageError(`Not an email address: ${unreadable.join(', ')}.`);
  return { recipients: addresses.map(({ address, name }) => ({ address, name })), domains };
}

/** Saved terms by their name; null: none were named. */
async function termsNamed(deps: Deps, name: string | undefined): Promise<SavedTerms | null> {
  if (name === undefined) return null;
  const kept = await listSavedTerms(deps.db.read);
  const found = kept.find((each) => each.name.toLowerCase() === name.toLowerCase());
  if (found === undefined)
    throw new UsageError(
      `There are no terms “${name}”.` +
        (kept.length === 0 ? '' : ` There are: ${kept.map((each) => each.name).join(', ')}.`),
    );
  return found;
}

function titleOf(call: Call, file: string): string {
  return call.text('title') ?? titleFrom(path.basename(file));
}

/** Encrypts one file into the store, as an upload in the browser would. What is cut off is removed again. */
async function takeIn(call: Call, deps: Deps, actor: StaffActor, file: string): Promise<Taken> {
  const { size } = await stat(file);
  const recoverable = !call.flag('no-recovery');
  const begin = checked(
    beginUploadInput.safeParse({ fileName: path.basename(file), bytes: size, recoverable }),
  );
  const { id, partBytes } = await beginUpload(deps, actor, begin);
  try {
    for (let offset = 0; offset < size;) {
      offset = (
        await receivePart(
          deps,
          actor,
          { id, offset },
          readAhead(file, offset, Math.min(size, offset + partBytes)),
        )
      ).receivedBytes;
      call.progress(offset, size, path.basename(file));
    }
    const title = titleOf(call, file);
    const reference =
      call.text('reference') ??
      referenceFrom(path.basename(file), new Set(await allReferences(deps.db.read)));
    const again = call.flag('again');
    const finish = checked(
      finishUploadInput.safeParse({ id, title, reference, recoverable, again }),
    );
    return {
      path: file,
      id: (await protectDocument(deps, actor, finish)).id,
      reference: finish.reference,
    };
  } catch (error) {
    await cancelUpload(deps, actor, { id }).catch(() => undefined);
    throw error;
  }
}

/** Encrypts one file beside where it lies. */
async function takeHere(call: Call, deps: Deps, actor: StaffActor, file: string): Promise<Taken> {
  const reference =
    call.text('reference') ??
    referenceFrom(path.basename(file), new Set(await allReferences(deps.db.read)));
  const named = {
    title: titleOf(call, file),
    reference,
    recoverable: !call.flag('no-recovery'),
    folder: call.text('out') ?? '.',
  };
  const taken = await withSealedFiles(call.config(), (files) =>
    takeLocal(deps, actor, files, file, named),
  );
  return { path: file, ...taken };
}

/** How it is mailed; undefined: it is not. @throws UsageError */
function mailedForm(call: Call): DeliveryForm | undefined {
  const form = DELIVERY_FORMS.find((each) => each === call.text('mail'));
  if (call.text('mail') !== undefined && form === undefined)
    throw new UsageError('--mail is link, file or both.');
  if (call.flag('local') && form !== undefined && form !== 'link')
    throw new UsageError(
      'With --local, only a link can be mailed: the files are yours to hand over.',
    );
  return form;
}

/** @throws UsageError */
function needMailer({ mailer }: Deps): void {
  if (mailer === null)
    throw new UsageError(
      'No mail server is set up, so nothing can be mailed. Set MAIL_URL and MAIL_FROM, ' +
        'or leave --mail out. Nothing was stored.',
    );
}

/** What is handed over: what stays out of the store is led to by a link. */
function formOf(mailed: DeliveryForm | undefined, isLocal: boolean): DeliveryForm {
  return mailed ?? (isLocal ? 'link' : 'file');
}

/** @throws UsageError */
async function needFile(file: string): Promise<void> {
  const found = await stat(file).catch(() => null);
  if (found?.isFile() !== true) throw new UsageError(`There is no file ${file}.`);
}

/** Terms under which what is local opens on people's own machines: without that nobody could read it. */
function asRead<T extends Pick<Terms, 'conditions'>>(isLocal: boolean, terms: T): T {
  if (!isLocal) return terms;
  return { ...terms, conditions: { ...terms.conditions, offline: terms.conditions?.offline ?? 0 } };
}

/** A name that is not taken yet. */
function free(folder: string, name: string): string {
  for (let again = 1; ; again++) {
    const candidate = path.join(
      folder,
      again === 1 ? name : name.replace(/\.pdf$/, ` (${String(again)}).pdf`),
    );
    if (!existsSync(candidate)) return candidate;
  }
}

/** The organisation of a recipient, or else the domain of their address. */
function organisationOf({
  organisation,
  address,
}: {
  readonly organisation: string;
  readonly address: string;
}): string {
  return organisation === '' ? address.slice(address.indexOf('@')) : organisation;
}

/**
 * One protected file for each document and organisation, or for each document alone: everybody who
 * has it is led to their own proof by it.
 */
async function writeFiles(
  call: Call,
  deps: Deps,
  actor: StaffActor,
  id: DispatchId,
): Promise<string[]> {
  const folder = call.text('out') ?? '.';
  const forAll = call.flag('one-file');
  await mkdir(folder, { recursive: true });
  const rows = await grantsOf(deps.db.read, { dispatch: id });
  const written: string[] = [];
  for (const [first] of groupBy(
    rows,
    ({ document, recipient }) => `${document.id} ${forAll ? '' : organisationOf(recipient)}`,
  ).values()) {
    if (first === undefined) continue;
    const file = await takeProtectedFile(deps, actor, {
      id,
      ...(forAll ? {} : { recipient: first.recipient.id }),
      document: first.document.id,
    });
    const target = free(folder, file.name);
    await writeWhole(target, file.read());
    written.push(target);
    call.progress(written.length, rows.length, 'written');
  }
  return written;
}
