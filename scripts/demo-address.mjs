/** Where the demos stand that end-to-end tests work in: each worker has one for itself. */
export const DEMO_ADDRESSES = [4187, 4188].map((port) => ({
  PORT: String(port),
  PUBLIC_URL: `http://localhost:${String(port)}`,
  DATA_DIR: `data/e2e-${String(port)}`,
}));
