import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import '@fontsource/atkinson-hyperlegible-next/latin-ext-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-ext-700.css';
import '@fontsource/bricolage-grotesque/latin-700.css';
import '@fontsource/bricolage-grotesque/latin-ext-700.css';
import '@fontsource/ibm-plex-mono/latin-400.css';
import './globals.css';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';

export const metadata: Metadata = {
  description: 'Take a screenshot, mark it, keep it, find it again.',
  manifest: '/manifest.webmanifest',
};

/** Every page carries a nonce of its own, so none is made ahead of time. */
export const dynamic = 'force-dynamic';

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <head>
        {/* Not of the metadata, which would be put back after a view has set its own. */}
        <title>Rezzik</title>
      </head>
      <body>{children}</body>
    </html>
  );
}
