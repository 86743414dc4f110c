import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  serverExternalPackages: ['@libsql/client', 'libsql', 'sharp', 'piscina', '@hyzyla/pdfium', 'better-auth', 'pino', 'nodemailer', '@cantoo/pdf-lib'],
};

export default config;
