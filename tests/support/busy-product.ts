// Runs until it is killed: encrypts files and dispatches, without a pause.
import { dispatch, drawing, protect, startProduct } from './product';

const product = await startProduct(process.argv[2]);
const bytes = await drawing(1);
const document = await protect(product, bytes);
for (let i = 0; ; i++) {
  await Promise.all([
    dispatch(product, [document], [`a${String(i)}@ferrow.example`, `b${String(i)}@ferrow.example`]),
    protect(product, bytes),
  ]);
  // Said only after both were answered: what a kill must not take back.
  process.stdout.write(`${i === 0 ? 'busy\n' : ''}done ${String(i + 1)}\n`);
}
