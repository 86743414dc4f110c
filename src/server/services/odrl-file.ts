import 'server-only';
import type { Json } from '@/core/odrl/report';
import { ServiceError } from '@/server/services/errors';

/** @throws ServiceError `INVALID` */
export function parseOdrl(text: string): Json {
  try {
    return JSON.parse(text) as Json;
  } catch {
    throw new ServiceError('INVALID', 'This file is no JSON.');
  }
}
