'use client';

import { useId, useState } from 'react';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import { MAX_LAYERS, newLayer, type Watermark } from '@/core/watermark/layers';
import { tidyLine } from '@/core/watermark/pieces';
import { watermarkProblem } from '@/core/watermark/read-layers';
import { sentence } from '@/ui/forms/form-fields';
import { LayerFields } from '@/ui/watermark/layer-fields';
import { MarkPreview, type ShownAs } from '@/ui/watermark/mark-preview';

type Props = {
  readonly title: string;
  readonly start: Watermark;
  readonly most?: number;
  readonly shownAs: ShownAs;
  /** The layers that were chosen; null: none were, and it stays as it was. */
  readonly onDone: (layers: Watermark | null) => void;
};

/** Composes a watermark beside a real page that bears it. */
export function Designer({ title, start, most = MAX_LAYERS, shownAs, onDone }: Props) {
  const [layers, setLayers] = useState(start);
  const heading = useId();
  const problem = watermarkProblem(layers);
  return (
    <Dialog
      open
      fullWidth
      maxWidth="xl"
      transitionDuration={0}
      aria-labelledby={heading}
      onClose={() => {
        onDone(null);
      }}
    >
      <div className="designer">
        <div className="stack loose">
          <h2 id={heading}>{title}</h2>
          {layers.length === 0 && <p className="quiet">Nothing stands on a page yet.</p>}
          {layers.map((layer, i) => (
            <LayerFields
              key={i}
              number={i + 1}
              layer={layer}
              onChange={(changed) => {
                setLayers(layers.with(i, changed));
              }}
              onRemove={() => {
                setLayers(layers.toSpliced(i, 1));
              }}
            />
          ))}
          <div className="row">
            <Button
              disabled={layers.length >= most}
              onClick={() => {
                setLayers([
                  ...layers,
                  newLayer(layers.length === 0 ? 'tiled' : 'footer', '{address}'),
                ]);
              }}
            >
              Add a layer
            </Button>
            {layers.length >= most && <span className="quiet">{most} layers at most</span>}
          </div>
          {problem !== null && (
            <p role="status" className="magenta">
              {sentence(problem)}
            </p>
          )}
          <div className="row">
            <Button
              variant="contained"
              disabled={problem !== null}
              onClick={() => {
                onDone(layers.map((layer) => ({ ...layer, line: tidyLine(layer.line) })));
              }}
            >
              Use it
            </Button>
            <Button
              variant="text"
              onClick={() => {
                onDone(null);
              }}
            >
              Cancel
            </Button>
          </div>
        </div>
        <MarkPreview layers={problem === null ? layers : start} shownAs={shownAs} />
      </div>
    </Dialog>
  );
}
