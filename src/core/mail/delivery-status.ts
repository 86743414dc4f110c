/** What a mail system says became of a message for one recipient (RFC 3464 §2.3). */
export type RecipientStatus = {
  /** RFC 3464 §2.3.3, in lower case; anything else is kept as it was. */
  readonly action: string;
  /** RFC 3463: `5.1.1`; empty where it is missing or not of that form. */
  readonly status: string;
  /** The address it was for, without its type; empty where none is named. */
  readonly recipient: string;
  /** What the last server answered, without its type. */
  readonly diagnostic: string;
};

export type DeliveryStatus = {
  /** The envelope id that the message was handed over with (RFC 3461 §4.4); `null`: none. */
  readonly envelopeId: string | null;
  readonly recipients: readonly RecipientStatus[];
};

type Fields = ReadonlyMap<string, string>;

/** Header fields of one group, by name in lower case; folded lines are joined (RFC 5322 §2.2.3). */
function fieldsOf(group: string): Fields {
  const fields = new Map<string, string>();
  for (const line of group.replaceAll(/\n[ \t]+/g, ' ').split('\n')) {
    const colon = line.indexOf(':');
    if (colon > 0)
      fields.set(line.slice(0, colon).trim().toLowerCase(), line.slice(colon + 1).trim());
  }
  return fields;
}

/** `rfc822; ivo@yard.example` without what stands before the semicolon. */
function withoutType(value: string | undefined): string {
  return value === undefined ? '' : value.slice(value.indexOf(';') + 1).trim();
}

function statusOf(value: string | undefined): string {
  return /^[245]\.\d{1,3}\.\d{1,3}/.exec(value ?? '')?.[0] ?? '';
}

function recipientOf(fields: Fields): RecipientStatus {
  return {
    action: (fields.get('action') ?? '').toLowerCase(),
    status: statusOf(fields.get('status')),
    recipient: withoutType(fields.get('original-recipient') ?? fields.get('final-recipient')),
    diagnostic: withoutType(fields.get('diagnostic-code')),
  };
}

/**
 * Reads the part `message/delivery-status` of a delivery report (RFC 3464 §2.1): a group of fields
 * about the message, then one for each recipient.
 *
 * @returns `null` where it says nothing about any recipient
 */
export function parseDeliveryStatus(text: string): DeliveryStatus | null {
  const groups = text
    .replaceAll('\r\n', '\n')
    .split(/\n{2,}/)
    .filter((group) => group.trim() !== '')
    .map(fieldsOf);
  const recipients = groups.filter((fields) => fields.has('action')).map(recipientOf);
  if (recipients.length === 0) return null;
  const envelopeId = groups.map((fields) => fields.get('original-envelope-id')).find(Boolean);
  return { envelopeId: envelopeId ?? null, recipients };
}
