// `npm run attack`: what a stranger, a recipient and a failing machine can do to the built product.
// Loopback only, bounded, and on a product that it starts itself.
import { rmSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { FLOODS, feel } from './floods';
import { killAtRandom } from './kills';
import { mailBehind } from './mail';
import { POINTS, killAt, prepareForKills } from './named-kills';
import { open, startTarget, type Target } from './target';

const { values } = parseArgs({
  options: {
    seconds: { type: 'string', default: '20' },
    kills: { type: 'string', default: '20' },
    only: { type: 'string' },
  },
});
const P95_WANTED = 1_500;
/** Kills at each named point, each a step further on. */
const EACH = 10;
let wrong = 0;

function say(what: string, found: string, isWell: boolean): void {
  if (!isWell) wrong++;
  console.log(`| ${what} | ${found} | ${isWell ? 'holds' : 'DOES NOT HOLD'} |`);
}

async function races(target: Target): Promise<void> {
  const own = target.browsers.slice(-5);
  const answers = await Promise.all(
    Array.from({ length: 50 }, (_, i) =>
      open(
        target,
        own[i % own.length] ??
          (() => {
            throw new Error('no browser');
          })(),
        target.documents.once,
      ),
    ),
  );
  const licences = new Set(answers.flatMap(({ licence }) => (licence === null ? [] : [licence])));
  say(
    '50 opens at once from five browsers on a limit of one',
    `${String(licences.size)} granted`,
    licences.size === 1,
  );
}

async function floods(target: Target): Promise<void> {
  for (const flood of FLOODS) {
    const { pages, p50, p95, longest, failed } = await feel(target, flood, Number(values.seconds));
    say(
      `reading during: ${flood.name}`,
      `${String(pages)} pages, median ${String(p50)} ms, p95 ${String(p95)} ms, longest ` +
        `${String(longest)} ms, ${String(failed)} failed`,
      p95 < P95_WANTED && failed === 0,
    );
  }
  say(
    'memory of the server after all of it',
    `${String(Math.round(target.memory()))} MiB`,
    target.memory() < 1_200,
  );
}

const wanted = (part: string): boolean => values.only === undefined || values.only === part;
console.log('| attack | found | |\n|---|---|---|');
if (wanted('races') || wanted('floods')) {
  const target = await startTarget(6);
  try {
    if (wanted('races')) await races(target);
    if (wanted('floods')) await floods(target);
  } finally {
    await target.stop();
  }
}
if (wanted('mail')) {
  const { ms, waiting } = await mailBehind(2_000);
  say(
    `a code asked for with ${String(waiting)} messages waiting`,
    `handed over after ${String(ms)} ms`,
    ms < 2_000,
  );
}
if (wanted('points')) {
  const prepared = await prepareForKills();
  for (const point of POINTS) {
    const lost: string[] = [];
    for (let step = 0; step < EACH; step++) lost.push(...(await killAt(prepared, point, step)));
    say(
      `${String(EACH)} kills ${point}`,
      lost.length === 0 ? 'nothing lost, nothing twice, nothing left' : lost.slice(0, 3).join('; '),
      lost.length === 0,
    );
  }
  rmSync(prepared, { recursive: true, force: true });
}
if (wanted('kills')) {
  const { kills, lost, sent } = await killAtRandom(Number(values.kills));
  say(
    `${String(kills)} kills at random moments of protecting and dispatching`,
    `${String(sent)} dispatches acknowledged, ${lost.length === 0 ? 'nothing lost' : lost.slice(0, 3).join('; ')}`,
    lost.length === 0,
  );
}
process.exit(wrong === 0 ? 0 : 1);
