import { useEffect, useEffectEvent, useState } from 'react';
import type { OpenResult } from '@/contracts/reader';
import { CallError, sentenceOf } from '@/ui/http/call';
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

/** Opens a picked file on this machine once its document is open. `turn`: another one, and it is opened anew. */
export function useOwnReading(
  opened: OpenResult | null,
  picked: PickedFile | null,
  turn: number,
): OwnState {
  const { say } = useWords();
  const granted = opened?.outcome === 'granted' ? opened : null;
  const licence = granted?.licence ?? null;
  const isMeant = picked !== null && granted !== null && granted.version === picked.version;
  const mayOpen = isMeant && granted.offline !== null;
  const [state, setState] = useState<OwnState>({ kind: 'none' });
  const begin = useEffectEvent(async (): Promise<OwnReading> => {
    if (granted === null || picked === null) throw new OwnFailure('FAILED');
    // What reads files here is loaded by those alone who do.
    const { openHere } = await import('@/ui/reader/own-source');
    return openHere(granted, picked);
  });
  const wordsOf = useEffectEvent((error: unknown): string => {
    if (error instanceof CallError) return sentenceOf(error);
    const code = error instanceof OwnFailure ? error.code : 'FAILED';
    return say(`own.wrong.${isKnown(code) ? code : 'FAILED'}`);
  });
  useEffect(() => {
    if (!mayOpen || licence === null) return undefined;
    let current = true;
    let reading: OwnReading | null = null;
    setState({ kind: 'opening' });
    begin().then(
      (made) => {
        reading = made;
        if (current) setState({ kind: 'open', reading: made, name: picked.file.name });
        else made.end();
      },
      (error: unknown) => {
        if (current) setState({ kind: 'failed', why: wordsOf(error) });
      },
    );
    return () => {
      current = false;
      reading?.end();
    };
  }, [mayOpen, licence, picked, turn]);
  if (picked === null || granted === null) return { kind: 'none' };
  if (!isMeant) return { kind: 'failed', why: say('own.otherVersion') };
  if (!mayOpen) return { kind: 'failed', why: say('own.notHere') };
  return state.kind === 'none' ? { kind: 'opening' } : state;
}
