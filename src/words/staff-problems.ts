import { sameFileWords } from '@/core/content/same-file-words';
import { counted } from '@/core/base/counted';
import { listed } from '@/core/base/listed';
import { zonedText } from '@/core/base/moment-text';
import type { StaffProblem, ProblemWords } from '@/contracts/problems';
import { rightNames } from '@/core/policy/right-names';
import { ownLevelWords } from '@/words/level-words';
import { dispatchWords } from '@/words/way-words';
import { beyondLines } from '@/core/policy/sender-limits';

const MIB = 1024 * 1024;

/** What members of staff are told when something could not be done. */
export const staffProblemWords: ProblemWords<StaffProblem> = {
  'request-too-large': () => 'This request is too large.',
  'request-unreadable': () => 'This request could not be read.',
  'wrong-origin': () =>
    'This request did not come from Embargo’s own pages, so it was not carried out.',
  'passkey-unknown': () => 'There is no passkey any more.',
  'device-unknown': () => 'This device is not there any more: it was ended, or its time is over.',
  'signed-out': () =>
    'You are not signed in any more. Sign in again; what you typed is still here.',
  'act-key-used': () => 'This key was used for another request.',
  'done-before': () => 'This was done already. Reload the page to see it.',
  'no-document': () => 'There is no such document.',
  'no-dispatch': () => 'There is no such dispatch.',
  'record-of-others': () => 'This is somebody else’s. Ask them, an auditor or an administrator.',
  'asker-gone': () =>
    'The person who asked for this no longer works here. Nothing was sent. Decline it.',
  'no-request': () => 'There is no such request.',
  'own-consent': () => 'You asked for this yourself. Somebody else has to approve it.',
  'consent-needs-administrator': () => 'Only an administrator can answer what others ask for.',
  'consent-answered': () => 'This was already answered.',
  'answer-needs-sentence': () => 'An answer that gives nothing needs a sentence.',
  'end-past': () => 'The end is in the past.',
  'request-gone': () => 'One of these requests is no longer there.',
  'request-of-others': () =>
    'One of these is about somebody else’s dispatch. Nothing was answered. Ask an administrator.',
  'request-answered': () =>
    'Somebody else answered one of these in the meantime. Nothing was answered now; look at them again.',
  'link-off-already': () => 'This link was already switched off.',
  'link-off': () => 'The link of this person was switched off. Replace it first.',
  'dispatch-full': ({ most, carried }) =>
    `A dispatch carries at most ${String(most)} documents, and this one has ${String(carried)}. ` +
    'Send the others in a new one.',
  'no-text': () => 'There is no such saved text.',
  'note-quotes': ({ title }) =>
    `The note quotes a passage of “${title}”, and mail is not protected. Remove it, or put the ` +
    'note behind the link.',
  'given-to-nobody-here': () =>
    'One of these people has nothing of this dispatch any more. Nothing was added.',
  'carried-already': ({ title }) =>
    `This dispatch carries “${title}” already. Change who has it in its table.`,
  'own-id-taken': ({ ownId, address }) => `${ownId} is the identifier of ${address} already.`,
  'request-turns': () =>
    'You asked back many times about one of these. Answer it, or talk to them another way.',
  'file-too-large': () => 'This file is larger than 1 GiB, the most a document can have.',
  'grants-of-others': () =>
    'Some of this was sent by somebody else and is not your document. Nothing was changed. Ask an administrator.',
  'end-before-start': () => 'The end is before the start.',
  'changed-meanwhile': () =>
    'Somebody else changed this in the meantime. Nothing was changed now; look at it again.',
  'no-grant': () => 'There is no such grant.',
  'document-of-others': () =>
    'This document is somebody else’s. Ask its owner or an administrator.',
  'no-page': () => 'There is no such page.',
  'comment-gone': () => 'This comment is not there any more.',
  'comments-of-others': () =>
    'Only the owner, the deputy or an administrator sees the comments on this document.',
  'reading-aids-of-others': () =>
    'Only the owner, the deputy or an administrator can switch reading aids for this document’s readers.',
  'revisions-of-others': () =>
    'Only the owner, the deputy or an administrator sees what was sent back of this document.',
  'revision-answered': () => 'This file was answered already. Load the page again.',
  'version-told': () => 'Everybody was told of this version already.',
  'paper-of-others': () =>
    'Only the owner, the deputy or an administrator sees the copies on paper of this document.',
  'paper-gone': () => 'One of these copies is not in the list any more. Load the page again.',
  'comment-of-others': () => 'This comment is somebody else’s. You can answer or resolve it.',
  'check-of-others': () =>
    'Only the owner, the deputy or an administrator can open this document as a check. Ask one of them.',
  'key-destroyed-for-all': () =>
    'The key of this document was destroyed. Nobody can open it any more.',
  'key-destroyed': () => 'The key of this document was destroyed.',
  'key-destroyed-unsendable': () => 'The key of this document was destroyed, so it cannot be sent.',
  'a-document-gone': () => 'One of the documents is no longer there.',
  'destroy-one-by-one': () =>
    'You destroyed a key within the last day, and destroying several needs a second person ' +
    'here. Select the documents in Documents and ask for it there.',
  'key-destroyed-before': () => 'Its key was already destroyed.',
  'mail-not-set-up-for-codes': () =>
    'No mail server is set up, so no recipient could prove an email address. Set MAIL_URL ' +
    'and MAIL_FROM and start again.',
  'given-nothing': () =>
    'One of the recipients is given no document. Give them one, or remove them.',
  'document-for-nobody': () =>
    'One of the documents is given to nobody. Give it to somebody, or remove it.',
  'approved-for-then': () =>
    'A second person approved it for that time. To send it sooner, stop it and send it again.',
  'held-left': () => 'It has left already, or was stopped before.',
  'sender-gone': () => 'The colleague who composed it may not send any more.',
  'draft-changed': () =>
    'This draft was changed in another window. Nothing of that was overwritten.',
  'an-end-past': () => 'An end is in the past, so it could never be opened.',
  'unprotected-needs-reason': () =>
    'Sending a file unprotected needs a reason, which is kept in the ledger.',
  'unprotected-by-hand': () =>
    'An unprotected file that is handed over leaves no record here. Mail it, or hand over your own original.',
  'unprotected-by-name': () => 'An unprotected file can only be sent to people by name.',
  'unprotected-adds-nobody': () =>
    'This dispatch was unprotected, so nobody can be added to it. Make a new dispatch, with its reason.',
  'mail-not-set-up': () => 'No mail server is set up. Set MAIL_URL and MAIL_FROM and start again.',
  'unprotected-not-again': () =>
    'This dispatch was unprotected, so it is not mailed again. Make a new dispatch, with its reason.',
  'links-by-hand': () => 'The links of this dispatch are handed over by you. They are on its page.',
  'nobody-could-open': () =>
    'None of them can open anything in it any more. Extend their access first.',
  'dispatch-of-others': () =>
    'This was sent by somebody else. Ask them or an administrator to add people.',
  'no-person': () => 'There is no such person.',
  'folder-gone': () => 'This folder no longer exists.',
  'marking-gone': () => 'This marking no longer exists.',
  'owner-unfit': () => 'That colleague cannot own a document: they are disabled, or an auditor.',
  'marking-lower-apart': () =>
    'A lower marking needs a second person. Change the rest separately. Nothing was changed.',
  'some-of-others': () =>
    'Some of these are somebody else’s documents. Nothing was changed. Ask their owner or an administrator.',
  'one-at-a-time': () => 'Title and attributes can be set for one document at a time.',
  'nothing-to-change': () => 'There was nothing to change.',
  'owner-and-deputy': () => 'Owner and deputy have to be two people.',
  'recipient-blocked': () => 'This person is blocked and could open nothing. Unblock them first.',
  'people-gone': () => 'One of these people is no longer there.',
  'nothing-here': () => 'There is nothing here.',
  'exports-running': () => 'Two exports are being made already. Wait until one is done.',
  'no-recovery-key-for-backup': () =>
    'There is no recovery key to encrypt a backup to. Make one in Settings first.',
  'ceiling-changed': () =>
    'Somebody else changed this ceiling in the meantime. Nothing was changed now; look at it again.',
  'no-folder': () => 'There is no such folder.',
  'folder-in-itself': () => 'A folder cannot be inside itself.',
  'no-marking': () => 'There is no such marking.',
  'no-terms': () => 'These terms no longer exist.',
  'no-group': () => 'This group no longer exists.',
  'member-unknown': () => 'One of these people is not known here.',
  'recovery-key-invalid': () => 'That is not the public half of a recovery key.',
  'no-second-administrator': () =>
    'There is no second administrator who could approve this. Invite one first.',
  'waits-already': () => 'This is already waiting for a second administrator.',
  'content-elsewhere': () =>
    'This document was encrypted on its sender’s machine and is not here: it is read from its protected file alone.',
  'local-by-hand': ({ title }) =>
    `“${title}” was encrypted on your machine and is not here, so its file cannot be attached. ` +
    `Send a link, and hand the file over yourself.`,
  'local-needs-own-machine': ({ title }) =>
    `“${title}” is read from its file alone, and somebody may not open it on their own ` +
    `machine. Allow that in their terms.`,
  'not-a-local-upload': () => 'This upload is of another kind. Begin again.',
  'content-not-whole': () =>
    'The stored content of this document is incomplete. Restore it from a backup.',
  'no-recovery-key': () => 'There is no recovery key to try.',
  'nothing-under-recovery': () =>
    'No document is encrypted to this recovery key yet. Protect one, then try.',
  'drill-document-gone': () => 'This document is no longer here. Begin again.',
  'drill-failed': () => 'That is not what is inside this file. The recovery key does not open it.',
  'person-of-others': () => 'Somebody else added this person. Ask them or an administrator.',
  'rule-changed': () =>
    'Somebody else decided about this in the meantime. Nothing was changed now; look at it again.',
  'mail-not-set-up-for-invitations': () =>
    'No mail server is set up, so nobody can be invited. Set MAIL_URL and MAIL_FROM and start again.',
  'no-colleague': () => 'There is no such colleague.',
  'own-role': () => 'Only another administrator can change your role and access.',
  'last-administrator': () => 'Somebody has to remain administrator.',
  'ticket-used': () =>
    'This link was already used, or has expired. Ask for a new one on the sign-in page.',
  'successor-is-self': () => 'Somebody cannot take over from themselves.',
  'left-before': () => 'They were already marked as having left.',
  'file-no-json': () => 'This file is not JSON.',
  'file-no-odrl': () => 'This file contains no ODRL policy.',
  'upload-over': () => 'This upload has ended. Choose the file again.',
  'file-incomplete': () => 'Part of the file is still missing.',
  'upload-is-version': () => 'This upload is a new version of a document.',
  'upload-is-document': () => 'This upload is a document of its own.',
  'same-file': ({ title, same, older }) => sameFileWords({ title, reference: same, older }),
  'protect-as-new': () => 'This document’s key was destroyed. Protect the file as a new document.',
  'not-sent-to-person': () => 'This person was not sent this document in this dispatch.',
  'not-sent-in-dispatch': () => 'This document was not sent in this dispatch.',
  'no-protected-file': () => 'This was sent unprotected, so there is no protected file of it.',
  'file-of-others': () =>
    'This was sent by somebody else. Ask them or an administrator for the file.',
  'file-holds-link': () =>
    'Its cover page has a link that opens without proof, so only the sender can take the file.',
  'opens-for-nobody': () =>
    'Nobody can open this document any more: it is revoked, or its key was destroyed.',
  'content-damaged': () =>
    'The stored content of this document is damaged, so a file of it would not open. Restore it from a backup.',
  'prove-again': () => 'This affects a lot. Prove again who you are.',
  'type-app-code': () => 'Enter the code that your authenticator app shows.',
  'app-code-wrong': () =>
    'That is not the code your app shows now. Each code works once: wait for the next one.',
  'password-wrong': () => 'That is not your password.',
  'factor-of-another': () => 'This code belongs to another set-up. Begin again.',
  'app-clock': () => 'That is not the code your app shows now. Check the phone’s clock.',
  'no-message': () => 'There is no such message.',
  'no-attachment': () => 'This message has no such file.',
  'reason-needed': () => 'Your organisation asks for a reason here. Nothing was changed.',
  'part-does-not-follow': () => 'This part does not follow what was received.',
  'file-received': () => 'The whole file was already received.',
  'file-changed': () =>
    'The file was changed while it was uploaded. Cancel this upload and choose it again.',
  'part-length': () => 'This part is not as long as was announced.',
  'statement-running': () => 'A statement is being made already. Wait until that is done.',
  'nothing-revoked': () => 'Nothing of this was revoked.',
  'nothing-signed': () => 'Nothing has been signed yet.',
  'address-is-theirs': () => 'That is already their email address.',
  'one-is-blocked': () =>
    'One of these email addresses is blocked and the other is not. Block or unblock one first, so ' +
    'that nobody is let in or shut out by joining them.',
  'only-senders-limited': () =>
    'Only senders have limits: administrators have none, and auditors send nothing.',
  'limits-changed': () =>
    'Somebody else changed these limits in the meantime. Nothing was changed now; look at them again.',
  'set-up-token-wrong': () =>
    'That is not the set-up token. It is on the console where Embargo was started.',
  'set-up-before': () => 'This organisation is already set up. Sign in instead.',
  'groups-gone': () => 'One of the groups is no longer there.',
  'sign-in-wrong': () => 'Email address and password do not match.',
  'rows-not-ours': () =>
    'Something this depends on was changed in the database by another program. Nothing was ' +
    'done. Verify the ledger, and ask the person who runs this server.',
  'verification-running': () => 'The ledger is being verified already. Wait until that is done.',
  'checkpoint-invalid': () =>
    'This is not a signed checkpoint. Paste all of it, as it was mailed or downloaded.',
  'moment-to-come': () => 'The ledger says nothing about the future. Choose a moment in the past.',
  'group-of-others': () =>
    'Somebody else sent something to this group, so its members change who has access to it. Ask an administrator.',
  'second-person-needed': () =>
    'This needs a second person. Make it a new dispatch: it waits for their approval.',
  'permission-missing': ({ role }) =>
    `${role === 'sender' ? 'A sender' : 'An auditor'} cannot do this. Ask an administrator.`,
  'administrator-too-new': ({ from, zone }) =>
    'You became an administrator a short while ago. ' +
    `You can approve what others ask for from ${zonedText(from, zone)} on.`,
  'revoked-by-administrator': ({ name }) =>
    `${name} revoked this as an administrator. Nothing was changed. Ask them.`,
  'right-needs': ({ right, needs }) =>
    `${rightNames[right]} needs ${needs === 'unlimited-print' ? 'Print without a limit' : rightNames[needs]}.`,
  'terms-name-taken': ({ name }) => `There are already terms named “${name}”.`,
  'terms-changed': ({ by }) =>
    `${by} changed these terms in the meantime. Nothing was changed now; look at them again.`,
  'reference-not-typed': ({ reference }) =>
    `Type ${reference} exactly, to say that you mean this document.`,
  'words-not-typed': ({ words }) => `Type “${words}”, to say that you mean all of them.`,
  'too-many-recipients': ({ most, found }) =>
    `A dispatch reaches at most ${String(most)} people. With the groups, this one would ` +
    `reach ${String(found)}: make it two.`,
  'title-of-others': ({ title }) =>
    `“${title}” is somebody else’s document. Ask its owner or an administrator to send it.`,
  'title-revoked': ({ title }) =>
    `“${title}” is revoked, so nobody could open it. Reinstate it or remove it.`,
  'too-large-to-mail': ({ bytes, most }) =>
    `These files are ${String(Math.ceil(bytes / MIB))} MB together, more than can be mailed (${String(most / MIB)} ` +
    'MB). Hand over the protected files yourself, or mail the link.',
  'keep-forbidden': ({ title, level }) =>
    `Nobody may keep a copy of “${title}”: the ceiling of ${ownLevelWords[level]} forbids ` +
    'it, so it cannot be sent unprotected. Send a link or a protected file.',
  'already-recipients': ({ addresses }) =>
    `${listed(addresses)} ${addresses.length === 1 ? 'is' : 'are'} already in this dispatch. Nobody was added.`,
  'too-many-tries': ({ retryAfter }) =>
    `Too many tries. Wait ${String(Math.ceil(retryAfter / 60))} min and try again.`,
  'agreement-unreadable': ({ issues }) => `This cannot be given: ${issues.join('; ')}.`,
  'never-sent': ({ address }) => `Nobody with the address “${address}” was ever sent anything.`,
  'too-many-drafts': ({ most }) => `You have ${String(most)} drafts. Discard some first.`,
  'no-level-subject': ({ level }) => `This ${level} no longer exists.`,
  'limits-left-behind': ({ name }) =>
    `${name === null ? 'The organisation' : `“${name}”`} sets limits or a watermark that ` +
    'would no longer apply. Nothing was changed. Ask an administrator.',
  'backup-content-damaged': ({ reference, title }) =>
    `The stored content of ${reference} ${title} is damaged, so a backup could not bring it ` +
    'back. Run check, and restore it first.',
  'folder-name-taken': ({ name }) => `There is already a folder named “${name}” here.`,
  'folder-of-others': ({ name }) =>
    `“${name}” is somebody else’s folder. Ask them or an administrator.`,
  'folder-has-limits': ({ name }) =>
    `An administrator set limits, defaults or a watermark on “${name}”. Ask one to remove it.`,
  'folder-not-empty': ({ name }) => `“${name}” is not empty. Move what is in it first.`,
  'marking-name-taken': ({ name }) => `There is already a marking named “${name}”.`,
  'marking-in-use': ({ name, documents }) =>
    `${counted(documents, 'document is', 'documents are')} marked “${name}”. Give them another marking first.`,
  'named-group-of-others': ({ name }) =>
    `“${name}” is somebody else’s group. Ask them or an administrator.`,
  'group-name-taken': ({ name }) => `There is already a group named “${name}”.`,
  'on-staff-already': ({ email }) => `${email} is already on the staff.`,
  'colleague-disabled': ({ name }) => `${name} is disabled. Enable them first.`,
  'successor-blocked': ({ address }) =>
    `${address} is blocked and could open nothing. Nothing was changed.`,
  'reference-taken': ({ reference }) => `Another document already has the reference ${reference}.`,
  'nobody-to-join': ({ address }) =>
    `Nobody with the address ${address} is known here, so there is nothing to join.`,
  'beyond-own-limits': ({ beyond, setBy }) =>
    `${beyondLines(beyond)[0] ?? ''} ${setBy ?? 'An administrator'} set it so: ask them.`,
  'public-domain': ({ domain }) =>
    `Anybody can have an email address at ${domain}, so this would be open to everyone. Name the people instead.`,
  'way-forbidden': ({ way, setBy, byDefault, reason }) =>
    byDefault
      ? `${dispatchWords[way]} is not allowed here. It is off until an administrator allows it under Terms.`
      : `${dispatchWords[way]} is not allowed here. ${setBy ?? 'An administrator'} decided so` +
        `${reason === '' ? '' : `: ${reason}`}. ` +
        'Ask an administrator.',
  'archive-foreign': ({ name }) =>
    `This archive contains “${name}”, which no backup of Embargo contains.`,
  'backup-incomplete': ({ content }) =>
    content === null
      ? 'This backup is incomplete: files are missing in it.'
      : `This backup is incomplete: the content ${content} is missing or cut.`,
  'backup-unreadable': () =>
    'This backup was made by a newer version of Embargo, or is not a backup.',
  'not-a-backup': () => 'This is not a backup of Embargo.',
  'document-not-backup': () => 'This is a protected document, not a backup. Open it with recover.',
};
