import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { expect, test } from 'vitest';
import type { MarkingRow } from '@/contracts/marking';
import { FileCard } from '@/ui/protecting/file-card';
import { useFiles } from '@/ui/protecting/use-files';
import { show } from '../../../tests/support/screen';

const pdf = (name: string) => new File(['%PDF-1.7 a paper'], name);

function Taking() {
  const [done, setDone] = useState(0);
  const files = useFiles({ markings: [] }, () => {
    setDone((before) => before + 1);
  });
  return (
    <>
      <button
        onClick={() => {
          files.add([pdf('one.pdf')]);
        }}
      >
        Add
      </button>
      {files.jobs.map(({ key, title, state }) => (
        <button
          key={key}
          onClick={() => {
            files.remove(key);
          }}
        >
          Remove {title}, {state}
        </button>
      ))}
      <p>{done} done</p>
    </>
  );
}

test('a file that is removed before its turn is never sent', async () => {
  const { calls } = show(<Taking />, {});
  // At once, before anything of it was read.
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  fireEvent.click(screen.getByRole('button', { name: /^Remove one/ }));
  expect(screen.queryByRole('button', { name: /^Remove/ })).toBeNull();
  await new Promise((resolve) => {
    setTimeout(resolve, 300);
  });
  expect(calls).toEqual([]);
  expect(screen.getByText('0 done')).toBeDefined();
});

const BIDDERS: MarkingRow = {
  id: 'mrk_bidders',
  name: 'Bidders',
  meaning: '',
  hidesTitles: false,
  mailWords: '',
  documents: 0,
};

function Marked({ folder }: { readonly folder: 'mrk_bidders' | null }) {
  const files = useFiles({ markings: [BIDDERS], folderMarking: folder }, () => undefined);
  return (
    <>
      <button
        onClick={() => {
          files.add([pdf('one.pdf')]);
        }}
      >
        Add
      </button>
      {files.jobs.map(({ key, state }) => (
        <p key={key}>{state}</p>
      ))}
    </>
  );
}

test('a file that says nothing of its marking takes that of the folder, and asks without one', async () => {
  const arrived = {
    'POST /api/v1/uploads': () => ({ id: 'upl_1', partBytes: 1 << 20, receivedBytes: 0 }),
    'PUT /api/v1/uploads/:id': () => ({ receivedBytes: 16 }),
    'POST /api/v1/uploads/:id/look': () => ({
      pages: 1,
      title: 'One',
      reference: 'R-1',
      marking: null,
      same: null,
    }),
  };
  show(<Marked folder={null} />, arrived);
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  expect(await screen.findByText('asks')).toBeDefined();
  cleanup();
  const { calls } = show(<Marked folder="mrk_bidders" />, arrived);
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  await waitFor(() => {
    expect(calls.some(({ route }) => route.endsWith('/finish'))).toBe(true);
  });
  expect(calls.find(({ input }) => 'markingId' in input)?.input).toMatchObject({
    markingId: 'mrk_bidders',
  });
});

function Same() {
  const [done, setDone] = useState<readonly string[]>([]);
  const files = useFiles({ markings: [] }, ({ reference }) => {
    setDone((all) => [...all, reference]);
  });
  return (
    <>
      <button
        onClick={() => {
          files.add([pdf('one.pdf')]);
        }}
      >
        Add
      </button>
      {files.jobs.map((job) => (
        <FileCard key={job.key} job={job} files={files} markings={[]} />
      ))}
      <p>sends {done.join(', ')}</p>
    </>
  );
}

test('the clear original of a document is not protected again: the document is taken', async () => {
  const known = {
    'POST /api/v1/uploads': () => ({ id: 'upl_1', partBytes: 1 << 20, receivedBytes: 0 }),
    'PUT /api/v1/uploads/:id': () => ({ receivedBytes: 16 }),
    'DELETE /api/v1/uploads/:id': () => ({}),
    'POST /api/v1/uploads/:id/look': () => ({
      pages: 1,
      title: 'One',
      reference: 'R-2',
      marking: null,
      same: { reference: 'R-1', title: 'Lines plan', revoked: false, older: null },
    }),
    'GET /api/v1/documents': () => ({ rows: [{ id: 'doc_1', reference: 'R-1' }], total: 1 }),
  };
  const { calls } = show(<Same />, known);
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  expect(await screen.findByText('This file is protected already: Lines plan, R-1.')).toBeDefined();
  fireEvent.click(screen.getByRole('button', { name: 'Use R-1' }));
  expect(await screen.findByText('sends R-1')).toBeDefined();
  expect(screen.queryByRole('listitem')).toBeNull();
  // What was uploaded of it is of no use any more.
  expect(calls.some(({ route }) => route.startsWith('DELETE /api/v1/uploads'))).toBe(true);
  expect(calls.some(({ route }) => route.endsWith('/finish'))).toBe(false);
});
