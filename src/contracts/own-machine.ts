import { z } from 'zod';
import { isId, type VersionId } from '@/core/base/ids';
import type { CarriedRun } from '@/core/watermark/carried-glyphs';
import { licenceInput, publicKey } from '@/contracts/reader';

const versionId = z.custom<VersionId>(
  (value) => typeof value === 'string' && isId('version', value),
  'no such version',
);

/** A device asks for the content key of the version that its file holds. */
export const takeKeyInput = licenceInput.extend({
  version: versionId,
  /** What the content key is to be encrypted to: a key of the device for this alone. */
  boxKey: publicKey,
});
export type TakeKeyInput = z.infer<typeof takeKeyInput>;

/** All that a device needs, besides the file, to read a document itself. */
export type KeyTaken = {
  readonly outcome: 'granted';
  /** The licence as a signed statement (JWS, EdDSA). */
  readonly statement: string;
  /** The content key for this device alone (JWE). */
  readonly box: string;
  /** Who signed: its name, and its Ed25519 key in base64url. */
  readonly issuer: { readonly name: string; readonly publicKey: string };
  /** What the watermark needs of fonts that are not on the device. */
  readonly glyphs: readonly CarriedRun[];
};
