import { z } from 'zod';

/** What stands at the end of a link: 120 random bits. */
export const linkToken = z.string().regex(/^[0-9a-hjkmnp-tv-z]{24}$/, 'this link is not whole');
