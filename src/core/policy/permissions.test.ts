import { describe, expect, test } from 'vitest';
import { POWERS, ROLES, holds, powersOf, reaches } from '@/core/policy/permissions';

describe('powers', () => {
  test('an administrator holds every one, an auditor none that changes anything', () => {
    expect(powersOf('administrator')).toEqual([...POWERS]);
    expect(powersOf('auditor')).toEqual(['look', 'read-own-record', 'read-record']);
  });

  test('only administrators block people, destroy keys, manage staff and read mail', () => {
    for (const power of ['block', 'destroy-key', 'manage-staff', 'read-mailroom'] as const)
      expect(ROLES.filter((role) => holds(role, power))).toEqual(['administrator']);
  });

  test('a sender reaches what is theirs, an administrator everything, an auditor nothing', () => {
    const own = { owner: 'stf_1' };
    const sent = { sender: 'stf_1' };
    const others = { owner: 'stf_2', sender: 'stf_2' };
    const reach = (role: (typeof ROLES)[number]) =>
      [own, sent, others, {}].map((of) => reaches({ id: 'stf_1', role }, of));
    expect(reach('sender')).toEqual([true, true, false, false]);
    expect(reach('administrator')).toEqual([true, true, true, true]);
    expect(reach('auditor')).toEqual([false, false, false, false]);
  });
});
