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
  },
  // What is bundled is bundled into every route anew, and held in memory as often.
  serverExternalPackages: [
    '@cantoo/fontkit',
    '@cantoo/pdf-lib',
    '@hyzyla/pdfium',
    '@libsql/client',
    'age-encryption',
    'better-auth',
    'drizzle-orm',
    'file-type',
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
    'zod',
  ],
};

export default config;
