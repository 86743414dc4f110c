// `npm run fuzz [-- COUNT SEED]`: a million harmed inputs to the age header and the wrapper parser.
import { fuzzParsers } from './parsers';

const count = Number(process.argv[2] ?? 1_000_000);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
const start = performance.now();
await fuzzParsers(count, seed, (done) => {
  if (process.stderr.isTTY) process.stderr.write(`\r${String(done)}`);
});
console.log(
  `${String(count)} inputs, seed ${String(seed)}: each was read whole or refused in words, ` +
    `in ${((performance.now() - start) / 1000).toFixed(0)} s`,
);
