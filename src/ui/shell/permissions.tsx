'use client';

import { createContext, useContext } from 'react';
import { holds, type Permission, type Role } from '@/core/policy/permissions';

const RoleContext = createContext<Role>('auditor');

/** Tells everything inside who is at the screen. */
export const RoleProvider = RoleContext.Provider;

/**
 * Whether the person at the screen holds a power. The server asks again; this only spares them a
 * button that would refuse.
 */
export function useHolds(power: Permission): boolean {
  return holds(useContext(RoleContext), power);
}
