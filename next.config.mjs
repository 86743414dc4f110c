// Plain JavaScript: in TypeScript, every start of the server would compile it first.

/** @type {import('next').NextConfig} */
const config = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // `npm test` checks types, these among them; whoever builds to run need not wait for it.
  typescript: { ignoreBuildErrors: true },
  // A page or route is loaded when it is first asked for; loading them all took seconds of every start.
  experimental: {
    preloadEntriesOnStart: false,
    // Writing it takes longer than it saves: over two minutes and 2 GB, of a build that takes four.
    turbopackFileSystemCacheForBuild: false,
    // Nobody downloads the server: what it says of an error is read as it was written.
    serverMinification: false,
    turbopackSourceMaps: false,
  },
  // The server runs where it was built. Listing for each route what it may read took a minute and 700 MB.
  outputFileTracingExcludes: { '/**': ['**/*'], '**': ['**/*'] },
  // What is bundled is bundled into every route anew, and held in memory as often.
  serverExternalPackages: [
    '@cantoo/fontkit',
    '@cantoo/pdf-lib',
    '@hyzyla/pdfium',
    '@libsql/client',
    '@simplewebauthn/server',
    'age-encryption',
    'better-auth',
    'drizzle-orm',
    'file-type',
    'harfbuzzjs',
    'i18n-iso-countries',
    'jose',
    'libsodium-wrappers',
    'libsql',
    'mailparser',
    'mmdb-lib',
    'nodemailer',
    'otpauth',
    'papaparse',
    'pino',
    'piscina',
    'qrcode',
    'rate-limiter-flexible',
    'sharp',
    'subset-font',
    'zod',
  ],
};

export default config;
