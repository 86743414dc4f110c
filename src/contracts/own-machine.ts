import { z } from 'zod';
import type { LicenceId } from '@/core/base/ids';
import { versionId } from '@/contracts/files';
import { DAY } from '@/core/base/time';
import type { RefusalReason } from '@/core/policy/decide';
import type { BoxKey } from '@/core/licence/key-box';
import type { CarriedRun } from '@/core/watermark/carried-glyphs';
import type { WantedPage } from '@/core/own-machine/own-document';
import {
  licenceId,
  licenceInput,
  publicKey,
  type FoundPage,
  type OutlineLine,
  type TextPiece,
} from '@/contracts/reader';

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
  /** The service's time as it was given, in ms since the epoch. */
  readonly now: number;
  /** Until when it is read without asking, in ms since the epoch; null: every open asks. */
  readonly offlineUntil: number | null;
};

/** What a device is given to make a copy of what it has open: on paper, or in the clear. */
export type PermitGiven = {
  readonly outcome: 'granted';
  /** The permit as a signed statement (JWS, EdDSA). */
  readonly permit: string;
  /** What its watermark needs of fonts that are not on the device. */
  readonly glyphs: readonly CarriedRun[];
  /** What the file is to be called. */
  readonly name: string;
};

/** An open that was made without a connection, as the device wrote it down. */
const offlineOpen = z.object({
  licence: licenceId,
  /** Opens of a licence without a connection count from 1: one that is missing is seen. */
  number: z.number().int().min(1).max(1_000_000),
  /** By the service's clock, as far as the device could tell. */
  openedAt: z.number().int().min(0),
  /** Pages, and for how long each was in view, in ms: pairs, since a request of a reader is short. */
  pages: z
    .array(
      z.tuple([
        z.number().int().min(1).max(20_000),
        z
          .number()
          .int()
          .min(0)
          .max(90 * DAY),
      ]),
    )
    .max(1_000),
});
export type OfflineOpen = z.infer<typeof offlineOpen>;

/** What a device tells when it has a connection again. */
export const handInInput = z.object({
  opens: z.array(offlineOpen).max(20),
  /** The licences it still has. */
  kept: z.array(licenceId).max(200),
  /** Licences that it forgot because it was told to. */
  forgotten: z.array(licenceId).max(200),
});
export type HandInInput = z.infer<typeof handInInput>;
/** What came of it. */
export type HandedIn = {
  /** How many of the opens are written down; any other is somebody else's, who is to hand it in. */
  readonly taken: number;
  /** Licences that end now, whatever they say, and why. */
  readonly over: readonly { readonly licence: LicenceId; readonly reason: RefusalReason }[];
};

type CopyAsked = Pick<PermitGiven, 'permit' | 'glyphs'>;

/** What the worker that reads a document on this machine is asked. */
export type OwnAsked =
  | {
      readonly kind: 'open';
      readonly file: File;
      readonly taken: KeyTaken;
      /** This browser's key for content keys; its private half cannot be taken out. */
      readonly boxKey: BoxKey;
      readonly privateKey: CryptoKey;
      /** The time by the service's clock, in ms since the epoch: from here on it goes on by itself. */
      readonly now: number;
      /** PDFium: whoever starts the worker fetches it, which a page can do without a connection too. */
      readonly wasm: ArrayBuffer;
    }
  | { readonly kind: 'picture'; readonly wanted: WantedPage }
  | ({ readonly kind: 'print'; readonly title: string } & CopyAsked)
  | ({ readonly kind: 'keep' } & CopyAsked)
  | { readonly kind: 'text'; readonly page: number }
  | { readonly kind: 'outline' }
  | { readonly kind: 'find'; readonly words: string; readonly from: number };

/** What it answers to each. */
export type OwnAnswers = {
  readonly open: { readonly pages: number };
  readonly picture: {
    readonly blob: Blob;
    readonly points: { readonly width: number; readonly height: number };
  };
  /** A PDF. */
  readonly print: { readonly blob: Blob };
  /** `marked`: it bears the watermark. */
  readonly keep: { readonly blob: Blob; readonly marked: boolean };
  readonly text: readonly TextPiece[];
  readonly outline: readonly OutlineLine[];
  readonly find: { readonly found: readonly FoundPage[]; readonly next: number | null };
};

/** Errors lose their class on the way from a worker, so they travel as codes. */
export type OwnReply =
  | { readonly id: number; readonly ok: true; readonly result: OwnAnswers[keyof OwnAnswers] }
  | { readonly id: number; readonly ok: false; readonly code: string };
