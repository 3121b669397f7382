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
    'webdav',
  ],
  poweredByHeader: false,
  devIndicators: false,
  reactStrictMode: true,
  typescript: { ignoreBuildErrors: false },
};

export default config;
