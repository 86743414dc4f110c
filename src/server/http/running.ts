import 'server-only';
import { readConfig } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';

const kept = globalThis as typeof globalThis & { embargoContainer?: Promise<Container> };

/** The one container of this process; the framework may load this module more than once. */
export function running(): Promise<Container> {
  return (kept.embargoContainer ??= createContainer(readConfig()));
}
