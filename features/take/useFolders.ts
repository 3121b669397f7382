import { useEffect, useState } from 'react';
import type { Folder } from '@/core/contracts/folder';
import { api } from '../api/client';

/** The folders that are set up; undefined until that is known. */
export function useFolders(): Folder[] | undefined {
  const [folders, setFolders] = useState<Folder[]>();
  useEffect(() => {
    let current = true;
    void api
      .folders()
      .then((read) => current && setFolders(read.folders))
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, []);
  return folders;
}
