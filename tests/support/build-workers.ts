import { buildWorkers } from '../../scripts/build-workers';

/** Worker threads run built files, so a test run builds them first, as the product does. */
export default async function setup(): Promise<void> {
  await buildWorkers();
}
