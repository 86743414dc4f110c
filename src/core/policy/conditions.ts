import { HOUR, type Moment } from '@/core/base/time';

/** Monday is 1, Sunday 7 (ISO 8601). */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;
/**
 * Times of a week, in the recipient's zone. Minutes since midnight; an end not later than the start
 * is on the next day.
 */
export type Hours = {
  readonly days: readonly Weekday[];
  readonly from: number;
  readonly to: number;
};

/**
 * Within what a grant may be passed on: to how many people, at which domains (`@yard.example`;
 * null: any), and how many steps deep.
 */
export type PassOn = {
  readonly people: number;
  readonly domains: readonly string[] | null;
  readonly steps: number;
};

/** What must hold besides the window, for a grant to count. `null` or absent: no condition. */
export type Conditions = {
  /** How many opens in all. */
  readonly opens?: number | null;
  /** How long after the first granted open, in ms. */
  readonly within?: number | null;
  /** ISO 3166-1 alpha-2 codes. */
  readonly countries?: readonly string[] | null;
  /** Networks as CIDR (RFC 4632, RFC 4291 §2.3). */
  readonly networks?: readonly string[] | null;
  readonly hours?: Hours | null;
  /** Only devices that are kept: none that are for one visit. */
  readonly rememberedDevice?: boolean | null;
  /** On how many devices in all. */
  readonly devices?: number | null;
  /** After how long the email address must be proven again, in ms. */
  readonly proveEvery?: number | null;
  /** Besides the address, a passkey has to be used on the device: a second proof. */
  readonly passkey?: boolean | null;
  /**
   * The document may be opened on the person's own machine, and stays readable there so long without
   * asking again, in ms; 0: it asks at every open. Absent: its pages are drawn by the service alone.
   */
  readonly offline?: number | null;
  /** Pages are covered while the window is not in front: a deterrent. */
  readonly captureDeterrent?: boolean | null;
  /** Bounds the right to pass on; absent: to nobody. */
  readonly passOn?: PassOn | null;
};

/** What is known of a request. `null`: not known, which satisfies no condition. `'any'`: not asked about. */
export type Circumstances = {
  readonly now: Moment;
  readonly country: string | null;
  readonly network: string | null;
  /** The recipient's IANA zone, or the organisation's. */
  readonly zone: string;
  readonly device: AskingDevice | null | 'any';
};
export type AskingDevice = {
  readonly id: string;
  readonly kept: boolean;
  /** When a code that was mailed to the address was entered on it. */
  readonly provenAt: Moment;
  /** When a passkey was used on it; null: never. */
  readonly passkeyAt: Moment | null;
};
/** A passkey that was used counts for a working day on that device, then it is asked for again. */
export const PASSKEY_HOLDS = 12 * HOUR;

export const ANYWHERE = 'any';

/** What has been used of a grant. */
export type Used = {
  readonly opens: number;
  readonly prints: number;
  readonly firstOpenedAt: Moment | null;
  readonly devices: readonly string[];
};
export const UNUSED: Used = { opens: 0, prints: 0, firstOpenedAt: null, devices: [] };

/** Each name a condition goes by, and what its value is where it is set. */
export type ConditionName = keyof Conditions;
export type ConditionValue<Name extends ConditionName> = NonNullable<Conditions[Name]>;

type ConditionRefusal =
  | 'prove-again'
  | 'passkey-needed'
  | 'device-not-accepted'
  | 'too-many-devices'
  | 'network-not-allowed'
  | 'place-not-allowed'
  | 'hours-not-allowed'
  | 'opens-used-up'
  | 'condition-unknown';

/** Answers why a request does not meet the conditions, or `null` where it does. */
export type ConditionTest = (at: Circumstances, used: Used) => ConditionRefusal | null;
