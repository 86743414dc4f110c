import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // `npm test` checks types, these among them; whoever builds to run need not wait for it.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['@libsql/client', 'libsql', 'sharp', 'piscina', '@hyzyla/pdfium', 'better-auth', 'pino', 'nodemailer', '@cantoo/pdf-lib'],
};

export default config;
