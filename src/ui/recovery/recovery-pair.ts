import {
  generateHybridIdentity,
  generateX25519Identity,
  identityToRecipient,
} from 'age-encryption';

export type RecoveryPair = { readonly privateKey: string; readonly publicKey: string };
/** `hybrid` holds against quantum computers as well, and fewer tools open it. */
export type RecoveryKind = 'x25519' | 'hybrid';

/** Makes a pair in this browser. Only the public half may leave it. */
export async function makePair(kind: RecoveryKind): Promise<RecoveryPair> {
  const privateKey =
    kind === 'hybrid' ? await generateHybridIdentity() : await generateX25519Identity();
  return { privateKey, publicKey: await identityToRecipient(privateKey) };
}

/** The text of a key file. */
export function keyFileText({ privateKey, publicKey }: RecoveryPair): string {
  return `# Embargo recovery key. Public half: ${publicKey}\n${privateKey}\n`;
}

/** The public half of a private key; `null` where it is none. */
export async function publicHalf(privateKey: string): Promise<string | null> {
  try {
    return await identityToRecipient(privateKey.trim());
  } catch {
    return null;
  }
}

/** Offers a text as a file, without it ever leaving this browser. */
export function saveText(text: string, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
