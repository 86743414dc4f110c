import 'server-only';
import { cache } from 'react';
import { headers as requestHeaders } from 'next/headers';
import {
  acceptedTags,
  DEFAULT_LANGUAGE,
  firstLanguage,
  type Language,
} from '@/core/base/languages';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { running } from '@/server/http/running';
import { deviceOf, languageChosen } from '@/server/http/session';

/** The language to speak to a browser in, by what it prefers: see `acceptedTags`. */
export function spokenTo(headers: Headers): Language {
  return firstLanguage(acceptedTags(headers.get('accept-language'))) ?? DEFAULT_LANGUAGE;
}

/**
 * The language of a page for a recipient: what they chose in this browser; else what the sender noted
 * of the person whose address it has proven; else what the browser prefers.
 */
export const languageHere = cache(async (): Promise<Language> => {
  const headers = await requestHeaders();
  const container = await running();
  const device = await deviceOf(container, headers);
  const known =
    device === null ? null : await findRecipientByAddress(container.deps.db.read, device.address);
  const tags = [languageChosen(headers), known?.language ?? null];
  return firstLanguage(tags) ?? spokenTo(headers);
});
