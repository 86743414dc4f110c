/**
 * What the reader keeps in this browser: `keys` that cannot be taken out, `licences` of files that may
 * be read without a connection, and `opens` and `comments` that were made without one and are still to be
 * handed in.
 */
const STORES = ['keys', 'licences', 'opens', 'comments'] as const;
export type StoreName = (typeof STORES)[number];

const DATABASE = 'embargo-reader';
const VERSION = 3;

function openStores(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(DATABASE, VERSION);
    request.onupgradeneeded = () => {
      const { result } = request;
      for (const name of STORES)
        if (!result.objectStoreNames.contains(name)) result.createObjectStore(name);
    };
    request.onsuccess = () => {
      resolve(request.result);
    };
    request.onerror = () => {
      reject(request.error ?? new Error('no store'));
    };
  });
}

/**
 * Does something to stores in one transaction: all of it is kept, or nothing. Rejects where the
 * browser keeps nothing, or has no room.
 */
export async function inStores<T>(
  names: readonly StoreName[],
  mode: IDBTransactionMode,
  act: (storeOf: (name: StoreName) => IDBObjectStore) => IDBRequest<T>,
): Promise<T> {
  const database = await openStores();
  try {
    return await new Promise<T>((resolve, reject) => {
      const transaction = database.transaction(names, mode);
      const request = act((name) => transaction.objectStore(name));
      transaction.oncomplete = () => {
        resolve(request.result);
      };
      transaction.onabort = () => {
        reject(transaction.error ?? new Error('not kept'));
      };
    });
  } finally {
    database.close();
  }
}

/** Does one thing to one store. */
export function inStore<T>(
  name: StoreName,
  mode: IDBTransactionMode,
  act: (store: IDBObjectStore) => IDBRequest<T>,
): Promise<T> {
  return inStores([name], mode, (storeOf) => act(storeOf(name)));
}

/**
 * Forgets keys and licences. Opens and comments that were not handed in yet stay: they say what was
 * read and written, and open nothing.
 */
export async function forgetReader(): Promise<void> {
  await inStores(['keys', 'licences'], 'readwrite', (storeOf) => {
    storeOf('licences').clear();
    return storeOf('keys').clear();
  });
}
