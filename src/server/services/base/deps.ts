import 'server-only';
import type { Moment } from '@/core/base/time';
import type { RandomSource } from '@/core/base/random';
import type { Language } from '@/core/base/languages';
import type { DeviceId, RecipientId, StaffId } from '@/core/base/ids';
import type { Role } from '@/core/policy/permissions';
import type { Covers } from '@/server/covers/covers';
import type { Calendar } from '@/server/clock/calendar';
import type { DemoClock } from '@/server/clock/demo-clock';
import type { Clock } from '@/server/clock/clock';
import type { Database } from '@/server/db/database';
import type { LentBuffers } from '@/server/limits/lent-buffers';
import type { FairQueue } from '@/server/limits/fair-queue';
import type { Limits } from '@/server/limits/limits';
import type { LiveChanges } from '@/server/live/live-changes';
import type { MailInbox } from '@/server/mail/inbox';
import type { Mailer } from '@/server/mail/mailer';
import type { Places } from '@/server/places/places';
import type { Renderer } from '@/server/rendering/render-pool';
import type { LedgerProver } from '@/server/verifying/ledger-prover';
import type { LedgerVerifier } from '@/server/verifying/ledger-verifier';
import type { LedgerExporter } from '@/server/exporting/ledger-exporter';
import type { LedgerCounts } from '@/server/repositories/ledger/ledger-counts';
import type { Recorder } from '@/server/repositories/ledger/ledger-writer';
import type { Health } from '@/server/health/health';
import type { Witness } from '@/server/storage/witness';
import type { Integrity } from '@/server/services/base/trusted-rows';
import type { EndedList } from '@/server/storage/ended-list';
import type { BlobStore } from '@/server/storage/blob-store';
import type { LicenceSigner } from '@/core/licence/licence';
import type { PermitSigner } from '@/core/licence/permit';
import type { Vault } from '@/server/vault/vault';
import type { Keyring } from '@/server/vault/keyring';

/** What the container hands to every use case. */
export type Deps = {
  readonly db: Database;
  readonly clock: Clock;
  readonly calendar: Calendar;
  readonly random: RandomSource;
  readonly vault: Vault;
  readonly keyring: Keyring;
  readonly blobs: BlobStore;
  readonly ended: EndedList;
  /** Removes what a killed command left of keys that may be destroyed since. @returns how much there was */
  readonly clearLeftovers: () => number;
  readonly covers: Covers;
  readonly renderer: Renderer;
  /** `null` where nobody said how to send mail. */
  readonly mailer: Mailer | null;
  /** Where mail comes back to; `null` where nobody said where. */
  readonly inbox: MailInbox | null;
  readonly places: Places;
  readonly limits: Limits;
  /** Who waits for whom with what takes much memory. */
  readonly turns: {
    readonly parts: FairQueue;
    readonly partBuffers: LentBuffers;
    /** What is done with an upload that is whole: one thing at a time. */
    readonly wholes: FairQueue;
  };
  readonly live: LiveChanges;
  readonly recorder: Recorder;
  readonly counts: LedgerCounts;
  readonly exporter: LedgerExporter;
  readonly verifier: LedgerVerifier;
  readonly prover: LedgerProver;
  readonly signLicence: LicenceSigner;
  readonly signPermit: PermitSigner;
  /** The clock that can be put forward; `null` on every database that is no demo. */
  readonly demo: DemoClock | null;
  readonly integrity: Integrity;
  readonly health: Health;
  readonly witness: Witness;
  readonly publicUrl: string;
};

/** Where a request came from, as far as can be trusted. */
export type Origin = { readonly network: string; readonly agent: string };

export type StaffActor = {
  readonly kind: 'staff';
  readonly id: StaffId;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly session: string;
  /** Whether password and second factor were given within the last minutes. */ readonly proven: boolean;
  readonly from: Origin;
};

/** A browser that has proven an address. `recipient` is null where nothing was ever addressed to it. */
export type ReaderActor = {
  readonly kind: 'reader';
  readonly device: DeviceId;
  /** Whether the device is kept, or for one visit. */ readonly kept: boolean;
  /** When the address was proven on it. */ readonly provenAt: Moment;
  /** When a passkey was used on it; null: never. */ readonly passkeyAt: Moment | null;
  readonly address: string;
  readonly recipient: RecipientId | null;
  readonly from: Origin;
};

/** Somebody of whom nothing is known. `browser` is a random mark kept in a cookie. */
export type StrangerActor = {
  readonly kind: 'stranger';
  readonly browser: string;
  /** The language of the page that asks, or that their browser prefers; null: none of ours. */
  readonly language: Language | null;
  readonly from: Origin;
};
