import type { ReactNode } from 'react';
import { LoadShell } from '@/features/shell/LoadShell';

/**
 * All views live in one shell in the browser, which chooses by the address: going from Take to
 * Mark asks the server for nothing, so it works at once and also while the server does not.
 */
export default function ViewsLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <LoadShell />
      {children}
    </>
  );
}
