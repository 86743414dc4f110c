// Keeps the reader itself in the browser, so that a file with time left opens without a connection.
// It keeps no document, no page and no answer of the service.

/** Put in by the build: what the reader without a connection is made of, and a name for just that. */
declare const READER_FILES: readonly string[];
declare const READER_VERSION: string;

type Lasting = Event & { readonly waitUntil: (work: Promise<unknown>) => void };
type Fetching = Event & {
  readonly request: Request;
  readonly respondWith: (answer: Promise<Response>) => void;
};
type Scope = {
  readonly addEventListener: ((
    type: 'install' | 'activate',
    act: (event: Lasting) => void,
  ) => void) &
    ((type: 'fetch', act: (event: Fetching) => void) => void);
  readonly skipWaiting: () => Promise<void>;
  readonly location: Location;
};
const scope = self as unknown as Scope;

const CACHE = `embargo-reader ${READER_VERSION}`;
const PAGE = '/reader/offline.html';
/**
 * The scope, `/r`, takes in whatever begins so: files of the reader, which is meant, and pages of
 * staff, which is not.
 */
const READER_PAGE = /^\/r(\/|$)/;
/** A service that takes longer to answer is not waited for. */
const PATIENCE = 10_000;

scope.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) =>
        cache.addAll(READER_FILES.map((url) => new Request(url, { cache: 'reload' }))),
      )
      .then(() => scope.skipWaiting()),
  );
});

scope.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((name) => name !== CACHE).map((name) => caches.delete(name))),
      ),
  );
});

async function kept(url: string): Promise<Response> {
  const found = await caches.match(url, { cacheName: CACHE });
  return found ?? fetch(url);
}

/** The page of the service; where it does not answer, or only with a fault, the one that needs no connection. */
async function pageOf(request: Request): Promise<Response> {
  const late = new AbortController();
  const timer = setTimeout(() => {
    late.abort();
  }, PATIENCE);
  try {
    const answer = await fetch(request, { signal: late.signal });
    return answer.status >= 500 ? await kept(PAGE) : answer;
  } catch {
    return await kept(PAGE);
  } finally {
    // Once it answers, it may take its time.
    clearTimeout(timer);
  }
}

scope.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== scope.location.origin) return;
  if (request.mode === 'navigate' && READER_PAGE.test(url.pathname))
    event.respondWith(pageOf(request));
  else if (READER_FILES.includes(url.pathname)) event.respondWith(kept(url.pathname));
});
