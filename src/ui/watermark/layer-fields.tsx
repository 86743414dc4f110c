'use client';

import { useId } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import {
  MARK_COLOURS,
  MARK_CORNERS,
  MARK_LIMITS,
  MARK_MEDIA,
  MARK_PLACES,
  type MarkLayer,
} from '@/core/watermark/layers';
import { LineField } from '@/ui/watermark/line-field';
import {
  colourWords,
  cornerWords,
  densityWords,
  mediumWords,
  placeWords,
} from '@/ui/watermark/mark-words';

type Props = {
  readonly layer: MarkLayer;
  readonly number: number;
  readonly onChange: (layer: MarkLayer) => void;
  readonly onRemove: () => void;
};

/** One layer: what it says, where, and how strongly. */
export function LayerFields({ layer, number, onChange, onRemove }: Props) {
  const set = (change: Partial<MarkLayer>) => {
    const next = { ...layer, ...change };
    onChange(next.place === 'banner' ? { ...next, on: 'paper' } : next);
  };
  return (
    <section className="stack layer" aria-label={`Layer ${String(number)}`}>
      <div className="choices">
        <Choice
          label="Where"
          value={layer.place}
          options={MARK_PLACES.map((place) => [place, placeWords[place]])}
          onChange={(place) => {
            set({ place });
          }}
        />
        {layer.place !== 'banner' && (
          <Choice
            label="On pages"
            value={layer.on}
            options={MARK_MEDIA.map((on) => [on, mediumWords[on]])}
            onChange={(on) => {
              set({ on });
            }}
          />
        )}
        {layer.place === 'corner' && (
          <Choice
            label="Corner"
            value={layer.corner}
            options={MARK_CORNERS.map((corner) => [corner, cornerWords[corner]])}
            onChange={(corner) => {
              set({ corner });
            }}
          />
        )}
        <Choice
          label="Colour"
          value={layer.colour}
          options={MARK_COLOURS.map((colour) => [colour, colourWords[colour]])}
          onChange={(colour) => {
            set({ colour });
          }}
        />
      </div>
      <LineField
        line={layer.line}
        onChange={(line) => {
          set({ line });
        }}
      />
      <Looks layer={layer} set={set} />
      <div className="row">
        <ZoneChoice
          zone={layer.zone}
          onChange={(zone) => {
            set({ zone });
          }}
        />
        <span className="gap" />
        <Button onClick={onRemove}>Remove layer</Button>
      </div>
    </section>
  );
}

function Looks({
  layer,
  set,
}: {
  readonly layer: MarkLayer;
  readonly set: (change: Partial<MarkLayer>) => void;
}) {
  const isTiled = layer.place === 'tiled';
  return (
    <div className="row sliders">
      <Amount label="Size" name="size" layer={layer} set={set} />
      {layer.place !== 'banner' && (
        <Amount label="Strength" name="strength" layer={layer} set={set} unit="%" />
      )}
      {isTiled && <Amount label="Angle" name="angle" layer={layer} set={set} unit="°" />}
      {isTiled && (
        <Choice
          label="Repeated"
          value={String(layer.density)}
          options={densityWords.map((words, i) => [String(i + 1), words])}
          onChange={(density) => {
            set({ density: Number(density) });
          }}
        />
      )}
    </div>
  );
}

function Amount({
  label,
  name,
  layer,
  set,
  unit = '',
}: {
  readonly label: string;
  readonly name: 'size' | 'strength' | 'angle';
  readonly layer: MarkLayer;
  readonly set: (change: Partial<MarkLayer>) => void;
  readonly unit?: string;
}) {
  const id = useId();
  return (
    <div className="amount">
      <span id={id} className="small quiet">
        {label} <span className="figure">{`${String(layer[name])}${unit}`}</span>
      </span>
      <Slider
        size="small"
        aria-labelledby={id}
        value={layer[name]}
        {...MARK_LIMITS[name]}
        onChange={(_event, value) => {
          set({ [name]: value });
        }}
      />
    </div>
  );
}

function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={({ target }) => {
        onChange(target.value as T);
      }}
    >
      {options.map(([each, words]) => (
        <MenuItem key={each} value={each}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}

const ORGANISATION = 'organisation';

/** In which zone date and time are told. */
function ZoneChoice({
  zone,
  onChange,
}: {
  readonly zone: string | null;
  readonly onChange: (zone: string | null) => void;
}) {
  const zones = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((each) => each !== 'UTC')];
  return (
    <Choice
      label="Date and time in"
      value={zone ?? ORGANISATION}
      options={[
        [ORGANISATION, 'the organisation’s zone'],
        ...zones.map((each) => [each, each.replaceAll('_', ' ')] as const),
      ]}
      onChange={(each) => {
        onChange(each === ORGANISATION ? null : each);
      }}
    />
  );
}
