'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { MarkingRow } from '@/contracts/marking';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';

/** The organisation's own list of protective markings. */
export function MarkingsPart({
  markings,
  mayChange,
  attempt,
}: {
  readonly markings: readonly MarkingRow[];
  readonly mayChange: boolean;
  readonly attempt: Attempt['attempt'];
}) {
  const [open, setOpen] = useState<MarkingRow | 'new' | null>(null);
  const save = async (form: FormData) => {
    const [name, meaning] = [form.get('name'), form.get('meaning')];
    if (
      await attempt(
        () =>
          call('POST', '/api/v1/markings', {
            id: open === 'new' || open === null ? null : open.id,
            name,
            meaning,
          }),
        `“${typeof name === 'string' ? name : ''}” is saved.`,
      )
    )
      setOpen(null);
  };
  return (
    <section aria-label="Markings" style={{ padding: '18px 22px 40px' }}>
      <div className="row">
        <h1 className="large">Markings</h1>
        <span className="quiet">in order, the strictest last</span>
        <span className="gap" />
        {mayChange && (
          <Button
            onClick={() => {
              setOpen('new');
            }}
          >
            Add a marking
          </Button>
        )}
      </div>
      {markings.length === 0 && (
        <p className="quiet above-8">
          There are none yet.
        </p>
      )}
      <table className="list">
        <tbody>
          {markings.map((marking) => (
            <tr key={marking.id}>
              <td style={{ paddingLeft: 0, width: '24%' }}>
                <b>{marking.name}</b>
              </td>
              <td>{marking.meaning}</td>
              <td className="number">
                <Link href={`/documents?marking=${marking.id}`}>{marking.documents}</Link>
              </td>
              <td style={{ width: 230, textAlign: 'right' }}>
                {mayChange && (
                  <>
                    {marking !== markings[0] && (
                      <Button
                        variant="text"
                        aria-label={`Move ${marking.name} up`}
                        onClick={() =>
                          void attempt(() =>
                            call('POST', '/api/v1/markings', {
                              id: marking.id,
                              name: marking.name,
                              meaning: marking.meaning,
                              up: true,
                            }),
                          )
                        }
                      >
                        Up
                      </Button>
                    )}
                    <Button
                      variant="text"
                      onClick={() => {
                        setOpen(marking);
                      }}
                    >
                      Change
                    </Button>
                    {marking.documents === 0 && (
                      <Button
                        variant="text"
                        onClick={() =>
                          void attempt(
                            () => call('DELETE', `/api/v1/markings/${marking.id}`),
                            `“${marking.name}” is removed.`,
                          )
                        }
                      >
                        Remove
                      </Button>
                    )}
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {open !== null && (
        <form
          key={open === 'new' ? 'new' : open.id}
          className="row above-10"
          onSubmit={(event) => {
            event.preventDefault();
            void save(new FormData(event.currentTarget));
          }}
        >
          <input
            className="plain"
            name="name"
            required
            maxLength={60}
            autoFocus
            aria-label="Name of the marking"
            placeholder="name"
            defaultValue={open === 'new' ? '' : open.name}
            style={{ width: 180 }}
          />
          <input
            className="plain"
            name="meaning"
            maxLength={300}
            aria-label="What it means"
            placeholder="what it means"
            defaultValue={open === 'new' ? '' : open.meaning}
            style={{ width: 320 }}
          />
          <Button type="submit">Save marking</Button>
          <Button
            variant="text"
            onClick={() => {
              setOpen(null);
            }}
          >
            Cancel
          </Button>
        </form>
      )}
    </section>
  );
}
