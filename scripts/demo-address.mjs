/** Where the demo stands that end-to-end tests work in. */
export const DEMO_ADDRESS = { PORT: '4187', PUBLIC_URL: 'http://localhost:4187' };
