'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { PAYLOAD_NONCE, openChunk, payloadKey } from '@/core/age/chunks';
import { parseHeader } from '@/core/age/header';
import { unwrapFileKey } from '@/core/age/recipients';
import { AppError } from '@/core/base/errors';
import type { Drill } from '@/contracts/keys';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { GiveKey } from '@/ui/recovery/give-key';
import { Notice } from '@/ui/shell/notice';

function bytesOf(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));
}

function hexOf(bytes: ArrayBuffer): string {
  return Array.from(new Uint8Array(bytes), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/**
 * Opens the first piece of a stored file with the private key, in this page.
 * @returns SHA-256 of
 * what is inside, in hex; AgeError where it does not open
 */
async function openPiece({ head, chunk, only }: Drill, privateKey: string): Promise<string> {
  const bytes = bytesOf(head);
  const header = parseHeader(bytes);
  const fileKey = await unwrapFileKey(header, privateKey);
  const { sodiumChunkCipher } = await import('@/core/age/sodium-cipher');
  const cipher = (await sodiumChunkCipher())(
    payloadKey(fileKey, bytes.subarray(header.length, header.length + PAYLOAD_NONCE)),
  );
  return hexOf(
    await crypto.subtle.digest(
      'SHA-256',
      openChunk(cipher, 0, only, bytesOf(chunk)) as Uint8Array<ArrayBuffer>,
    ),
  );
}

/** Proves that the organisation can still open its files by itself: one of them, with the key it stored. */
export function RecoveryDrill() {
  const { busy, said, attempt } = useAttempt();
  const [drill, setDrill] = useState<Drill | null>(null);
  const begin = () =>
    attempt(async () => {
      setDrill(await api('GET /api/v1/settings/drill', {}));
    });
  const tryKey = async (privateKey: string): Promise<string | null> => {
    if (drill === null) return null;
    try {
      const proof = await openPiece(drill, privateKey);
      let problem: string | null = null;
      const well = await attempt(async () => {
        await api('POST /api/v1/settings/drill', { document: drill.document, proof }).catch(
          (error: unknown) => {
            problem = sentenceOf(error);
            throw error;
          },
        );
      }, `“${drill.title}” was opened with the recovery key alone. The drill is in the ledger.`);
      if (well) setDrill(null);
      return problem;
    } catch (error) {
      if (!(error instanceof AppError)) throw error;
      await attempt(() => api('POST /api/v1/settings/drill/failed', {}));
      return 'This key does not open the file. Is it the current key, and complete?';
    }
  };
  return (
    <div className="stack">
      {drill === null ? (
        <div className="row">
          <Button disabled={busy} onClick={() => void begin()}>
            Try the recovery key
          </Button>
        </div>
      ) : (
        <>
          <p>
            This time: <b>{drill.title}</b> <span className="figure quiet">{drill.reference}</span>.
            Open its encrypted beginning with the key you stored.
          </p>
          <GiveKey action="Open file" busy={busy} onKey={tryKey} />
        </>
      )}
      <Notice said={said} />
    </div>
  );
}
