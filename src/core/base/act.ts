import { AppError } from '@/core/base/errors';

/** A request that may come twice: a key that names it, and a hash of what it asks for. */
export type Act = { readonly key: string; readonly asked: string; readonly now: number };

/** This request was carried out before. */
export class AlreadyDone extends AppError<'DONE_BEFORE'> {
  constructor() {
    super('AlreadyDone', 'DONE_BEFORE', 'This was done already. Reload the page to see it.');
  }
}
