'use client';

import Button from '@mui/material/Button';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import { ImportedOdrl } from '@/ui/odrl/imported-odrl';

const stateWords = {
  new: 'new',
  changed: 'replaces the terms of this name',
  revoked: '',
  same: 'same as here',
  stopped: 'left out',
};

/** Saved terms out and in as a W3C ODRL document; what would change is shown before it does. */
export function OdrlPart({
  mayChange,
  attempt,
  busy,
}: { readonly mayChange: boolean } & Pick<Attempt, 'attempt' | 'busy'>) {
  const head = (
    <>
      <h1 className="large">Import and export</h1>
      <span className="quiet">as W3C ODRL 2.2, which other programs can read</span>
      <span className="gap" />
      <Button component="a" href="/api/v1/terms/odrl" download>
        Export terms
      </Button>
    </>
  );
  const done = ({ taken }: { readonly taken: number }) =>
    `${String(taken)} ${taken === 1 ? 'set of terms is' : 'sets of terms are'} kept. What ` +
    'was sent before stays as it was.';
  return (
    <section className="part-head" aria-label="Import and export">
      {mayChange ? (
        <ImportedOdrl
          look={(text) => api('POST /api/v1/terms/odrl/preview', { text })}
          take={(text) => api('POST /api/v1/terms/odrl', { text })}
          head={head}
          pick="Import terms"
          stateWords={stateWords}
          verb="Import"
          done={done}
          attempt={attempt}
          busy={busy}
        />
      ) : (
        <div className="row">{head}</div>
      )}
    </section>
  );
}
