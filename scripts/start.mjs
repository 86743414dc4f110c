// `npm start`: the real thing.
import { ensureBuilt, ensureInstalled, serve } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
serve({});
