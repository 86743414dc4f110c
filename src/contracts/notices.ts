import { z } from 'zod';
import { RHYTHMS } from '@/core/insight/notices';

const rhythm = z.enum(RHYTHMS).default('never');
/** Of what, and when, somebody on the staff wants to be told. */
export const noticeChoices = z.object({
  'first-open': rhythm,
  refused: rhythm,
  'new-place': rhythm,
  ending: rhythm,
});
