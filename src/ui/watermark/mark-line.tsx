import { Fragment } from 'react';
import type { MarkLayer, Watermark } from '@/core/watermark/layers';
import { partsOf } from '@/core/watermark/pieces';
import { pieceName, whereWords } from '@/ui/watermark/mark-words';

/** A line with its pieces as solid parts. */
function MarkLine({ line }: Pick<MarkLayer, 'line'>) {
  return (
    <span className="mark-line">
      {partsOf(line).map((part, i) =>
        part.kind === 'piece' ? (
          <span key={i} className="mark-piece">
            {pieceName(part.name)}
          </span>
        ) : (
          <Fragment key={i}>{part.text}</Fragment>
        ),
      )}
    </span>
  );
}

/** What stands on a page, layer by layer. */
export function MarkLines({ layers }: { readonly layers: Watermark }) {
  if (layers.length === 0) return <p className="quiet">No watermark</p>;
  return (
    <ul className="mark-lines">
      {layers.map((layer, i) => (
        <li key={i}>
          <span className="quiet small">{whereWords(layer)}</span>
          <MarkLine line={layer.line} />
        </li>
      ))}
    </ul>
  );
}
