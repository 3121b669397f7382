import type { NextConfig } from 'next';

const config: NextConfig = {
  // The tests build beside a running demo, into a folder of their own.
  distDir: process.env.REZZIK_DIST ?? '.next',
  turbopack: {
    root: import.meta.dirname,
    // HarfBuzz's loader names this module for Node; the browser must not look for it.
    resolveAlias: { module: { browser: './workers/absent.ts' } },
  },
  serverExternalPackages: [
    'sharp',
    '@napi-rs/canvas',
    'harfbuzzjs',
    'postgres',
    'pdfkit',
    'dbus-native',
    // Finds its thread's program beside itself.
    'tesseract.js',
  ],
  // Thirty font files that are asked for at every start, in the page and in its worker.
  headers: () =>
    Promise.resolve([
      {
        source: '/fonts/:file',
        has: [{ type: 'query', key: 'v' }],
        headers: [{ key: 'Cache-Control', value: 'private, max-age=31536000, immutable' }],
      },
    ]),
  poweredByHeader: false,
  devIndicators: false,
  reactStrictMode: true,
  // Types are checked by tsc in npm test; a build for the first start need not wait for that again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
