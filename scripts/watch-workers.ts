import { watchWorkers } from './build-workers';

await watchWorkers();
