'use client';

import dynamic from 'next/dynamic';

/** The views need a browser (canvas, storage, screen sharing): nothing of them runs on the server. */
const Shell = dynamic(() => import('./Shell').then((m) => m.Shell), {
  ssr: false,
  loading: () => <p className="p-6 text-soft">Opening Rezzik …</p>,
});

export function LoadShell() {
  return <Shell />;
}
