import { useEffect, useState } from 'react';
import type { Remote } from '@/core/contracts/remote';
import { api } from '../api/client';

/** The remote folders; none while they cannot be asked for. */
export function useRemotes(): readonly Remote[] {
  const [remotes, setRemotes] = useState<readonly Remote[]>([]);
  useEffect(() => {
    api.remotes().then(setRemotes, () => undefined);
  }, []);
  return remotes;
}
