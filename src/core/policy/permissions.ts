/** What a member of staff is there for. */
export const ROLES = ['administrator', 'sender', 'auditor'] as const;
export type Role = (typeof ROLES)[number];

/** What staff can do, each a line that a role crosses or does not. */
export const POWERS = [
  'look',
  'read-own-record',
  'read-record',
  'protect',
  'dispatch',
  'change-access',
  'revoke-widely',
  'block',
  'destroy-key',
  'manage-staff',
  'settings',
  'read-mailroom',
] as const;
export type Permission = (typeof POWERS)[number];

const held: Readonly<Record<Role, ReadonlySet<Permission>>> = {
  administrator: new Set(POWERS),
  // Senders work with what is theirs, and read the record of that alone.
  sender: new Set<Permission>([
    'look',
    'read-own-record',
    'protect',
    'dispatch',
    'change-access',
    'revoke-widely',
  ]),
  auditor: new Set<Permission>(['look', 'read-own-record', 'read-record']),
};

/** Powers that reach so far that anyone who uses one must have proven within minutes who they are. */
export const PROVEN_POWERS: ReadonlySet<Permission> = new Set<Permission>([
  'revoke-widely',
  'destroy-key',
  'manage-staff',
  'settings',
]);

/** Whether a role holds a power at all; what it reaches is a second question. */
export function holds(role: Role, power: Permission): boolean {
  return held[role].has(power);
}

export function powersOf(role: Role): Permission[] {
  return POWERS.filter((power) => holds(role, power));
}

/** Whether somebody may change access to a document that they own or stand in for, or to what they sent. */
export function reaches(
  staff: { readonly id: string; readonly role: Role },
  of: {
    readonly owner?: string | undefined;
    readonly deputy?: string | null | undefined;
    readonly sender?: string | undefined;
  },
): boolean {
  if (!holds(staff.role, 'change-access')) return false;
  return (
    staff.role === 'administrator' ||
    of.owner === staff.id ||
    of.deputy === staff.id ||
    of.sender === staff.id
  );
}
