import type { Folder } from '@/core/contracts/folder';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';

/** The folders that are set up; undefined until that is known. */
export const useFolders = (): Folder[] | undefined =>
  useAnswer(api.folders, 'folders').answer?.folders;
