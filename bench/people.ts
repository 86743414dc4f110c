import { systemClock } from '@/server/clock/clock';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import type { StaffActor } from '@/server/services/base/deps';
import {
  importPeople,
  previewPeople,
  takePeopleOut,
} from '@/server/services/people/exchange-people';
import { setUpOrganisation, setUpToken } from '@/server/services/staff/set-up-organisation';
import { say, seconds } from './measure';

const MANY = 100_000;

/** The longest that something else waited for its turn while `work` ran, in ms. */
async function longestWait(work: () => Promise<unknown>): Promise<number> {
  let [longest, last] = [0, performance.now()];
  const beat = setInterval(() => {
    longest = Math.max(longest, performance.now() - last);
    last = performance.now();
  }, 5);
  await work();
  clearInterval(beat);
  return longest;
}

/** A list of 100,000 people brought in: all new, then half of them changed. */
export async function bringingPeople(folder: string): Promise<void> {
  const container = await createContainer(
    readConfig({ DATA_DIR: `${folder}/people`, LOG_LEVEL: 'error' }),
    { clock: systemClock, demo: true, threads: 1 },
  );
  const { deps } = container;
  const { staffId } = await setUpOrganisation(
    deps,
    container.identity,
    {
      token: setUpToken(deps),
      organisation: 'Tern & Quill',
      zone: 'Europe/Oslo',
      name: 'Ida Roe',
      email: 'ida@tern-quill.example',
      password: 'a long enough password',
      recoveryKey: null,
    },
    true,
  );
  const ida: StaffActor = {
    kind: 'staff',
    id: staffId,
    name: 'Ida Roe',
    email: 'ida@tern-quill.example',
    role: 'administrator',
    session: 'bench',
    proven: true,
    from: { network: '192.0.2.10', agent: 'bench' },
  };
  const row = (title: string, n: number): string =>
    `person${String(n)}@org${String(n % 3000)}.example,` +
    `${n % 2 === 0 ? title : 'Person'} ${String(n)},` +
    `Organisation ${String(n % 3000)},Europe/Oslo,nb\n`;
  const list = (title: string): string =>
    'email,name,organisation,zone,language\n' +
    Array.from({ length: MANY }, (_, n) => row(title, n)).join('');
  for (const [title, words] of [
    ['Person', 'all new'],
    ['Doctor', 'half of them changed'],
  ] as const) {
    const text = list(title);
    const looked = await seconds(() => previewPeople(deps, ida, { text }));
    let steps = 0;
    let taken = 0;
    const wait = await longestWait(async () => {
      taken = await seconds(() =>
        importPeople(deps, ida, text, () => {
          steps++;
        }),
      );
    });
    say(
      `100,000 people, ${words}`,
      `${looked.toFixed(1)} + ${taken.toFixed(1)} s, ${String(steps)} steps, others waited ${wait.toFixed(0)} ms`,
      '20 s together',
    );
  }
  let out = '';
  const taken = await seconds(async () => {
    out = (await takePeopleOut(deps, ida, { format: 'csv' })).text;
  });
  say(
    '100,000 people out as CSV',
    `${taken.toFixed(1)} s, ${(out.length / 1e6).toFixed(1)} MB`,
    '-',
  );
  await container.close();
}
