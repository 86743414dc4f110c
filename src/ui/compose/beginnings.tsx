import type { DefaultsRow } from '@/contracts/defaults';
import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import { commonDefaults, resolveDefaults, type Begun } from '@/core/policy/defaults';
import { reaching, type Parents } from '@/core/policy/levels';
import { originWords } from '@/ui/words/origin-words';

const NOWHERE = { document: '', marking: null, folder: null };

/** What levels set around a document. */
function levelsAround(
  { id, markingId, folderId }: DocumentRow,
  defaults: readonly DefaultsRow[],
  parents: Parents,
): readonly DefaultsRow[] {
  return reaching({ document: id, marking: markingId, folder: folderId }, defaults, parents);
}

/** What a dispatch of these documents begins with. */
export function beginningsOf(
  { defaults }: Pick<ComposeStart, 'defaults'>,
  parents: Parents,
  chosen: readonly DocumentRow[],
): Begun<DefaultsRow> {
  return chosen.length === 0
    ? resolveDefaults(reaching(NOWHERE, defaults, parents))
    : commonDefaults(
        chosen.map((document) => resolveDefaults(levelsAround(document, defaults, parents))),
      );
}

/** Where the terms come from that nobody has changed yet. */
export function BeginningLines({ begins }: { readonly begins: Begun<DefaultsRow> }) {
  return <p className="quiet">Defaults: {originWords(begins).join('; ')}.</p>;
}
