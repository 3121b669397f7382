import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { create } from 'zustand';
import { useEffect } from 'react';
import type { Folder } from '@/core/contracts/folder';
import { firstRules, type Rules } from '@/core/contracts/rules';

/** A folder of the computer that the browser runs on; only this browser knows it. */
export interface BrowserFolder extends Rules {
  id: string;
  name: string;
  handle: FileSystemDirectoryHandle;
  nextNumber: number;
}

interface Kept extends DBSchema {
  folders: { key: string; value: BrowserFolder };
}

let opening: Promise<IDBPDatabase<Kept>> | null = null;

function kept(): Promise<IDBPDatabase<Kept>> {
  opening ??= openDB<Kept>('rezzik-folders', 1, {
    upgrade: (db) => void db.createObjectStore('folders', { keyPath: 'id' }),
    terminated() {
      opening = null;
    },
  });
  return opening;
}

const useStore = create<{ folders: readonly BrowserFolder[] }>(() => ({ folders: [] }));

export async function readBrowserFolders(): Promise<readonly BrowserFolder[]> {
  const folders = await (await kept()).getAll('folders');
  folders.sort((a, b) => a.name.localeCompare(b.name));
  useStore.setState({ folders });
  return folders;
}

/** The folders this browser was given; none where it has no way to write into them. */
export function useBrowserFolders(): readonly BrowserFolder[] {
  useEffect(() => {
    readBrowserFolders().catch(() => undefined);
  }, []);
  return useStore((s) => s.folders);
}

export const canHaveFolders = (): boolean => typeof window.showDirectoryPicker === 'function';

/** Lets the person choose a folder and remembers it; null when they think better of it. */
export async function addBrowserFolder(): Promise<BrowserFolder | null> {
  try {
    const handle = await window.showDirectoryPicker?.({ id: 'rezzik', mode: 'readwrite' });
    if (!handle) return null;
    for (const known of await readBrowserFolders())
      if (await known.handle.isSameEntry(handle)) return known;
    const id = crypto.randomUUID();
    const folder = { ...firstRules, id, name: handle.name, handle, nextNumber: 1 };
    await saveBrowserFolder(folder);
    return folder;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return null;
    throw error;
  }
}

export async function saveBrowserFolder(folder: BrowserFolder): Promise<void> {
  await (await kept()).put('folders', folder);
  await readBrowserFolders();
}

/** Forgets a folder; its files stay where they are. */
export async function removeBrowserFolder(id: string): Promise<void> {
  await (await kept()).delete('folders', id);
  await readBrowserFolders();
}

export async function browserFolder(id: string): Promise<BrowserFolder | undefined> {
  return (await kept()).get('folders', id);
}

/** Counts its number on; two tabs never get the same. */
export async function nextNumber(id: string): Promise<number> {
  const { store, done } = (await kept()).transaction('folders', 'readwrite');
  const folder = await store.get(id);
  if (folder) await store.put({ ...folder, nextNumber: folder.nextNumber + 1 });
  await done;
  return folder?.nextNumber ?? 1;
}

/** As the rest of Keep knows folders. */
export const asFolder = ({ handle, ...folder }: BrowserFolder): Folder => ({
  ...folder,
  path: handle.name,
  numberBy: 'folder',
  isDefault: false,
  unconfirmed: false,
  free: null,
  problem: null,
});
