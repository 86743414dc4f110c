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
  if (i === 0) process.stdout.write('busy\n');
}
