import { importPeopleInput, takePeopleInput } from '@/contracts/people-exchange';
import { handle } from '@/server/http/handle';
import { asDownload, byteStream, bytes } from '@/server/http/respond';
import { importPeopleLines, takePeopleOut } from '@/server/services/people/exchange-people';

const types = {
  csv: 'text/csv; charset=utf-8',
  ldif: 'text/plain; charset=utf-8',
  vcard: 'text/vcard; charset=utf-8',
} as const;
const names = { csv: 'people.csv', ldif: 'people.ldif', vcard: 'people.vcf' } as const;

export const GET = handle('settings', takePeopleInput, takePeopleOut, ({ text, format }) =>
  bytes(new TextEncoder().encode(text), types[format], asDownload(names[format])),
);
export const POST = handle(
  'settings',
  importPeopleInput,
  (deps, actor, input) => Promise.resolve(importPeopleLines(deps, actor, input)),
  (lines) => byteStream(lines, 'application/x-ndjson', 'progress.ndjson'),
);
