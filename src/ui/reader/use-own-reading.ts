import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { OpenResult } from '@/contracts/reader';
import { CallError, sentenceOf } from '@/ui/http/call';
import { RefusedError } from '@/ui/pages/refused';
import type { OwnReading } from '@/ui/reader/own-source';
import { OwnFailure } from '@/ui/own-machine/own-worker';
import type { PickedFile } from '@/ui/reader/picked-file';
import { useWords } from '@/ui/words/use-words';
import { en } from '@/words/reader/en';

/**
 * How a document is read on this machine: `none` where no file of it was picked or it does not open
 * here; `failed` where it is read from the service instead, and why.
 */
export type OwnState =
  | { readonly kind: 'none' }
  | { readonly kind: 'opening' }
  | { readonly kind: 'open'; readonly reading: OwnReading; readonly name: string }
  | { readonly kind: 'failed'; readonly why: string };

type WrongCode = keyof typeof en.own.wrong;

function isKnown(code: string): code is WrongCode {
  return Object.hasOwn(en.own.wrong, code);
}

function isReason(reason: string): reason is keyof typeof en.reasons {
  return Object.hasOwn(en.reasons, reason);
}

type Granted = OpenResult & { readonly outcome: 'granted' };

/** Why a picked file is not opened here; `null`: it may be. */
function notHere(granted: Granted, picked: PickedFile): 'own.otherVersion' | 'own.notHere' | null {
  if (granted.version !== picked.version) return 'own.otherVersion';
  return granted.offline === null ? 'own.notHere' : null;
}

/** The same where there are no pages at the service to be read instead. */
const ALONE = { 'own.otherVersion': 'own.wrongFile', 'own.notHere': 'own.nowhere' } as const;
/** What else is wrong with the file itself. */
const WRONG_FILE: ReadonlySet<string> = new Set(['ANOTHER_VERSION', 'DAMAGED', 'BAD_LICENCE']);

/** Whom to ask. */
function said(granted: Granted | null): { readonly sender: string } {
  return { sender: granted?.sender.name ?? '' };
}

/** What is said where it could not be opened here, by the code of the failure. */
function wordsFor(code: string, isLocal: boolean) {
  if (isLocal) return WRONG_FILE.has(code) ? 'own.wrongFile' : 'own.notOpened';
  return `own.wrong.${isKnown(code) ? code : 'FAILED'}` as const;
}

/** Opens a picked file on this machine once its document is open. `turn`: another one, and it is opened anew. */
export function useOwnReading(
  opened: OpenResult | null,
  picked: PickedFile | null,
  turn: number,
): OwnState {
  const { say } = useWords();
  const granted = opened?.outcome === 'granted' ? opened : null;
  const why = granted === null || picked === null ? 'none' : notHere(granted, picked);
  const result = useReading(granted, why === null ? picked : null, turn);
  if (why === 'none') return { kind: 'none' };
  if (why === null) return result;
  return { kind: 'failed', why: say(granted?.isLocal === true ? ALONE[why] : why, said(granted)) };
}

/** A reading for one licence, file and turn, ended as soon as one of them is another. */
function useReading(granted: Granted | null, picked: PickedFile | null, turn: number): OwnState {
  const { say } = useWords();
  const licence = granted?.licence ?? null;
  const [done, setDone] = useState<{ readonly of: object; readonly state: OwnState } | null>(null);
  const of = useMemo(() => ({ picked, licence, turn }), [picked, licence, turn]);
  const begin = useEffectEvent(async (file: PickedFile): Promise<OwnReading> => {
    if (granted === null) throw new OwnFailure('FAILED');
    // What reads files here is loaded by those alone who do.
    const { openHere } = await import('@/ui/reader/own-source');
    return openHere(granted, file);
  });
  const wordsOf = useEffectEvent((error: unknown): string => {
    if (error instanceof CallError) return sentenceOf(error);
    // Access ended between the open and this.
    if (error instanceof RefusedError && isReason(error.reason))
      return say(`reasons.${error.reason}.title`);
    const code = error instanceof OwnFailure ? error.code : 'FAILED';
    return say(wordsFor(code, granted?.isLocal === true), said(granted));
  });
  useEffect(() => {
    if (of.picked === null || of.licence === null) return undefined;
    const { file } = of.picked;
    let current = true;
    let reading: OwnReading | null = null;
    begin(of.picked).then(
      (made) => {
        reading = made;
        if (current) setDone({ of, state: { kind: 'open', reading: made, name: file.name } });
        else made.end();
      },
      (error: unknown) => {
        if (current) setDone({ of, state: { kind: 'failed', why: wordsOf(error) } });
      },
    );
    return () => {
      current = false;
      reading?.end();
    };
  }, [of]);
  return done?.of === of ? done.state : { kind: 'opening' };
}
