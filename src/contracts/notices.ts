import { z } from 'zod';
import { NOTICE_KINDS, RHYTHMS } from '@/core/insight/notices';

const rhythm = z.enum(RHYTHMS).default('never');
/** A change of it: what is not named stays. */
export const noticeChange = z.partialRecord(z.enum(NOTICE_KINDS), z.enum(RHYTHMS));
/** Of what, and when, somebody on the staff wants to be told. */
export const noticeChoices = z.object({
  'first-open': rhythm,
  refused: rhythm,
  'new-place': rhythm,
  'new-device': rhythm,
  ending: rhythm,
});
